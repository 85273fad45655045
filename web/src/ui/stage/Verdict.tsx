import { touched } from '../../api/queries'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { api, got, type VerdictView } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import { clsx } from 'clsx'
import css from './stage.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  verdict: VerdictView
  movement: string
  client: string
  wear: (settings: Record<string, number | string>) => void
  again?: () => void
}

const headings = { allowed: '', modify: 'To modify for this client', avoid: 'To avoid for this client' }

/**
 * Verdict is what speaks against a set-up for a client, what to turn instead, and the coach's override with its
 * reason.
 */
export function Verdict({ verdict, movement, client, wear, again }: Props) {
  const me = useMe()
  const cache = useQueryClient()
  const [reason, setReason] = useState<string | null>(null)
  const sent = useSending()
  const { run: send, why } = useWrite(async (allowed: boolean) => {
    await got(
      api.POST('/clients/{client}/overrides/{movement}', {
        params: { path: { client, movement } },
        body: { id: sent.idOf([movement, allowed, reason]), allowed, reason: reason ?? '' },
      }),
    )
    sent.kept()
    setReason(null)
    touched(cache, ['verdicts'])
    again?.()
  })
  return (
    <section className={verdict.barred ? clsx(css.verdict, 'avoid') : css.verdict} aria-label="Verdict">
      <h2>{headings[verdict.ruling]}</h2>
      {verdict.reasons.map((r) => (
        <div key={r.words} className={r.ruling === 'avoid' ? 'finding stop' : 'finding warn'}>
          {r.words}
          {r.follow && (
            <button type="button" className="link" onClick={() => wear(r.follow as Record<string, number | string>)}>
              Turn it: {r.turn}
            </button>
          )}
        </div>
      ))}
      {verdict.overridden && (
        <p className="margin-line">
          Overridden: {verdict.overridden}{' '}
          {me.data?.may_plan && (
            <button type="button" className="link" onClick={() => void send(false)}>
              Let it stand again
            </button>
          )}
        </p>
      )}
      {verdict.by_caps && <p className="caveat">From the caps, which nothing overrides.</p>}
      {me.data?.may_plan && !verdict.overridden && !verdict.by_caps && verdict.ruling === 'avoid' && (
        <>
          {reason === null ? (
            <button type="button" className="link" onClick={() => setReason('')}>
              Allow it all the same
            </button>
          ) : (
            <form
              onSubmit={(e) => {
                e.preventDefault()
                void send(true)
              }}
            >
              <Input
                aria-label="Reason for the override"
                placeholder="why it may be done"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
              />
              <Button size="small" htmlType="submit" disabled={reason.trim() === ''}>
                Save the override
              </Button>{' '}
              <Button size="small" onClick={() => setReason(null)}>
                Leave it
              </Button>
            </form>
          )}
        </>
      )}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      <p className="caveat">No diagnosis: from the joint scores, the checks and this set-up’s own numbers.</p>
    </section>
  )
}

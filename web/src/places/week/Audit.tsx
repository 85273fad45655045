import { Button, Input } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, got, type AuditView } from '../../api/client'
import { useSending } from '../../api/sending'
import { clsx } from 'clsx'
import css from './board.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  client: string
  findings: AuditView[]
  /** how many more there are than are listed, the gravest being listed */
  hidden?: number
  mayPlan: boolean
  fix: (f: AuditView) => void
  show: (f: AuditView) => void
  changed: () => void
}

/** Audit is what is wrong with a week, each finding with its reason and one action; accepted ones stay, folded. */
export function Audit({ client, findings, hidden = 0, mayPlan, fix, show, changed }: Props) {
  const open = findings.filter((f) => !f.accepted)
  const accepted = findings.filter((f) => f.accepted)
  const grave = open.filter((f) => f.severity !== 'note')
  const notes = open.filter((f) => f.severity === 'note')
  return (
    <section aria-label="Findings">
      <h2>
        <span role="status">{heading(grave.length, notes.length, hidden)}</span>
      </h2>
      {[...grave, ...notes].map((f) => (
        <Finding key={f.key} client={client} f={f} mayPlan={mayPlan} fix={fix} show={show} changed={changed} />
      ))}
      {hidden > 0 && <p className="caveat">{hidden} more are not listed: clear some of these first.</p>}
      {accepted.length > 0 && <h2>Accepted</h2>}
      {accepted.map((f) => (
        <Finding key={f.key} client={client} f={f} mayPlan={mayPlan} fix={fix} show={show} changed={changed} />
      ))}
    </section>
  )
}

/** heading counts every card that stands below it, by what it asks for. */
function heading(grave: number, notes: number, hidden: number) {
  const worth = notes > 0 ? `${notes} worth knowing` : ''
  if (grave === 0) return worth || 'No findings'
  return [`${grave}${hidden > 0 ? ' gravest' : ''} to mend`, worth].filter(Boolean).join(', ')
}

function Finding({ client, f, mayPlan, fix, show, changed }: { f: AuditView } & Omit<Props, 'findings' | 'hidden'>) {
  const [why, setWhy] = useState(false)
  const [reason, setReason] = useState<string | null>(null)
  const sent = useSending()
  const { run: accept, why: problem } = useWrite(async (accepted: boolean) => {
    await got(
      api.POST('/clients/{client}/accepted', {
        params: { path: { client } },
        body: { id: sent.idOf([f.key, accepted, reason]), key: f.key, accepted, reason: reason ?? '' },
      }),
    )
    sent.kept()
    setReason(null)
    changed()
  })
  return (
    <div className={clsx('finding', f.accepted ? 'accepted' : f.severity)}>
      {f.text}{' '}
      <button type="button" className={css.whyLink} aria-expanded={why} onClick={() => setWhy(!why)}>
        why?
      </button>
      {why && <p className="caveat">{f.why}</p>}
      {f.accepted && (
        <p className="caveat">
          {f.accepted.by} let it stand: {f.accepted.reason}
        </p>
      )}
      <span className={css.findingDo}>
        {mayPlan && f.fix && !f.accepted && (
          <button type="button" className="link" onClick={() => fix(f)}>
            {f.fix.words}
          </button>
        )}
        {mayPlan &&
          !f.accepted &&
          f.ways.map((w) => (
            <Link key={w.place} to={`/clients/${client}/${w.place}`} className="link">
              {w.words}
            </Link>
          ))}
        {f.held && !f.accepted && <span className="caveat">What would clear it is locked.</span>}
        {f.slot && (
          <button type="button" className={clsx('link', css.soft)} onClick={() => show(f)}>
            Show it
          </button>
        )}
        {mayPlan && !f.accepted && reason === null && (
          <button type="button" className={clsx('link', css.soft)} onClick={() => setReason('')}>
            Let it stand
          </button>
        )}
        {mayPlan && f.accepted && (
          <button type="button" className={clsx('link', css.soft)} onClick={() => void accept(false)}>
            No longer
          </button>
        )}
      </span>
      {reason !== null && (
        <form
          onSubmit={(e) => {
            e.preventDefault()
            void accept(true)
          }}
        >
          <Input
            size="small"
            autoFocus
            aria-label="Why it may stand"
            placeholder="why it may stand"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            onKeyDown={(e) => e.key === 'Escape' && setReason(null)}
          />
          <Button size="small" htmlType="submit" disabled={reason.trim() === ''}>
            Save the reason
          </Button>
        </form>
      )}
      {problem && <p className="fault">{problem}</p>}
    </div>
  )
}

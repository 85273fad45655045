import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { api, got, type CheckInAnswer } from '../../api/client'
import { queries, touched } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { useMe } from '../../app/me'
import css from './decisions.module.css'

/** HerWords is what a client answered by her link, the latest first; a coach sees it, and may say one line. */
export function HerWords({ client }: { client: string }) {
  const answers = useQuery(queries.checkIns(client))
  const list = answers.data?.answers ?? []
  if (list.length === 0) return null
  return (
    <>
      <h2>Her own words</h2>
      {list.slice(0, 6).map((a) => (
        <Answer key={a.id} client={client} answer={a} />
      ))}
    </>
  )
}

function Answer({ client, answer: a }: { client: string; answer: CheckInAnswer }) {
  const me = useMe()
  const cache = useQueryClient()
  const [reply, setReply] = useState('')
  const { run, busy, why } = useWrite(async () => {
    await got(
      api.POST('/clients/{client}/check-ins/{check-in}', {
        params: { path: { client, 'check-in': a.id } },
        body: { reply: reply.trim() },
      }),
    )
    setReply('')
    touched(cache, ['decisions'])
  })
  return (
    <div className={css.came}>
      <p>
        {a.words} <span className={css.of}>({a.when})</span>
      </p>
      {a.reply && (
        <p>
          <b>{a.by}:</b> {a.reply}
        </p>
      )}
      {!a.seen && me.data?.may_plan && (
        <form
          className={css.reply}
          onSubmit={(e) => {
            e.preventDefault()
            void run()
          }}
        >
          <Input
            size="small"
            aria-label={`A line in answer to: ${a.words}`}
            placeholder="one line to her, or none"
            maxLength={140}
            value={reply}
            onChange={(e) => setReply(e.target.value)}
          />
          <Button size="small" htmlType="submit" disabled={busy}>
            {reply.trim() ? 'Say it' : 'Seen'}
          </Button>
        </form>
      )}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
    </div>
  )
}

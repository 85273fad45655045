import { putFresh, queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { api, got, type AuditView, type SheetView } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import { useClient } from '../../ui/thread/Client'
import { Compare } from './Compare'
import { Links } from './Links'
import { momentWords } from '../../ui/when'
import css from './editing.module.css'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

interface Props {
  session: string
  looked: SheetView | null
  look: (sheet: SheetView | null) => void
  /** what is on screen is saved, so that what is issued is what is seen */
  saved: boolean
}

const mostShown = 4

/**
 * Issuing is what of this sheet has left, what changed since and what is open, and what makes the client read it: this
 * session's sheet, or the whole week's.
 */
export function Issuing({ session, looked, look, saved }: Props) {
  const client = useClient()
  const me = useMe()
  const cache = useQueryClient()
  const path = { client: client.id, session }
  const issues = useQuery(queries.issues(client.id, session))
  const kept = useQuery(queries.session(client.id, session))
  const of = kept.data?.planned_on ?? ''
  const week = useQuery({ ...queries.week(client.id, of), enabled: of !== '' })
  const one = useSending()
  const [all] = useState(() => new Map<string, string>())
  const [which, setWhich] = useState('')
  const {
    run: issuing,
    why,
    busy: underWay,
  } = useWrite(
    async (of: string, what: () => Promise<void>) => {
      setWhich(of)
      await what()
      touched(cache, ['issues'])
    },
    () => touched(cache, ['plan', 'issues']),
  )
  const busy = underWay ? which : ''
  const view = issues.data
  if (!view || !kept.data) return <div className={css.issuing} />
  const locked = !me.data?.may_plan
  const last = view.issues[0]
  const pending = view.pending.length > 0
  const barred = busy !== '' || !saved || client.blocked !== ''
  const { name, when } = kept.data
  const open = (week.data?.findings ?? []).filter((f) => f.session === session && !f.accepted && f.severity !== 'note')
  const planned = (week.data?.sessions ?? []).filter((s) => s.board.length > 0)

  const issue = () =>
    issuing('one', async () => {
      const body = { version: kept.data.version }
      putFresh(
        cache,
        queries.issues(client.id, session).queryKey,
        await got(
          api.POST('/clients/{client}/sessions/{session}/issues', {
            params: { path },
            body: { id: one.idOf([session, body]), ...body },
          }),
        ),
      )
      one.kept()
    })
  const issueWeek = () =>
    issuing('week', async () => {
      const sheets = planned.map((s) => {
        const key = `${s.id} ${s.version}`
        if (!all.has(key)) all.set(key, uuidv7()) // the same version sent again is issued once
        return { id: all.get(key)!, session: s.id, version: s.version }
      })
      const { issued } = await got(
        api.POST('/clients/{client}/issues', { params: { path: { client: client.id } }, body: { sheets } }),
      )
      all.clear()
      message.success(`The client can read ${issued.map((i) => `${i.name} (sheet ${i.number})`).join(', ')}.`, 6)
    })
  return (
    <section className={css.issuing} aria-label="Issuing">
      <p className={css.issuingLine}>
        {!last ? (
          <span>
            <b>{name}</b>, {when}, is not issued yet: the client cannot read it.
          </span>
        ) : pending ? (
          <b>Changed since sheet {last.number} left:</b>
        ) : (
          <span>
            Sheet {last.number} left on {momentWords(last.at)} and is what is planned.
          </span>
        )}
        {!locked && (!last || pending) && (
          <Button
            className="issue-one"
            type="primary"
            size="small"
            loading={busy === 'one'}
            disabled={barred}
            onClick={() => void issue()}
          >
            Issue {name}, {when}
            {last ? `, as sheet ${last.number + 1}` : ''}
          </Button>
        )}
        {!locked && planned.length > 1 && (
          <Button
            size="small"
            loading={busy === 'week'}
            disabled={barred}
            title={planned.map((s) => s.name).join(', ')}
            onClick={() => void issueWeek()}
          >
            Issue the whole week, {planned.length} sessions
          </Button>
        )}
        {view.issues.length > 0 && (
          <Select
            size="small"
            aria-label="Which sheet"
            value={looked ? view.issues.findIndex((i) => i.sheet === looked) : -1}
            onChange={(i) => look(i < 0 ? null : view.issues[i]!.sheet)}
            options={[
              { value: -1, label: 'as planned now' },
              ...view.issues.map((i, n) => ({ value: n, label: `sheet ${i.number}, ${momentWords(i.at)}, ${i.by}` })),
            ]}
          />
        )}
      </p>
      {pending && (
        <ul>
          {view.pending.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      {open.length > 0 && <Open findings={open} to={`/clients/${client.id}/week?of=${of}`} />}
      {looked && view.issues.some((i) => i.sheet === looked) && (
        <Compare
          key={view.issues.find((i) => i.sheet === looked)!.number}
          client={client.id}
          session={session}
          is={view.issues.find((i) => i.sheet === looked)!.number}
          count={view.issues.length}
        />
      )}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      <Links client={client.id} links={view.links} locked={locked} changed={() => void issues.refetch()} />
    </section>
  )
}

/** Open are the findings of this session that nobody has cleared or let stand. */
function Open({ findings, to }: { findings: AuditView[]; to: string }) {
  return (
    <div className={css.issuingOpen} role="status">
      <b>{findings.length === 1 ? 'One open finding' : `${findings.length} open findings`} of this session</b>
      <ul>
        {findings.slice(0, mostShown).map((f) => (
          <li key={f.key} className={f.severity}>
            {f.text}
          </li>
        ))}
      </ul>
      <Link to={to}>
        {findings.length > mostShown
          ? `And ${findings.length - mostShown} more, in the week`
          : 'Clear them, or let them stand, in the week'}
      </Link>
    </div>
  )
}

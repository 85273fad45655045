import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, type DraftedWeek, type DraftsView } from '../../api/client'
import { queries, touched } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { useCatalogue, useMe } from '../../app/me'
import { Slice } from '../../figures/Slice'
import { Waiting } from '../../ui/Waiting'
import { spanWords } from '../../ui/when'
import css from './next.module.css'

/** Drafted is what came of drafting for one client. */
type Drafted = { view: DraftsView; writes: string[] } | { failed: string }

/** NextWeek is who has no next week: a week is drafted for each, looked at, and laid on her board or not. */
export function NextWeek() {
  const me = useMe()
  const next = useQuery(queries.unplanned())
  const [drafted, setDrafted] = useState<Record<string, Drafted>>({})
  const [drafting, setDrafting] = useState(false)
  const gone = useRef<AbortController | null>(null)
  useEffect(() => () => gone.current?.abort(), [])
  if (!next.data) return <Waiting query={next} />
  const { clients, from, to, planned } = next.data
  const may = me.data?.may_plan ?? false
  const left = clients.filter((c) => !c.blocked && !drafted[c.id])

  const draftAll = async () => {
    const stop = new AbortController()
    gone.current = stop
    setDrafting(true)
    for (const c of left) {
      let came: Drafted
      try {
        const view = await got(
          api.POST('/clients/{client}/draft', {
            params: { path: { client: c.id }, query: { of: from } },
            body: { sessions: [], stage: 'final' },
            signal: stop.signal,
          }),
        )
        came = { view, writes: (view.drafts[0]?.sessions ?? []).map(() => uuidv7()) }
      } catch (e) {
        if (stop.signal.aborted) return
        if (!(e instanceof Problem)) throw e
        came = { failed: e.words }
      }
      if (stop.signal.aborted) return
      setDrafted((d) => ({ ...d, [c.id]: came }))
    }
    setDrafting(false)
  }

  return (
    <main className={css.next}>
      <header className={css.head}>
        <Link to="/clients">← Clients</Link>
        <h1>
          {clients.length === 0
            ? 'Everybody has a next week'
            : `${clients.length} without a week, ${spanWords(from, to)}`}
        </h1>
        {planned > 0 && <p>{planned} have one.</p>}
        {may && left.length > 0 && (
          <Button type="primary" size="small" disabled={drafting} onClick={() => void draftAll()}>
            {drafting
              ? `Drafting, ${left.length} to go …`
              : left.length === 1
                ? 'Draft it'
                : `Draft a week for each of ${left.length}`}
          </Button>
        )}
      </header>
      <p className="hint">
        Each draft is looked at and laid by you; nothing is saved or issued by itself. Those who may not train are not
        drafted for.
      </p>
      <div className={css.cards}>
        {clients.map((c) => (
          <section key={c.id} className={css.card} aria-label={c.name}>
            <h2>
              <Link to={`/clients/${c.id}/week?of=${from}`}>{c.name}</Link>
            </h2>
            {c.blocked ? (
              <p className="warn">{c.blocked}</p>
            ) : (
              <Card client={c.id} from={from} drafted={drafted[c.id]} waiting={drafting} />
            )}
          </section>
        ))}
      </div>
    </main>
  )
}

function Card({
  client,
  from,
  drafted,
  waiting,
}: {
  client: string
  from: string
  drafted?: Drafted
  waiting: boolean
}) {
  if (!drafted) return waiting ? <div className="skeleton" /> : <p className={css.pale}>Nothing is drafted yet.</p>
  if ('failed' in drafted) return <p className="warn">{drafted.failed}</p>
  const week = drafted.view.drafts[0]
  if (!week) return <p className="warn">{drafted.view.empty}</p>
  return <Week client={client} from={from} week={week} writes={drafted.writes} asks={drafted.view.clashes} />
}

/** Week is one client's draft that holds under every stance, in short. */
function Week({
  client,
  from,
  week,
  writes,
  asks,
}: {
  client: string
  from: string
  week: DraftedWeek
  writes: string[]
  asks: string[]
}) {
  const { right } = useCatalogue()
  const cache = useQueryClient()
  const [laid, setLaid] = useState(false)
  const lay = useWrite(async () => {
    await got(
      api.PUT('/clients/{client}/week', {
        params: { path: { client }, query: { of: from } },
        body: { sessions: week.sessions.map((s, i) => ({ ...s, write: writes[i] })) },
      }),
    )
    setLaid(true)
    touched(cache, ['plan'])
  })
  return (
    <>
      <div className={css.top}>
        <Slice geometry={right} view={week.slice} size={72} places={1} unit="effective sets a week" />
        <p>
          <b>{week.minutes}</b> min.{' '}
          {week.gives_up.length > 0
            ? `Gives up ${week.gives_up.slice(0, 2).join('; ')}${week.gives_up.length > 2 ? ` and ${week.gives_up.length - 2} more` : ''}.`
            : 'Gives up nothing it is asked for.'}
        </p>
      </div>
      {asks.map((a) => (
        <p key={a} className="warn">
          {a}
        </p>
      ))}
      <ul>
        {week.days.map((d) => (
          <li key={d.on}>
            <b>{d.name}</b> {d.minutes} min: {d.slots.map((s) => `${s.short} ${s.sets}`).join('; ')}
          </li>
        ))}
      </ul>
      <p className={css.acts}>
        {laid ? (
          <Link to={`/clients/${client}/week?of=${from}`}>It is on the board: look at it</Link>
        ) : (
          <>
            <Button size="small" type="primary" disabled={lay.busy} onClick={() => void lay.run()}>
              Lay it on the board
            </Button>
            <Link to={`/clients/${client}/week?of=${from}&drafts=`}>Look at all three</Link>
          </>
        )}
        {lay.why && <span className="warn">{lay.why}</span>}
      </p>
    </>
  )
}

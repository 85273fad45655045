import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { v7 as uuidv7 } from 'uuid'
import { api, got, type CourseShown, type DecidedView, type ProposalView } from '../../api/client'
import { queries, touched } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { useMe } from '../../app/me'
import { message } from '../../ui/tell'
import css from './decisions.module.css'

/** useAnswers takes a proposal, puts it off, and takes it back. */
export function useAnswers(client: string) {
  const cache = useQueryClient()
  const path = { client }
  const changed = () => touched(cache, ['plan', 'decisions'])
  const undo = useWrite(async (decision: string) => {
    const a = await got(
      api.POST('/clients/{client}/decisions/{decision}/undo', {
        params: { path: { ...path, decision } },
        body: { id: uuidv7() },
      }),
    )
    message.success(a.words)
    changed()
  })
  const answer = useWrite(
    async (p: ProposalView, what: 'taken' | 'not_now') => {
      const a = await got(
        api.POST('/clients/{client}/decisions', {
          params: { path },
          body: { id: uuidv7(), series: p.series, kind: p.kind, answer: what },
        }),
      )
      message.open({
        key: 'decided',
        duration: 10,
        content: (
          <>
            {a.words}{' '}
            <button
              type="button"
              className="link"
              onClick={() => {
                message.destroy('decided')
                void undo.run(a.undo)
              }}
            >
              Undo
            </button>
          </>
        ),
      })
      changed()
    },
    (p) => {
      message.error(p.words)
      if (p.status === 409) touched(cache, ['decisions'])
    },
  )
  return { answer: answer.run, undo: undo.run, busy: answer.busy || undo.busy }
}

/** Proposals are what to do: about the client as a whole first, then about each set-up; what stays as it is last, in a line each. */
export function Proposals({
  client,
  whole,
  courses,
}: {
  client: string
  whole: ProposalView | null
  courses: CourseShown[]
}) {
  const asks = courses.flatMap((c) => (c.proposal && c.proposal.kind !== 'hold' ? [c.proposal] : []))
  const stays = courses.filter((c) => c.proposal?.kind === 'hold')
  const watched = courses.filter((c) => c.planned && !c.proposal && c.watching)
  const count = asks.length + (whole ? 1 : 0)
  return (
    <>
      <h2>{count === 0 ? 'Nothing to decide' : count === 1 ? 'One thing to decide' : `${count} things to decide`}</h2>
      {whole && <Proposal client={client} proposal={whole} />}
      {asks.map((p) => (
        <Proposal key={p.series} client={client} proposal={p} />
      ))}
      {watched.length > 0 && <h2>Watched</h2>}
      {watched.map((c) => (
        <p key={c.key} className="margin-line">
          <b>{c.short}</b>: {c.watching}
        </p>
      ))}
      {stays.length > 0 && <h2>Stays as it is</h2>}
      {stays.map((c) => (
        <details key={c.key} className={css.stays}>
          <summary>
            <b>{c.short}</b>: {lower(c.proposal!.says)}
          </summary>
          {c.proposal!.why.map((w) => (
            <p key={w}>{w}</p>
          ))}
        </details>
      ))}
    </>
  )
}

const lower = (s: string) => s.slice(0, 1).toLowerCase() + s.slice(1)

/** Asks is what is proposed, in a place that is about something else: of the whole plan, or of some set-ups. */
export function Asks({ client, names }: { client: string; names?: string[] }) {
  const trend = useQuery(queries.trend(client))
  const asks = (trend.data?.courses ?? []).flatMap((c) =>
    c.proposal && c.proposal.kind !== 'hold' && (!names || names.includes(c.name)) ? [c.proposal] : [],
  )
  const whole = trend.data?.whole
  if (asks.length === 0 && !whole) return null
  return (
    <>
      <h2>From the log</h2>
      {whole && <Proposal client={client} proposal={whole} />}
      {asks.map((p) => (
        <Proposal key={p.series} client={client} proposal={p} />
      ))}
    </>
  )
}

/** Proposal is one sentence with its reasons, to be taken or put off. */
export function Proposal({ client, proposal: p }: { client: string; proposal: ProposalView }) {
  const me = useMe()
  const { answer, busy } = useAnswers(client)
  return (
    <div className={css.proposal}>
      {p.name && <p className={css.of}>{p.name}</p>}
      <p className={css.does}>{p.says}</p>
      {p.why.map((w) => (
        <p key={w} className={css.why}>
          {w}
        </p>
      ))}
      {me.data?.may_plan && (
        <p className={css.answers}>
          <Button
            type="primary"
            disabled={busy}
            onClick={() => void answer(p, 'taken')}
            aria-label={`${p.writes ? 'Take it' : 'Seen'}: ${p.says}`}
          >
            {p.writes ? 'Take it' : 'Seen'}
          </Button>
          <button
            type="button"
            className="link"
            disabled={busy}
            onClick={() => void answer(p, 'not_now')}
            aria-label={`Not now: ${p.says}`}
          >
            Not now
          </button>
        </p>
      )}
    </div>
  )
}

/** Decisions are what was decided before, and what came of it. */
export function Decisions({ client, decisions }: { client: string; decisions: DecidedView[] }) {
  const me = useMe()
  const { undo, busy } = useAnswers(client)
  const shown = decisions.filter((d) => d.answer === 'taken').slice(0, 8)
  if (shown.length === 0) return null
  return (
    <>
      <h2>What came of earlier ones</h2>
      {shown.map((d) => (
        <div key={d.id} className={css.came}>
          <p>
            <b>{d.says}</b> {d.name && <span className={css.of}>{d.name}</span>}
          </p>
          <p>
            {d.when}. {d.outcome}{' '}
            {me.data?.may_plan && d.fresh && (
              <button
                type="button"
                className="link"
                disabled={busy}
                onClick={() => void undo(d.id)}
                aria-label={`Take back: ${d.says}`}
              >
                Take back
              </button>
            )}
          </p>
        </div>
      ))}
      <p className="caveat">
        What came after is told with what sessions scatter by. What it came from, a log cannot say.
      </p>
    </>
  )
}

import { DayField } from '../../ui/DayField'
import { putFresh, queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Segmented } from 'antd'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, got, type HeadPriority, type PrioritiesView } from '../../api/client'
import { useCatalogue, useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { headColour, tenths } from '../../figures/heads'
import { Slice } from '../../figures/Slice'
import { useClient } from '../../ui/thread/Client'
import { PoseRating } from './PoseRating'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './priorities.module.css'
import { useWrite } from '../../api/useWrite'

type Level = HeadPriority['level']

const levels: { value: Level; label: string }[] = [
  { value: 'maintain', label: 'maintain' },
  { value: 'build', label: 'build' },
  { value: 'prioritise', label: 'prioritise' },
]

const ratedWords: Record<string, string> = {
  '-2': 'far behind',
  '-1': 'behind',
  '0': 'in line',
  '1': 'ahead',
  '2': 'far ahead',
}

/** Priorities is what should grow: what asks for each head beside what the coach sets, with an end date. */
export function Priorities() {
  const client = useClient()
  const me = useMe()
  const { right } = useCatalogue()
  const navigate = useNavigate()
  const cache = useQueryClient()
  const path = { client: client.id }
  const priorities = useQuery(queries.priorities(client.id))
  const view = priorities.data
  const locked = !me.data?.may_plan
  const keep = (v: PrioritiesView) => {
    putFresh(cache, ['priorities', client.id], v)
    touched(cache, ['emphasis'], ['priorities', client.id])
  }
  const {
    run: set,
    busy,
    problem,
  } = useWrite(
    async (next: Record<string, Level>, until: string | null) => {
      const first = Object.values(next).includes('prioritise')
      keep(
        await got(
          api.PUT('/clients/{client}/emphasis', {
            params: { path },
            body: { version: view!.version, levels: next, until: until || (first ? view!.default_until : null) },
          }),
        ),
      )
    },
    (p) => p.status === 409 && void priorities.refetch(),
  )
  if (!view) return <Waiting query={priorities} />
  const why = problem?.faults[0]?.reason ?? problem?.message ?? ''
  const now = Object.fromEntries(view.heads.map((h) => [h.id, h.level])) as Record<string, Level>
  const proposed = Object.fromEntries(view.heads.map((h) => [h.id, h.proposed])) as Record<string, Level>
  const until = view.emphasis?.until ?? null
  const same = JSON.stringify(now) === JSON.stringify(proposed)
  return (
    <div className={leavesCss.dossier}>
      <main className={leavesCss.dossierMain}>
        <div className={css.top}>
          <Slice
            geometry={right}
            view={view.slice}
            size={224}
            places={0}
            unit="effective sets a week to aim for"
            ask={(head) => navigate(`/library?${new URLSearchParams({ client: client.id, head })}`)}
          />
          <div className={css.until}>
            <p className={leavesCss.prose}>
              {view.emphasis ? (
                view.emphasis.over ? (
                  <b className="warn">
                    This emphasis ended on {view.emphasis.until_words}: what came first is only built now.
                  </b>
                ) : (
                  <>Set on {view.emphasis.set_words}.</>
                )
              ) : (
                'Nothing is set yet: every head is maintained.'
              )}{' '}
              {until ? 'It ends on' : 'It ends on a day chosen with the first head that is prioritised, or here:'}{' '}
              <DayField
                label="The emphasis ends on"
                needed
                disabled={locked || busy}
                min={me.data?.today}
                value={until ?? null}
                set={(day) => day && void set(now, day)}
              />
              {until && '.'}
            </p>
            <p>
              {!locked && (
                <Button
                  type="primary"
                  disabled={busy || same}
                  onClick={() => void set(proposed, view.emphasis?.over ? null : until)}
                >
                  {same ? 'As proposed' : 'Use every proposal'}
                </Button>
              )}
            </p>
            {why && (
              <p className="fault" role="alert">
                Not set: {why}
              </p>
            )}
            <p className="caveat">
              Extra work for one head is taken from another, so an emphasis ends. Targets are effective sets a week:
              settings, not laws{view.first_year ? '; two thirds in the first year of training' : ''}.
            </p>
          </div>
        </div>
        <div className={css.heads} aria-label="Heads">
          {view.heads.map((h) => (
            <Head
              key={h.id}
              head={h}
              scale={view.scale}
              locked={locked || busy}
              set={(level) => void set({ ...now, [h.id]: level }, view.emphasis?.over ? null : until)}
            />
          ))}
        </div>
        <PoseRating
          key={view.rating?.on}
          view={view}
          client={client.id}
          locked={locked}
          today={me.data?.today ?? ''}
          keep={keep}
        />
      </main>
      <aside className="margin" aria-label="What the tool says">
        {view.notes.length > 0 && <h2>What to know</h2>}
        {view.notes.map((n) => (
          <div key={n} className="finding does">
            {n}
          </div>
        ))}
        <h2>Left against right</h2>
        {view.gaps.map((g) => (
          <div key={g.words} className={g.real ? 'finding warn' : 'finding quiet'}>
            {g.words}
          </div>
        ))}
        {view.gaps.length === 0 && <p className="margin-line">Not measured yet.</p>}
        <Link className="link" to={`/clients/${client.id}/dossier/measures`}>
          Measures
        </Link>
        <h2>The stance</h2>
        <p className="margin-line">
          {view.stance}.{' '}
          {view.heads.some((h) => h.together)
            ? 'It does not tell these apart, so a wish for one is shared with its neighbour: ' + pairs(view.heads) + '.'
            : 'It tells every head from its neighbour.'}
        </p>
        <Link className="link" to={`/stances?client=${client.id}`}>
          Stances
        </Link>
      </aside>
    </div>
  )
}

function pairs(heads: HeadPriority[]): string {
  const seen = new Set<string>()
  return heads
    .filter((h) => h.together && !seen.has(h.name) && seen.add(h.together))
    .map((h) => `${h.name} and ${h.together}`)
    .join('; ')
}

function Head({
  head,
  scale,
  locked,
  set,
}: {
  head: HeadPriority
  scale: string
  locked: boolean
  set: (level: Level) => void
}) {
  const [why, setWhy] = useState(false)
  return (
    <section className={clsx(css.headLine, css[head.level])} aria-label={head.name}>
      <span className={css.headName}>
        <i style={{ '--head': headColour[head.id] } as React.CSSProperties}>{head.code}</i> {head.name}
      </span>
      <span className={css.headAsks}>
        {head.wishes.map((w) => (
          <span key={w}>“{w}”</span>
        ))}
        {head.rated !== null && head.rated !== undefined && head.rated !== 0 && (
          <span>looks {ratedWords[String(head.rated)]}</span>
        )}
        {head.wishes.length === 0 && !head.rated && <span className={css.soft}>nothing asks for it</span>}
      </span>
      <span className="head-proposed">
        <button type="button" className="link" aria-expanded={why} onClick={() => setWhy(!why)} title="Why?">
          {head.proposed === head.level ? 'as proposed' : `proposed: ${head.proposed}`}
        </button>
      </span>
      <Segmented
        size="small"
        aria-label={`Level of ${head.name}`}
        disabled={locked}
        value={head.level}
        onChange={(v) => set(v)}
        options={levels}
      />
      <b className={css.headTarget}>
        {tenths(head.target_low)}–{tenths(head.target_high)} sets
      </b>
      {why && (
        <ul className={css.headWhy}>
          {head.reasons.map((r) => (
            <li key={r}>{r}</li>
          ))}
          <li>
            adds up to {tenths(head.score)}: {scale}
            {head.together && `. This stance does not tell it apart from the ${head.together}`}
          </li>
          <li>target, {head.band}</li>
        </ul>
      )}
    </section>
  )
}

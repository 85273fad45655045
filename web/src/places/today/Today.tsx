import { useQuery } from '@tanstack/react-query'
import { Button } from 'antd'
import { Link } from 'react-router'
import { queries } from '../../api/queries'
import type { DueView, TodayPerson, TodayView } from '../../api/client'
import { useKeys, type Keys } from '../../app/keys'
import { Slice } from '../../figures/Slice'
import { Waiting } from '../../ui/Waiting'
import { clsx } from 'clsx'
import css from './today.module.css'

const floorOf = (p: TodayPerson) => `/floor/${p.client}/${p.session}`
const through = (p: TodayPerson) => p.sets > 0 && p.done >= p.sets

/** Today is who trains, in the order to see them, and what is due: each with the one action that does it. */
export function Today() {
  const today = useQuery(queries.today())
  const view = today.data
  const people = view?.people ?? []
  const keys: Keys = {}
  const first = people.find((p) => !p.blocked && !through(p))
  if (first) keys.s = { does: `start with ${first.name}`, run: () => location.assign(floorOf(first)) }
  people.slice(0, 9).forEach((p, i) => {
    keys[String(i + 1)] = { does: `on the floor with ${p.name}`, run: () => location.assign(floorOf(p)) }
  })
  useKeys(keys)
  if (!view) return <Waiting query={today} />
  return (
    <div className={css.today}>
      <main className={css.main}>
        <h1>{view.day}</h1>
        {people.length === 0 && <Empty view={view} />}
        <ol className={css.people}>
          {people.map((p, i) => (
            <Person key={p.session} right={view.right} person={p} no={i + 1} first={p === first} />
          ))}
        </ol>
      </main>
      <aside className="margin" aria-label="What is due">
        <h2>{view.due.length === 0 ? 'Nothing is due' : `Due: ${view.due.length}`}</h2>
        {view.due.map((d) => (
          <Due key={d.client + d.kind + d.session} due={d} />
        ))}
        {view.due.length === 0 && <p className="margin-line">Measured, rated, decided, and every sheet opened.</p>}
      </aside>
    </div>
  )
}

function Empty({ view }: { view: TodayView }) {
  return (
    <p className={css.calm}>
      Nobody trains today.{' '}
      {view.next ? `The next session is ${view.next}. ` : 'Nothing is planned for the next two weeks. '}
      {view.due.length > 0 ? (
        'What is due can be done in peace.'
      ) : (
        <Link to="/clients/next-week">Who has no next week?</Link>
      )}
    </p>
  )
}

function Person({
  right,
  person: p,
  no,
  first,
}: {
  right: TodayView['right']
  person: TodayPerson
  no: number
  first: boolean
}) {
  const state = p.blocked || (through(p) ? 'done' : p.done > 0 ? `${p.done} of ${p.sets} sets done` : `${p.sets} sets`)
  return (
    <li className={clsx(css.person, through(p) && css.through)}>
      <Slice geometry={right} view={p.slice} size={96} places={1} unit="effective sets" />
      <div className={css.who}>
        <h2>
          <Link to={`/clients/${p.client}/week/${p.session}`}>{p.name}</Link>
        </h2>
        <p>
          {p.title} · {p.room} · {p.minutes} min
        </p>
        <p className={p.blocked ? 'warn' : undefined}>
          <b>{state}</b>
        </p>
        {p.special.length > 0 && (
          <ul className={css.special}>
            {p.special.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        )}
      </div>
      {!p.blocked && !through(p) && (
        <Button className={css.start} type={first ? 'primary' : 'default'} size="large" href={floorOf(p)}>
          {p.done > 0 ? 'Go on' : 'Start'}
          <span className="only-read"> with {p.name}</span>
          <kbd aria-hidden>{first ? 's' : no}</kbd>
        </Button>
      )}
    </li>
  )
}

function Due({ due: d }: { due: DueView }) {
  return (
    <div className={clsx('finding', d.kind === 'screening' ? 'stop' : d.kind === 'decision' ? 'does' : '')}>
      <p>
        <b>{d.name}</b> {d.says} {d.since && <span className={css.since}>({d.since})</span>}
      </p>
      <Link className="link" to={d.to} aria-label={`${d.action}: ${d.name}`}>
        {d.action}
      </Link>
    </div>
  )
}

import { useQuery } from '@tanstack/react-query'
import { Button } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { queries } from '../../api/queries'
import type { CourseShown, TrendView } from '../../api/client'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { HerWords } from '../../ui/decisions/HerWords'
import { Decisions, Proposals } from '../../ui/decisions/Proposals'
import { useClient } from '../../ui/thread/Client'
import { Course } from './Course'
import { Heads } from './Heads'
import { Leading } from './Leading'
import { Strip } from './Strip'
import { Tape } from './Tape'
import { BeginTrial, Trials } from './Trial'
import css from './trend.module.css'

/** Trend is what the log says: weeks as slices, courses with what they scatter by, and what to do next in the margin. */
export function Trend() {
  const client = useClient()
  const trend = useQuery(queries.trend(client.id))
  const [all, setAll] = useState(false)
  const me = useMe()
  const view = trend.data
  if (!view) return <Waiting query={trend} />
  const now = view.courses.filter((c) => c.planned)
  const before = view.courses.filter((c) => !c.planned)
  if (view.courses.length === 0)
    return (
      <main className={css.empty}>
        <h2>Nothing has been logged yet</h2>
        <p>
          Once sets are logged this page tells week by week what each head got, and for every set-up whether it really
          rises: about twelve sessions tell. <Link to={`/clients/${client.id}/log`}>To the log</Link>
        </p>
      </main>
    )
  return (
    <div className={css.trend}>
      <main className={css.main}>
        <section aria-label="Weeks">
          <Strip right={view.right} weeks={view.weeks} />
          <p className={css.legend}>
            Filled: what was done. Rim: what was planned. {view.attended}
            <span className={css.tools}>
              <a href={`/api/clients/${client.id}/trend.csv`} download>
                CSV
              </a>{' '}
              ·{' '}
              <button type="button" className="link" onClick={() => window.print()}>
                Print
              </button>
            </span>
          </p>
        </section>
        <Trials client={client.id} mayPlan={me.data?.may_plan ?? false} />
        <section className={css.courses} aria-label="Courses">
          {now.map((c) => (
            <CourseCard key={c.key} client={client.id} course={c} sites={view.sites} />
          ))}
          {all && before.map((c) => <CourseCard key={c.key} client={client.id} course={c} sites={view.sites} />)}
        </section>
        {before.length > 0 && (
          <p>
            <Button type="text" onClick={() => setAll(!all)}>
              {all
                ? 'Only what is in the plan'
                : before.length === 1
                  ? 'One earlier set-up that is not in the plan'
                  : `${before.length} earlier set-ups that are not in the plan`}
            </Button>
          </p>
        )}
        <Heads heads={view.heads} />
        <p className={css.legend}>Bars: effective sets done a week. Rim: planned. Band: the target now.</p>
        {view.joints.length > 0 && (
          <section className={css.tape} aria-label="Joints">
            <h2>Joints</h2>
            {view.joints.map((j) => (
              <p key={j.joint} className={css.says}>
                <b>{j.joint}</b>: {j.says}
              </p>
            ))}
            <p className="caveat">Counts of sixteen weeks, not causes. No diagnosis: a clinician decides.</p>
          </section>
        )}
        <Tape client={client.id} />
      </main>
      <aside className="margin" aria-label="What to do">
        <Proposals client={client.id} whole={view.whole ?? null} courses={view.courses} />
        <HerWords client={client.id} />
        <Decisions client={client.id} decisions={view.decisions} />
      </aside>
    </div>
  )
}

const stateWords: Record<CourseShown['state'], string> = {
  rising: 'rises',
  plateau: 'does not rise',
  falling: 'falls',
  unknown: 'cannot tell yet',
}

/** CourseCard is one set-up over time: its picture, what it does, and what is watched. */
function CourseCard({ client, course, sites }: { client: string; course: CourseShown; sites: TrendView['sites'] }) {
  const me = useMe()
  return (
    <article className={css.course}>
      <h2>
        {course.name}
        <span className={css.state} data-state={course.state}>
          {stateWords[course.state]}
        </span>
      </h2>
      <Course course={course} />
      <p className={css.says}>
        {course.now && <b>{course.now}. </b>}
        {course.says}
      </p>
      {course.arms && <p className={css.says}>{course.arms}</p>}
      {course.watching && <p className={css.watching}>{course.watching}</p>}
      {me.data?.may_plan && course.planned && (
        <div className={css.ways}>
          <Leading client={client} course={course} sites={sites} />
          {course.movement && <BeginTrial client={client} course={course} />}
        </div>
      )}
    </article>
  )
}

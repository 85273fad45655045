import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { queries } from '../../api/queries'
import { CourseChart } from '../../figures/CourseChart'
import css from './trend.module.css'

/** Tape is what the tape says beside the courses: both arms, their area, the body's mass. */
export function Tape({ client }: { client: string }) {
  const measures = useQuery(queries.measures(client))
  const view = measures.data
  const arm = view?.kinds.find((k) => k.id === 'flexed')
  if (!view || !arm || arm.left.points.length + arm.right.points.length === 0) return null
  return (
    <section className={css.tape} aria-label="What the tape says">
      <h2>
        The tape <Link to={`/clients/${client}/dossier/measures`}>all of it</Link>
      </h2>
      <div className={css.tapes}>
        {([arm.left, arm.right] as const).map((side) => (
          <figure key={side.site}>
            <figcaption>
              {arm.name}, {side === arm.left ? 'left' : 'right'}
            </figcaption>
            <CourseChart points={side.points} band={arm.threshold} name={arm.name} unit="cm" />
            {side.change && <p className={css.says}>{side.change.words}</p>}
          </figure>
        ))}
      </div>
      {arm.gap && <p className={css.says}>{arm.gap.words}</p>}
    </section>
  )
}

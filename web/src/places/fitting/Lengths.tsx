import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { Select } from 'antd'
import { useDeferredValue, useState } from 'react'
import { type SetUpView, type Stills, type Trace, type Worn } from '../../api/client'
import { Still } from '../../figures/CloseUp'
import { last } from '../../figures/tempo'
import { decimals, headColour } from '../../figures/heads'
import css from './fitting.module.css'

/** Lengths shows, on demand, a head's length and leverage over the range, and the page a client can read. */
export function Lengths({ worn, view }: { worn: Worn; view: SetUpView }) {
  const [head, setHead] = useState('')
  const heads = view.bias.filter((b) => b.agonist)
  const chosen = heads.find((h) => h.id === head) ?? heads[0]
  const asked = useDeferredValue(JSON.stringify({ ...worn, head: chosen?.id ?? 'biceps_long' }))
  const look = useQuery(queries.look(asked))
  const rep = useQuery(queries.rep(view.computed && !view.refused ? JSON.stringify(worn) : null))
  if (!look.data) return null
  const { trace, explain } = look.data
  return (
    <div className={css.lengths}>
      {trace && chosen && (
        <section aria-label="Lengths and leverage">
          <Select
            size="small"
            aria-label="Head to look at"
            value={chosen.id}
            onChange={setHead}
            options={heads.map((h) => ({ value: h.id, label: h.name }))}
          />
          <div className={css.lengthsCharts}>
            <Chart
              title="length, of its best"
              trace={trace.length}
              elbow={trace.elbow}
              colour={headColour[chosen.id]!}
              one
            />
            <Chart
              title="leverage at the elbow, cm"
              trace={trace.leverage}
              elbow={trace.elbow}
              colour={headColour[chosen.id]!}
            />
          </div>
        </section>
      )}
      <section aria-label="For the client" className={css.explain}>
        <h3>For the client, in plain words</h3>
        {rep.data && !rep.data.says && (
          <div className={css.three}>
            {[0, hardest(rep.data), last].map((at, k) => (
              <figure key={k}>
                <Still stills={rep.data} at={at} />
                <figcaption>
                  <b>{['At the start', 'Where it is hardest', 'At the end'][k]}</b> {rep.data.words[at]}
                </figcaption>
              </figure>
            ))}
          </div>
        )}
        {explain.map((e) => (
          <p key={e}>{e}</p>
        ))}
      </section>
    </div>
  )
}

/** hardest is the picture in which a head pulls most. */
const hardest = (s: Stills) => {
  const most = s.tension.map((t) => Math.max(...t))
  return most.indexOf(Math.max(...most))
}

function Chart({
  title,
  trace,
  elbow,
  colour,
  one = false,
}: {
  title: string
  trace: Trace
  elbow: number[]
  colour: string
  one?: boolean
}) {
  const line = 1 - (1 - trace.low) / (trace.high - trace.low)
  return (
    <figure className={css.chart}>
      <figcaption>{title}</figcaption>
      <div className={css.chartBox}>
        <span className={css.chartHigh}>{decimals(trace.high, 1)}</span>
        <span className={css.chartLow}>{decimals(trace.low, 1)}</span>
        <svg viewBox="0 0 1 1" preserveAspectRatio="none" role="img" aria-label={trace.text}>
          {one && line > 0 && line < 1 && (
            <line x1={0} x2={1} y1={line} y2={line} className={css.chartOne} vectorEffect="non-scaling-stroke" />
          )}
          <path d={trace.path} fill="none" stroke={colour} strokeWidth={2.5} vectorEffect="non-scaling-stroke" />
        </svg>
      </div>
      <div className={css.chartAxis}>
        <span>{elbow[0]}°</span>
        <span>{elbow[elbow.length - 1]}°</span>
      </div>
    </figure>
  )
}

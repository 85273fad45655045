import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { Select } from 'antd'
import { useDeferredValue, useState } from 'react'
import { type Worn } from '../../api/client'
import { clsx } from 'clsx'
import css from './fitting.module.css'

const elbows = [10, 30, 60, 90, 110, 130]
const pulls = [
  { value: 1, label: 'as hard as can be' },
  { value: 0.75, label: 'three quarters' },
  { value: 0.5, label: 'half' },
]

/**
 * Hints is set-up arithmetic: where to stand, how far to tilt, what a pad or a grip makes of it; one click turns it
 * so.
 */
export function Hints({ worn, turn }: { worn: Worn; turn: (settings: Worn['settings']) => void }) {
  const [elbow, setElbow] = useState(90)
  const [pull, setPull] = useState(1)
  const asked = useDeferredValue(JSON.stringify({ ...worn, elbow, pull }))
  const hints = useQuery(queries.hints(asked))
  const list = hints.data?.hints ?? []
  if (list.length === 0) return null
  return (
    <section aria-label="Set-up arithmetic">
      <h2>How to set it up</h2>
      {list.map((h) => (
        <div key={h.about + h.words} className={clsx('finding', css.hintLine)}>
          {h.about === 'pulley' && (
            <div className={css.hintAsk}>
              <Select size="small" aria-label="Pull" value={pull} onChange={setPull} options={pulls} />
              <Select
                size="small"
                aria-label="At an elbow angle of"
                value={elbow}
                onChange={setElbow}
                options={elbows.map((v) => ({ value: v, label: `at ${v}°` }))}
              />
            </div>
          )}
          {h.words}{' '}
          {h.turn && (
            <button type="button" className="link" onClick={() => turn(h.turn as Worn['settings'])}>
              Set it so
            </button>
          )}
        </div>
      ))}
    </section>
  )
}

import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { type Worn } from '../../api/client'
import { clsx } from 'clsx'
import { clock } from '../../figures/clock'
import css from './fitting.module.css'

/** Faults say what can be seen to go wrong in this set-up, what it costs here, and the cue that mends it. */
export function Faults({ worn }: { worn: Worn }) {
  const [open, setOpen] = useState(false)
  const asked = useDeferredValue(JSON.stringify(worn))
  const faults = useQuery({ ...queries.faults(asked), enabled: open })
  return (
    <section aria-label="Faults">
      <h2>What a fault would cost here</h2>
      <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Hide' : 'Show'}
      </button>
      {open &&
        (faults.data?.faults ?? []).map((f) => (
          <div key={f.id} className={clsx('finding', css.faultCost)}>
            <b>{f.seen}</b> ({f.view})<p>{f.computed ? f.costs : `not computed: ${f.costs}`}</p>
            <p>
              <i>“{f.cue}”</i>{' '}
              {f.computed && (
                <button type="button" className="link" onClick={() => clock.start([2, 0.4, 1.6, 0.4], f.id)}>
                  Play it
                </button>
              )}
            </p>
          </div>
        ))}
    </section>
  )
}

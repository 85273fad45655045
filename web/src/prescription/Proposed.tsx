import { useState } from 'react'
import type { Load, Proposal } from '../api/client'
import css from './prescription.module.css'

interface Props {
  proposal: Proposal | undefined
  /** what the first row asks for */
  load: Load | undefined
  cues: string[]
  take: (load: Load) => void
  setCues: (cues: string[]) => void
}

/** Proposed is the load and the cues the tool would take, with where they come from; the client's ratios on demand. */
export function Proposed({ proposal: p, load: has, cues: here, take, setCues }: Props) {
  const [table, setTable] = useState(false)
  const [why, setWhy] = useState(false)
  if (!p) return null
  const load = p.load.load
  const cues = p.cues.map((c) => c.cue)
  const sameCues = JSON.stringify(cues) === JSON.stringify(here)
  return (
    <div className={css.proposed}>
      <p>
        <b>Load:</b> {p.load.words}.{' '}
        {load && JSON.stringify(load) !== JSON.stringify(has) && (
          <button type="button" className="link" onClick={() => take(load)}>
            Use it
          </button>
        )}{' '}
        {p.known.length > 0 && (
          <button type="button" className="link" aria-expanded={table} onClick={() => setTable(!table)}>
            {table ? 'Hide the ratios' : 'The client’s ratios'}
          </button>
        )}
      </p>
      {(p.fit.fit === 'too_heavy' || p.fit.fit === 'too_light') && (
        <p className="warn">
          {p.fit.words} Instead: {p.fit.instead.join('; ')}.
        </p>
      )}
      {table && (
        <ul className={css.ratios}>
          {p.known.map((k) => (
            <li key={k.name}>
              <b>{k.ratio.toFixed(2)}</b> {k.name}: 1RM ≈ {k.max}, {k.when}{' '}
              <details>
                <summary>why?</summary>
                {k.why}
              </details>
            </li>
          ))}
        </ul>
      )}
      <p>
        <b>Cues:</b> {cues.map((c) => `“${c}”`).join(', ')}.{' '}
        {!sameCues && (
          <button type="button" className="link" onClick={() => setCues(cues)}>
            Use these
          </button>
        )}{' '}
        <button type="button" className="link" aria-expanded={why} onClick={() => setWhy(!why)}>
          why?
        </button>
      </p>
      {why && (
        <ul className={css.ratios}>
          {p.cues.map((c) => (
            <li key={c.cue}>
              “{c.cue}”: {c.why}
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

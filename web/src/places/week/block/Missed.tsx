import type { StripView } from '../../../api/client'
import type { Block } from './useBlock'
import css from './block.module.css'

/** Missed is a day of the block that was missed: what can be done about it, and what each way costs. */
export function Missed({ missed, miss }: { missed: StripView['missed'][number]; miss: Block['miss'] }) {
  return (
    <div className={css.missed} role="group" aria-label={`${missed.name} was not done`}>
      <p>
        <b>{missed.name}</b>, {missed.when}, was not done.
      </p>
      {missed.ways.map((w) => (
        <p key={w.way}>
          <button
            type="button"
            className="link"
            disabled={miss.busy}
            onClick={() => void miss.run(missed.session, w.way)}
          >
            {w.says}
          </button>{' '}
          <span>costs {w.costs}</span>
        </p>
      ))}
      {miss.why && (
        <p className="fault" role="alert">
          Not done: {miss.why}
        </p>
      )}
    </div>
  )
}

import { useMemo, type ReactNode } from 'react'
import type { SheetView, Slice as Geometry } from '../../api/client'
import { Figure } from '../../figures/Figure'
import { hatchOf } from '../../figures/Hatches'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import { plain, type Parts } from './parts'
import { clsx } from 'clsx'
import css from './sheet.module.css'

/**
 * SheetPage is one session as the client reads it; a blocked one says so, to the coach with the way to what is
 * missing.
 */
export function SheetPage({
  sheet,
  right,
  toDossier,
  parts = plain,
  alone,
}: {
  sheet: SheetView
  right: Geometry
  toDossier?: ReactNode
  parts?: Parts
  /** it is the whole page, so that the client's name is its heading */
  alone?: boolean
}) {
  const hatch = useMemo(() => hatchOf(right), [right])
  const Name = alone ? 'h1' : 'p'
  return (
    <main className={clsx(css.sheet, sheet.slots.length > 5 && css.many)}>
      <header className={css.head}>
        <div>
          <Name className={css.name}>{sheet.client}</Name>
          <p>
            <b>{parts.session(sheet.session)}</b> · {sheet.date} · {sheet.room}
          </p>
          <p>
            {Math.round(sheet.minutes)} minutes · {parts.warmUp(sheet.warm_up)}
            {sheet.ramp && `, then ${sheet.ramp}`}
          </p>
        </div>
        <Slice geometry={right} view={sheet.total} size={104} places={1} hatched />
      </header>
      {sheet.blocked && (
        <div className={css.blocked} role="alert">
          <b>No sheet leaves for this client now.</b>
          <p>{sheet.blocked}</p>
          {toDossier}
        </div>
      )}
      {sheet.caps.map((c) => (
        <p key={c} className={css.cap}>
          {c}
        </p>
      ))}
      <ol className={css.slots}>
        {sheet.slots.map((s, i) => (
          <li key={i} className={clsx(css.slot, s.in_combo && css.inCombo)}>
            <span className={css.no}>{i + 1}</span>
            <Figure pose={s.pose} hatch={hatch} className={css.pose} />
            <div className={css.what}>
              {s.combo && <p className={css.combo}>In turns, {s.combo}</p>}
              <h2>{s.title}</h2>
              {s.details && <p className={css.details}>{s.details}</p>}
              {(s.set_up ?? []).length > 0 && <p className={css.setUp}>{s.set_up.join(' · ')}</p>}
              <p className={css.dose}>
                <b>{parts.sets(i, s.sets)}</b> · <b>{parts.load(i, s.load)}</b>
              </p>
              {s.last && <p className={css.last}>Last: {s.last}</p>}
              {s.how && <p className={css.find}>{s.how}</p>}
              {(s.grips || s.starts) && <p>{[s.grips, s.starts].filter(Boolean).join(' · ')}</p>}
              <p>
                {parts.effort(i, s.effort)} · {parts.rest(i, s.rest)} · {parts.tempo(i, s.tempo)}
                {s.ends && ` · ${s.ends}`}
                {s.range && ` · ${s.range}`}
              </p>
              {parts.cues(i, s.cues)}
              <p className={css.stop}>
                The set ends at: {s.stop}. Upper arm: {s.upper_arm}.
                {s.cautions.length > 0 && <span className={css.caution}> {s.cautions.join(' ')}</span>}
              </p>
              {s.boxes && <Boxes boxes={s.boxes} />}
            </div>
            <div className={css.pictures}>
              <Slice geometry={right} view={s.slice} size={84} hatched />
              {s.ribbon ? (
                <Ribbon geometry={s.ribbon} width={92} height={20} />
              ) : (
                <span className="graded">graded</span>
              )}
            </div>
          </li>
        ))}
      </ol>
      {sheet.slots.length === 0 && !sheet.blocked && <p className="hint">This session has no slots yet.</p>}
      {(sheet.why ?? []).length > 0 && (
        <details className={css.why}>
          <summary>Why this?</summary>
          <div>
            <Slice geometry={right} view={sheet.total} size={150} places={1} hatched />
            <ul>
              {sheet.why.map((w) => (
                <li key={w}>{w}</li>
              ))}
            </ul>
          </div>
        </details>
      )}
      <footer className={css.foot}>
        {sheet.cautions.map((c) => (
          <p key={c}>{c}</p>
        ))}
        <p className={css.legend}>
          The round picture is the right arm from above: the fuller and darker a part, the more it gets.{' '}
          {sheet.total.heads.map((h) => `${h.code} ${h.name}`).join('; ')}. The bar runs from stretched to shortened:
          thick where it is hard, hollow where it is idle. {sheet.studio}
        </p>
      </footer>
    </main>
  )
}

/** Boxes are where on paper is written what was done; on a screen they would be in the way. */
function Boxes({ boxes }: { boxes: SheetView['slots'][number]['boxes'] }) {
  return (
    <div className={css.boxes} aria-hidden>
      {(boxes.arms ?? []).map((arm) => (
        <p key={arm}>
          <span>{arm || `${boxes.unit} × reps`}</span>
          {Array.from({ length: boxes.sets }, (_, n) => (
            <i key={n} />
          ))}
          {arm !== 'right' && <b>felt</b>}
        </p>
      ))}
    </div>
  )
}

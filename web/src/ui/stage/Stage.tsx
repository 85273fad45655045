import { useMemo, useState, type ReactNode } from 'react'
import type { ControlView, SetUpView, Worn } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { Alive } from '../../figures/Alive'
import { BiasBars } from '../../figures/BiasBars'
import { Figure } from '../../figures/Figure'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import { Control } from './Control'
import { hatchOf } from '../../figures/Hatches'
import { Play, useStills } from './Play'
import { WhyBias } from './WhyBias'
import css from './stage.module.css'

interface Props {
  view: SetUpView
  /** absent: only looked at */
  turn?: (key: string, value: number | string, grabbing?: boolean) => void
  /** what is played; absent: nothing is */
  worn?: Worn
  /** asks what would train a head */
  ask?: (head: string) => void
  /** beside the name */
  aside?: ReactNode
  /** the dose, under the ribbon */
  children?: ReactNode
}

/**
 * Stage is one set-up under the hand: the figure with its handles, slice, ribbon and bars that move with it, and the
 * settings' keyboard twins.
 */
export function Stage({ view, turn, worn, ask, aside, children }: Props) {
  const { right } = useCatalogue()
  const [why, setWhy] = useState(false)
  const hatch = useMemo(() => hatchOf(right), [right])
  const stills = useStills(view.refused ? undefined : worn)
  const words = new Map(view.controls.map((c: ControlView) => [c.key, c.words]))
  return (
    <section className={css.stage} aria-label={view.name}>
      <header className={css.head}>
        <div>
          <h2>{view.title}</h2>
          <p>
            {view.details ||
              (!view.computed
                ? `several joints: graded ${view.grade}, not computed`
                : Object.keys(view.settings).length === 0
                  ? 'at its default settings'
                  : 'the rest at its default settings')}
          </p>
        </div>
        {aside}
        {turn && <p className={css.hint}>Drag a ring, or Tab to it and use the arrow keys.</p>}
      </header>
      <div className={css.left}>
        <div className={css.figure}>
          {stills ? (
            <Alive stills={stills} hatch={hatch} />
          ) : (
            <Figure
              pose={view.pose}
              onTurn={turn && ((k, v, grabbing) => turn(k, v, grabbing))}
              words={(k) => words.get(k) ?? ''}
              hatch={hatch}
            />
          )}
          {view.refused && (
            <p className={css.refused} role="alert">
              Cannot be done like this: {view.refused}.
            </p>
          )}
        </div>
        {worn && !view.refused && <Play stills={stills} />}
        <div className={css.ribbon}>
          {view.ribbon ? (
            <Ribbon geometry={view.ribbon} width={430} height={42} full scrubbed={!!stills} />
          ) : (
            <p className="hint">Several joints: where it is hard is not computed.</p>
          )}
        </div>
        {children}
      </div>
      <div className={css.right}>
        <div className="stage-bias">
          <div className={css.slice}>
            <Slice geometry={right} view={view.slice} size={122} ask={ask} />
            <p>
              {view.load_words && <b>{view.load_words}.</b>}{' '}
              {view.computed
                ? `Stance ${view.stance}; the mark at 1.00 is the plain movement, the line all stances.`
                : 'Per hard set; the line is the range.'}{' '}
              <button type="button" className="link" aria-expanded={why} onClick={() => setWhy(!why)}>
                why?
              </button>
            </p>
          </div>
          {why ? <WhyBias view={view} /> : <BiasBars bias={view.bias} graded={!view.computed} />}
        </div>
        <div className={css.controls} aria-label="Settings">
          {view.controls
            .filter((c) => !c.held || c.turned)
            .map((c) => (
              <Control key={c.key} control={c} turn={turn} />
            ))}
        </div>
        {turn && view.controls.some((c) => c.held && !c.turned) && (
          <details className={css.held}>
            <summary>How it is held</summary>
            <p className="hint">None of this moves a head; each is a series of its own.</p>
            <div className={css.controls}>
              {view.controls
                .filter((c) => c.held && !c.turned)
                .map((c) => (
                  <Control key={c.key} control={c} turn={turn} />
                ))}
            </div>
          </details>
        )}
      </div>
    </section>
  )
}

import type { SlotDraft, SlotView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import { Small, type FigureOf } from '../../figures/Small'
import { Lock } from '../../ui/Lock'
import { clsx } from 'clsx'
import css from './builder.module.css'

interface Props {
  draft: SlotDraft[]
  views: SlotView[]
  activeId: string | null
  figure?: FigureOf
  mayPlan: boolean
  faulty: (index: number) => boolean
  choose: (id: string) => void
  remove: (id: string) => void
  move: (id: string, by: number) => void
  /** joins a slot with the next one, or takes them apart */
  join?: (id: string) => void
  lock?: (id: string, locked: boolean) => void
  sessionLocked?: boolean
}

/** SlotList is the session's slots in order; Alt with the arrow keys moves one, Delete takes it out. */
export function SlotList({
  draft,
  views,
  activeId,
  figure,
  mayPlan,
  faulty,
  choose,
  remove,
  move,
  join,
  lock,
  sessionLocked,
}: Props) {
  const { right, movements } = useCatalogue()
  const byId = new Map(views.map((v) => [v.id, v]))
  return (
    <ol className={css.slots}>
      {draft.map((slot, i) => {
        const view = byId.get(slot.id)
        const glyph = view?.glyph ?? movements.find((m) => m.id === slot.movement)!.glyph
        const joined = !!slot.combo && draft[i + 1]?.combo === slot.combo
        const held = slot.locked || sessionLocked
        const bad = faulty(i) || !!view?.refused
        return (
          <li
            key={slot.id}
            className={clsx(
              css.slot,
              slot.id === activeId && css.here,
              bad && css.bad,
              joined && css.joined,
              held && css.locked,
            )}
          >
            <button
              type="button"
              className={css.slotFace}
              aria-current={slot.id === activeId}
              onClick={() => choose(slot.id)}
              onKeyDown={(e) => {
                if (!mayPlan || held) return
                if (e.altKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
                  e.preventDefault()
                  move(slot.id, e.key === 'ArrowUp' ? -1 : 1)
                } else if (e.key === 'Delete') {
                  e.preventDefault()
                  remove(slot.id)
                }
              }}
            >
              <span className={css.slotPictures}>
                {figure && <Small of={figure(slot.movement, slot.settings)} className={css.slotFigure} />}
                <Slice geometry={right} view={glyph.slice} size={38} />
              </span>
              <span className={css.slotText}>
                <span className={css.slotTitle}>
                  {view?.short ?? movements.find((m) => m.id === slot.movement)!.name}
                </span>
                {view?.details && <span className={css.slotDetails}>{view.details}</span>}
                <span className={css.slotDose}>{view?.dose_words}</span>
                {(view?.grip_words || (slot.starts && view?.starts_words)) && (
                  <span className={css.slotDetails} title={view.grip_words || undefined}>
                    {[
                      view.grip_words && 'a grip for each set',
                      slot.starts && view.starts_words && `${slot.starts} arm first`,
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                )}
                <span className={css.slotLoad}>
                  {view?.load_words}
                  {glyph.ribbon ? (
                    <Ribbon geometry={glyph.ribbon} width={54} height={11} />
                  ) : (
                    <span className="graded">graded</span>
                  )}
                </span>
              </span>
            </button>
            {mayPlan && slot.id === activeId && (
              <span className={css.slotTools}>
                <button type="button" aria-label="Move up" disabled={held || i === 0} onClick={() => move(slot.id, -1)}>
                  ↑
                </button>
                <button
                  type="button"
                  aria-label="Move down"
                  disabled={held || i === draft.length - 1}
                  onClick={() => move(slot.id, 1)}
                >
                  ↓
                </button>
                {join && i < draft.length - 1 && (
                  <button
                    type="button"
                    aria-label={joined ? 'Split from the next' : 'Join with the next'}
                    title={
                      joined
                        ? 'Done one after the other again'
                        : view?.between
                          ? `Done in turns with the next slot; to change between them: ${view.between}`
                          : 'Done in turns with the next slot'
                    }
                    disabled={held}
                    onClick={() => join(slot.id)}
                  >
                    {joined ? '⊣⊢' : '⊔'}
                  </button>
                )}
                {lock && !sessionLocked && (
                  <Lock
                    what={view?.title ?? 'the slot'}
                    locked={slot.locked ?? false}
                    set={(locked) => lock(slot.id, locked)}
                  />
                )}
                <button type="button" aria-label="Remove" disabled={held} onClick={() => remove(slot.id)}>
                  ×
                </button>
              </span>
            )}
          </li>
        )
      })}
    </ol>
  )
}

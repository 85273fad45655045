import type { KeyboardEvent, PointerEvent } from 'react'
import type { BoardSlot, WeekDraft, WeekView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import { Lock } from '../../ui/Lock'
import { clsx } from 'clsx'
import css from './board.module.css'
import sliceCss from '../../figures/slice.module.css'

export type Held = { kind: 'slot' | 'session'; id: string }

interface Props {
  draft: WeekDraft
  view: WeekView['sessions'][number] | undefined
  /** what is known of every slot of the week, by id: a dragged one may have come from another day */
  slots: Map<string, BoardSlot>
  held: string | undefined
  mayPlan: boolean
  change: (next: WeekDraft) => void
  takeOut: () => void
  copy: () => void
  open: (slot?: string) => void
  grab: (e: PointerEvent<HTMLElement>, h: Held) => void
  sessionKey: (e: KeyboardEvent) => void
  slotKey: (e: KeyboardEvent, slot: string) => void
}

/** BoardSession is a session on its day: its time, its intent, its slots in order. */
export function BoardSession({
  draft: s,
  view,
  slots,
  held,
  mayPlan,
  change,
  takeOut,
  copy,
  open,
  grab,
  sessionKey,
  slotKey,
}: Props) {
  return (
    <article data-session={s.id} className={clsx(css.session, held === s.id && css.held, s.locked && css.locked)}>
      <header>
        <button
          type="button"
          className={css.name}
          data-name
          onKeyDown={sessionKey}
          onClick={() => open()}
          title="Open it. Alt and arrows: another day"
        >
          {s.name}
        </button>
        {mayPlan && (
          <span className={css.sessionTools}>
            <button
              type="button"
              className={css.out}
              aria-label={`Copy ${s.name} to another day`}
              title="Copy it to the next free day of the week"
              onClick={copy}
            >
              <svg viewBox="0 0 12 12" width={12} height={12} aria-hidden>
                <path d="M1 8V1h7M4 4h7v7H4z" fill="none" stroke="currentColor" strokeWidth={1.3} />
              </svg>
            </button>
            <Lock what={s.name} locked={s.locked ?? false} set={(locked) => change({ ...s, locked })} />
            {!s.locked && (
              <button
                type="button"
                className={css.out}
                aria-label={`Remove ${s.name}`}
                title="Remove it from the week"
                onClick={takeOut}
              >
                ×
              </button>
            )}
            <span className={css.grip} aria-hidden onPointerDown={(e) => grab(e, { kind: 'session', id: s.id })}>
              ⠿
            </span>
          </span>
        )}
      </header>
      <p className={css.facts}>
        {view ? (
          <span title={view.spent}>
            {Math.round(view.minutes)} min, {Math.round(view.warm_up)} of it warm-up
          </span>
        ) : (
          '…'
        )}
        {mayPlan ? (
          <select
            aria-label={`Intent of ${s.name}`}
            value={s.intent ?? ''}
            onChange={(e) => change({ ...s, intent: e.target.value as '' | 'heavy' | 'light' })}
          >
            <option value="">any day</option>
            <option value="heavy">the heavy day</option>
            <option value="light">the light day</option>
          </select>
        ) : (
          s.intent && ` · the ${s.intent} day`
        )}
      </p>
      {view?.done && (
        <p className={css.doneLine}>
          <b>
            {view.done.sets} of {view.done.planned} sets done
          </b>
          {view.done.words && <span className="warn"> · {view.done.words}</span>}
        </p>
      )}
      <ol>
        {s.slots.map((slot, i) => {
          const info = slots.get(slot.id)
          const joined = slot.combo && s.slots[i + 1]?.combo === slot.combo
          return (
            <li
              key={slot.id}
              data-slot={slot.id}
              className={clsx(css.slot, held === slot.id && css.held, joined && css.joined, slot.locked && css.locked)}
            >
              <button
                type="button"
                onKeyDown={(e) => slotKey(e, slot.id)}
                onClick={() => open(slot.id)}
                title={`${info ? `${info.title}. ${info.load_words}. ${info.fit.words} ` : ''}Open it. Alt and arrows: move it. L: lock it`}
              >
                {info ? <Glyph info={info} /> : <span className={sliceCss.slice} style={{ width: 30, height: 30 }} />}
                <span className={css.slotText}>
                  <b>{info?.short ?? slot.movement}</b>
                  <span>
                    {info?.dose_words}
                    {info?.glyph.ribbon && <Ribbon geometry={info.glyph.ribbon} width={44} height={9} />}
                    {info && <Misfit info={info} />}
                  </span>
                </span>
              </button>
              {mayPlan && (
                <span className={css.slotTools}>
                  <Lock
                    what={info?.title ?? slot.movement}
                    locked={slot.locked ?? false}
                    set={(locked) =>
                      change({ ...s, slots: s.slots.map((x) => (x.id === slot.id ? { ...x, locked } : x)) })
                    }
                  />
                  <span className={css.grip} aria-hidden onPointerDown={(e) => grab(e, { kind: 'slot', id: slot.id })}>
                    ⠿
                  </span>
                </span>
              )}
            </li>
          )
        })}
      </ol>
      {s.slots.length === 0 && <p className="hint">No slots yet.</p>}
    </article>
  )
}

/** Misfit says that the room has no load for a slot; what fits says nothing. */
function Misfit({ info }: { info: BoardSlot }) {
  const { fit, words, instead } = info.fit
  if (fit !== 'too_heavy' && fit !== 'too_light') return null
  return (
    <em className={css.misfit} title={`${words} Instead: ${instead.join('; ')}.`}>
      {fit === 'too_heavy' ? 'too heavy here' : 'too light here'}
    </em>
  )
}

function Glyph({ info }: { info: BoardSlot }) {
  const { right } = useCatalogue()
  return <Slice geometry={right} view={info.glyph.slice} size={30} />
}

import { Button } from 'antd'
import { clsx } from 'clsx'
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { StripView } from '../../../api/client'
import { useCatalogue, useMe } from '../../../app/me'
import { dayWords, shortDay } from '../../../ui/when'
import { BlockEditor } from './BlockEditor'
import { Missed } from './Missed'
import { Turn } from './Turn'
import { draftOf, fresh, useBlock } from './useBlock'
import css from './block.module.css'

const fewest = 4
const most = 8

/**
 * BlockStrip is the block above the board: a small slice a turn, its end to be dragged, a turn pressed to be looked at,
 * the date to be ready for as a flag.
 */
export function BlockStrip({
  client,
  from,
  planned,
  mayPlan,
  go,
}: {
  client: string
  /** the first day of what is on the board */
  from: string
  planned: boolean
  mayPlan: boolean
  go: (of: string) => void
}) {
  const b = useBlock(client)
  const { strip, draft, edit } = b
  if (!strip) return <div className={css.none} />
  const block = strip.block
  const shown = draft && b.look.data ? b.look.data : strip
  return (
    <section className={css.block} aria-label="The block">
      {strip.faults && <p className="warn">{strip.faults}</p>}
      {block || draft ? (
        <Strip
          strip={shown}
          from={from}
          mayPlan={mayPlan}
          go={go}
          lengthen={(turns) => shown.block && edit({ ...(draft ?? draftOf(shown.block)), turns })}
        >
          {mayPlan && !draft && block && (
            <Button size="small" onClick={() => edit(draftOf(block))}>
              Change the block
            </Button>
          )}
        </Strip>
      ) : (
        mayPlan &&
        planned && (
          <button type="button" className={css.begin} onClick={() => edit(fresh(from))}>
            Make a block of this week: four to eight like it, whose effort climbs
          </button>
        )
      )}
      {draft ? (
        <BlockEditor b={b} draft={draft} from={from} />
      ) : (
        <>
          {mayPlan && strip.missed.map((m) => <Missed key={m.session} missed={m} miss={b.miss} />)}
          {mayPlan && (
            <Differs strip={strip} from={from} take={() => block && edit({ ...draftOf(block), take: from })} />
          )}
          <Ahead strip={strip} from={from} />
        </>
      )}
    </section>
  )
}

interface StripProps {
  strip: StripView
  from: string
  mayPlan: boolean
  go: (of: string) => void
  lengthen: (turns: number) => void
  children: React.ReactNode
}

/** Strip is the turns themselves; while its end is dragged nothing is asked of the server. */
function Strip({ strip, from, mayPlan, go, lengthen, children }: StripProps) {
  const { right } = useCatalogue()
  const list = useRef<HTMLOListElement>(null)
  const [dragged, setDragged] = useState<number | null>(null)
  const block = strip.block
  if (!block) return null
  const count = dragged ?? strip.turns.length
  const length = strip.lengths[count - fewest]
  const turns = length && dragged !== null ? length.turns : strip.turns
  const last = length && dragged !== null ? length.last : block.last
  const past = length && dragged !== null ? length.past : false

  const drag = (e: PointerEvent) => {
    const first = list.current?.firstElementChild
    if (dragged === null || !first) return
    const { left, width } = first.getBoundingClientRect()
    setDragged(Math.max(fewest, Math.min(most, Math.round((e.clientX - left) / width))))
  }
  const release = () => {
    if (dragged !== null && dragged !== strip.turns.length) lengthen(dragged)
    setDragged(null)
  }
  const key = (e: KeyboardEvent) => {
    const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0
    const next = strip.turns.length + by
    if (by === 0 || next < fewest || next > most) return
    e.preventDefault()
    lengthen(next)
  }
  return (
    <div className={css.row}>
      <ol ref={list} className={css.turns}>
        {turns.map((t, i) => {
          const at = strip.turns[i]
          const here = at?.from === from
          return (
            <li key={i} className={clsx(here && css.here, i === block.now && css.now)}>
              <button
                type="button"
                aria-current={here || undefined}
                title={at ? `${dayWords(at.from)}: ${t.effort}, ${at.sets} sets` : t.effort}
                onClick={() => at && go(at.from)}
              >
                <Turn
                  geometry={right}
                  slice={t.slice}
                  reserve={t.reserve}
                  lighter={t.lighter}
                  made={!at || at.made > 0 || i < block.now}
                />
                <span className="only-read">{at?.name ?? `turn ${i + 1}`}: </span>
                <span className={css.effort}>{t.lighter ? 'lighter' : `${t.reserve} left`}</span>
                <span className={css.day}>{i === block.now ? 'now' : at ? shortDay(at.from) : '\u00a0'}</span>
                {at && at.by_hand > 0 && (
                  <span className={css.byHand} title={`${at.by_hand} changed by hand`}>
                    {at.by_hand}
                    <span className="only-read"> changed by hand</span>
                  </span>
                )}
              </button>
            </li>
          )
        })}
      </ol>
      {mayPlan && (
        <span
          role="slider"
          tabIndex={0}
          aria-label="How many turns the block has"
          aria-valuemin={fewest}
          aria-valuemax={most}
          aria-valuenow={count}
          aria-valuetext={`${count}, until ${dayWords(last)}`}
          className={css.grip}
          title="Drag to lengthen"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId)
            setDragged(strip.turns.length)
          }}
          onPointerMove={drag}
          onPointerUp={release}
          onPointerCancel={() => setDragged(null)}
          onKeyDown={key}
        />
      )}
      <div className={css.says}>
        <p className={css.flag}>
          <Flag />
          {block.ready ? `ready for ${dayWords(block.ready)}` : `until ${dayWords(last)}`}
          {past && <b className="warn">, past that date</b>}
        </p>
        <p className={css.words}>
          {dragged !== null
            ? `${count} ${block.every === 7 ? 'weeks' : 'turns'}, until ${dayWords(last)}`
            : block.words}
        </p>
        {children}
      </div>
    </div>
  )
}

const Flag = () => (
  <svg viewBox="0 0 12 14" width={12} height={14} aria-hidden>
    <path d="M2 14V1h8L8 4l2 3H2.6" fill="var(--accent)" stroke="var(--accent)" strokeWidth={1.2} />
  </svg>
)

/** Differs says that the turn on the board is not as the block has it, and lets the others follow. */
function Differs({ strip, from, take }: { strip: StripView; from: string; take: () => void }) {
  const t = strip.turns.find((x) => x.from === from)
  if (!t || t.by_hand === 0 || t.lighter) return null
  return (
    <p className={css.line}>
      {t.by_hand === 1 ? '1 session of this turn was' : `${t.by_hand} sessions of this turn were`} changed by hand and
      stay as they are.{' '}
      <button type="button" className="link" onClick={take}>
        Let those to come follow?
      </button>
    </p>
  )
}

/** Ahead is a turn that is not made yet, as the block has it now. */
function Ahead({ strip, from }: { strip: StripView; from: string }) {
  const me = useMe()
  const t = strip.turns.find((x) => x.from === from)
  const open = t?.sessions.filter((s) => !s.made) ?? []
  if (!t || open.length === 0 || t.to < (me.data?.today ?? '')) return null
  return (
    <section className={css.ahead} aria-label="As the block has it">
      <p className={css.line}>
        Ahead: {t.name}, {t.effort}.{' '}
        {t.made > 0 ? 'Not made yet:' : 'Made a week before it begins, with the loads decided until then:'}
      </p>
      <ul>
        {open.map((s) => (
          <li key={s.name + s.on}>
            <b>{s.name}</b> <span>{dayWords(s.on)}</span>
            {s.slots.map((line, i) => (
              <p key={i}>{line}</p>
            ))}
          </li>
        ))}
      </ul>
    </section>
  )
}

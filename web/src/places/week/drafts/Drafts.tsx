import { useQuery } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { queries } from '../../../api/queries'
import type { DraftedDay, DraftedSlot, DraftedWeek, WeekDraft } from '../../../api/client'
import { useKeys } from '../../../app/keys'
import { Column } from './Column'
import css from './drafts.module.css'
import { plain, useDrafts, useTaste } from './useDrafts'
import { takeAll, takeSlot } from './take'

interface Props {
  client: string
  name: string
  from: string
  board: WeekDraft[]
  /** lays what the board becomes, in one step that can be undone; words say what was laid, whole: a week and not a slot */
  lay: (next: WeekDraft[], words: string, whole: boolean) => void
  close: () => void
}

/** Drafts are three weeks composed beside the board, each with what it gives up; nothing is kept until one is laid. */
export function Drafts({ client, name, from, board, lay, close }: Props) {
  const [taste, setTaste] = useTaste(client, from)
  const d = useDrafts(client, from, board, taste)
  const patterns = useQuery(queries.patterns())
  useKeys({ Escape: { does: 'back to the board', run: close } })
  const { view } = d
  const chosen = patterns.data?.patterns.find((p) => p.id === taste.pattern)
  const asked =
    taste.keep.length > 0 || taste.forbid.length > 0 || Object.keys(taste.levels).length > 0 || taste.seed > 0

  const kept = (slot: DraftedSlot) =>
    slot.keep !== null &&
    taste.keep.some((k) => k.on === slot.keep.on && JSON.stringify(k) === JSON.stringify(slot.keep))
  const keep = (slot: DraftedSlot) =>
    setTaste({
      ...taste,
      keep: kept(slot)
        ? taste.keep.filter((k) => JSON.stringify(k) !== JSON.stringify(slot.keep))
        : [...taste.keep, slot.keep],
    })
  const forbid = (slot: DraftedSlot) =>
    setTaste({
      ...taste,
      forbid: [...taste.forbid, slot.of],
      keep: taste.keep.filter((k) => JSON.stringify(k) !== JSON.stringify(slot.keep)),
    })
  /** exchange asks for something else in a slot's place, the rest of its week staying. */
  const exchange = (week: DraftedWeek, slot: DraftedSlot) =>
    setTaste({
      ...taste,
      forbid: [...taste.forbid, slot.of],
      keep: week.days.flatMap((x) => x.slots.filter((s) => s !== slot && s.keep).map((s) => s.keep)),
    })

  return (
    <main className={css.drafts} aria-busy={d.looking}>
      <header className={css.head}>
        <Button size="small" onClick={close}>
          ← The board
        </Button>
        <h2>Three weeks for {name}</h2>
        <p className={css.of} role="status">
          {view?.of}
          {d.looking && ' · still looking'}
        </p>
        <span className={css.tools}>
          <Select
            size="small"
            aria-label="Start from"
            popupMatchSelectWidth={420}
            value={taste.pattern}
            onChange={(pattern) => setTaste({ ...taste, pattern })}
            optionLabelProp="title"
            options={[
              { value: '', label: 'From nothing in particular', title: 'From nothing in particular' },
              ...(patterns.data?.patterns ?? []).map((p) => ({
                value: p.id,
                title: p.name,
                label: (
                  <span className={css.pattern}>
                    <b>{p.name}</b>
                    {p.own && ' (kept here)'}
                    <br />
                    {p.says}
                  </span>
                ),
              })),
            ]}
          />
          <Select
            size="small"
            aria-label="Slots of a day"
            value={taste.slots}
            onChange={(slots) => setTaste({ ...taste, slots })}
            options={[3, 4, 5, 6, 7, 8].map((n) => ({ value: n, label: `at most ${n} a day` }))}
          />
          <Button size="small" onClick={() => setTaste({ ...taste, seed: taste.seed + 1 })}>
            Another taste
          </Button>
          {asked && (
            <Button size="small" onClick={() => setTaste({ ...plain, pattern: taste.pattern, slots: taste.slots })}>
              Ask for nothing
            </Button>
          )}
        </span>
      </header>
      <div className={css.said}>
        {chosen && <p>{chosen.says}</p>}
        {asked && <p className={css.asked}>{askedWords(taste)}</p>}
        {view?.swaps.map((s) => (
          <p key={s}>{s}</p>
        ))}
        {view?.clashes.map((c) => (
          <p key={c} className="warn">
            {c}
          </p>
        ))}
        {d.failed && (
          <p role="alert" className="warn">
            {d.failed}{' '}
            <Button size="small" onClick={d.again}>
              Try again
            </Button>
          </p>
        )}
        {view?.empty && <p role="alert">{view.empty}</p>}
        {d.asks && (
          <section className={css.asks} aria-label="What gives way">
            <p>{d.asks.words}</p>
            <ul>
              {d.asks.ways.map((w) => (
                <li key={w.head}>
                  <Button
                    size="small"
                    onClick={() => setTaste({ ...taste, levels: { ...taste.levels, [w.head]: w.to } })}
                  >
                    Let it
                  </Button>{' '}
                  {w.words}
                </li>
              ))}
            </ul>
          </section>
        )}
        {d.prices?.prices.some((p) => p.at !== 'day') && (
          <p className={css.tags}>
            {d.prices.prices
              .filter((p) => p.at !== 'day')
              .map((p) => (
                <span key={p.words} className={css.tag}>
                  {p.words}
                </span>
              ))}
          </p>
        )}
      </div>
      {view ? (
        <div className={css.columns}>
          {view.drafts.map((week) => (
            <Column
              key={week.way}
              week={week}
              free={view.free_days}
              looking={d.looking}
              prices={week.way === 'robust' ? (d.prices?.prices ?? []) : []}
              kept={kept}
              keep={keep}
              forbid={forbid}
              exchange={(slot) => exchange(week, slot)}
              takeAll={() => lay(takeAll(board, week), `${week.title}: laid on the board`, true)}
              take={(day: DraftedDay, slot: DraftedSlot) =>
                lay(takeSlot(board, week, day.session, slot.id), `${slot.short}: laid on ${day.name}`, false)
              }
            />
          ))}
        </div>
      ) : (
        !d.failed && <div className="skeleton" />
      )}
      {d.prices?.reach.map((r) => (
        <p key={r} className={css.reach}>
          {r}
        </p>
      ))}
      {view && view.weights.length > 0 && (
        <details className={css.weights}>
          <summary>What counts how much</summary>
          <dl>
            {view.weights.map((w) => (
              <div key={w.words} style={{ display: 'contents' }}>
                <dt>{w.value}</dt>
                <dd>{w.words}</dd>
              </div>
            ))}
          </dl>
        </details>
      )}
      <p className="caveat">
        Counted as the board counts; the fine line is every stance, the frame the target. Ink is new, pale is there
        already. Nothing is kept until you lay it. No diagnosis: local rules and licensed practice come first.
      </p>
    </main>
  )
}

function askedWords(t: { keep: unknown[]; forbid: string[]; levels: object; seed: number }): string {
  const parts = []
  if (t.keep.length > 0) parts.push(t.keep.length === 1 ? '1 slot stays' : `${t.keep.length} slots stay`)
  if (t.forbid.length > 0)
    parts.push(t.forbid.length === 1 ? '1 movement is not wanted' : `${t.forbid.length} movements are not wanted`)
  const lowered = Object.keys(t.levels).length
  if (lowered > 0) parts.push(lowered === 1 ? '1 target gives way' : `${lowered} targets give way`)
  if (t.seed > 0) parts.push(`taste ${t.seed + 1}`)
  return parts.join(' · ')
}

import { advised, type Advised } from './advice'
import type { Done, Event, Here, Part, Ready, ReadyRow, ReadySlot, SetHere, SetTold, Side, Stage, Try } from './types'

// What stands of a session and what comes next: worked out from what the server sent beforehand
// and what was done since, with nobody to ask. Nothing here is kept, nothing is sent.

/** Standing is a session as it is: what this device and the others told. */
export interface Standing {
  sets: SetHere[]
  events: Here[]
}

/** standing puts what waits on this device beside what the server has. */
export function standing(ready: Ready, done: Done, waiting: Event[]): Standing {
  const known = new Set([...done.sets.map((s) => s.id), ...done.events.map((e) => e.id)])
  const here = waiting.filter((e) => !known.has(e.id))
  const gone = new Set(here.flatMap((e) => [e.set?.replaces, e.undone].filter((x): x is string => !!x)))
  const slots = new Map(ready.slots.map((s) => [s.id, s]))
  const sets: SetHere[] = done.sets.map((s) => ({
    ...s,
    setNo: s.set_no,
    wholeKg: s.whole_kg,
    at: Date.parse(s.at),
    waiting: false,
  }))
  for (const e of here)
    if (e.set && !e.set.withdrawn)
      sets.push({
        id: e.id,
        slot: e.set.slot,
        side: e.set.side,
        setNo: e.set.set_no,
        reps: e.set.reps,
        wholeKg: e.set.whole_kg,
        reserve: e.set.reserve,
        technical: e.set.technical ?? false,
        parts: e.set.parts ?? [],
        faults: e.set.faults ?? [],
        note: e.set.note ?? '',
        at: Date.parse(e.at) + e.offset_ms,
        by: '',
        ask: '',
        twice: false,
        title: slots.get(e.set.slot)?.title ?? '',
        waiting: true,
      })
  const events: Here[] = [
    ...done.events.map((e) => ({ ...e, at: Date.parse(e.at) })),
    ...here
      .filter((e) => e.kind !== 'set' && e.kind !== 'undone')
      .map((e) => ({ ...e, at: Date.parse(e.at) + e.offset_ms, by: '' })),
  ]
  const order = <T extends { at: number }>(list: T[]) => list.sort((a, b) => a.at - b.at)
  return { sets: order(sets.filter((s) => !gone.has(s.id))), events: order(events.filter((e) => !gone.has(e.id))) }
}

/** Now is what to do this minute. */
export interface Now {
  step: Ready['steps'][number]
  slot: ReadySlot
  row: ReadyRow
  side: Side
  setNo: number
  sets: number
  first: boolean // nothing of the slot is done yet
  advised: Advised
  say: string // what is advised, in words
  load: number // among the loads; −1: to be found
  loads: ReadySlot['loads']
  low: number
  high: number
  aim: number
  reserve: number
  stages: Stage[]
  swapped: Try | null
  inTurns: string // with whom it was put in turns on the floor, '' for nobody
  restS: number
  restFrom: number // ms; 0: no rest runs
}

const tryOf = (slot: ReadySlot, events: Here[]) => {
  const swap = events.filter((e) => e.swap?.slot === slot.id).at(-1)?.swap
  return swap
    ? (slot.tries.find(
        (t) =>
          t.kind === swap.kind &&
          t.set_up.movement === swap.movement &&
          same(t.set_up.settings ?? {}, swap.settings ?? {}),
      ) ?? null)
    : null
}

const same = (a: object, b: object) =>
  JSON.stringify(Object.entries(a).sort()) === JSON.stringify(Object.entries(b).sort())

/** ahead are the steps that are still to do, in their order: what is done, left out or ended is gone. */
export function ahead(ready: Ready, at: Standing) {
  const done = new Set(at.sets.filter((s) => !s.twice).map((s) => `${s.slot} ${s.setNo} ${s.side}`))
  const dropped = new Map<string, number>()
  for (const e of at.events)
    if (e.left_out) dropped.set(e.left_out.slot, (dropped.get(e.left_out.slot) ?? 0) + e.left_out.sets)
  const left = inTurns(ready, at).filter((s) => !done.has(`${ready.slots[s.slot]!.id} ${s.set + 1} ${s.side}`))
  const out: Ready['steps'] = []
  for (const s of [...left].reverse()) {
    const id = ready.slots[s.slot]!.id
    const n = dropped.get(id) ?? 0
    if (n > 0)
      dropped.set(id, n - 1) // the last ones go
    else out.push(s)
  }
  return out.reverse()
}

/** pairsOf are the slots that go on in turns with the next one: which, from which set of it on, and how. */
export function pairsOf(ready: Ready, at: Standing) {
  return at.events.flatMap((e) => {
    const i = ready.slots.findIndex((s) => s.id === e.paired?.slot)
    const pair = ready.slots[i]?.pair
    const way = pair?.ways[e.paired?.done ?? 0]
    return pair && way ? [{ slot: i, other: pair.with, from: e.paired?.done ?? 0, way }] : []
  })
}

/** partner is the slot that another one goes on in turns with, −1 for none. */
function partner(ready: Ready, at: Standing, slot: number) {
  const p = pairsOf(ready, at).find((x) => x.slot === slot || x.other === slot)
  return !p ? -1 : p.slot === slot ? p.other : p.slot
}

/** inTurns are a session's steps, those of pairs as they go on. */
function inTurns(ready: Ready, at: Standing) {
  let steps = ready.steps
  for (const p of pairsOf(ready, at)) {
    const before = steps.filter((s) => s.slot === p.slot && s.set < p.from)
    const first = steps.findIndex((s) => s.slot === p.slot)
    const rest = (s: Ready['steps'][number]) => s.slot !== p.slot && s.slot !== p.other
    steps = [...steps.slice(0, first).filter(rest), ...before, ...p.way.steps, ...steps.slice(first).filter(rest)]
  }
  return steps
}

/** now is what comes next of a session, of one slot where that was asked for; null when all is done. */
export function now(ready: Ready, at: Standing, want: string | null = null): Now | null {
  const steps = ahead(ready, at)
  const step = steps.find((s) => ready.slots[s.slot]!.id === want) ?? steps[0]
  if (!step) return null
  const slot = ready.slots[step.slot]!
  const row = slot.rows[step.row]!
  const own = at.sets.filter((s) => s.slot === slot.id && !s.twice)
  const swapped = tryOf(slot, at.events)
  const follows = advised(slot, own)
  const move = follows.move
  const begins = step.in_row === 0 && (step.row > 0 || step.set === 0)
  let load = row.loads[0] ?? -1
  let [low, high, reserve] = [row.low, row.high, row.reserve]
  let aim = row.aim
  let stages = row.stages
  let loads = slot.loads
  let say = ''
  if (swapped) {
    loads = swapped.loads
    const last = own.filter((s) => s.at >= swapAt(at.events, slot.id)).at(-1)
    load = last ? nearest(loads, last.wholeKg) : swapped.start
    low += swapped.more
    high += swapped.more
    aim = high
    reserve = Math.max(reserve, swapped.reserve)
    stages = [{ words: '', reps: aim, is: 'clean' }]
    say = swapped.words
  } else if (follows.state && move) {
    ;({ low, high, reserve } = move)
    load = slot.marks[follows.state.mark] ?? load
    say = ready.says[move.say] ?? ''
    if (aim < low || aim > high) aim = Math.min(Math.max(aim, low), high)
    stages = row.stages.map((s, i) => (i === 0 && s.is === 'clean' ? { ...s, reps: aim } : s))
  } else if (row.loads.length === 0 && follows.state) {
    load = slot.marks[follows.state.mark] ?? -1
  }
  const away = awayFrom(ready, at, step.slot)
  if (away) reserve = Math.max(reserve, ready.pain.reserve)
  const other = own.filter((s) => s.setNo === step.set + 1).at(-1) // the other arm has told what it lifted
  if (other && slot.sides.length > 1 && !swapped) load = nearest(loads, other.wholeKg)
  const rest = restOf(at, step, slot, move && !begins ? move.rest_s : 0, row.rest_s)
  return {
    step,
    slot,
    row,
    side: step.side as Side,
    setNo: step.set + 1,
    sets: slot.rows.reduce((n, r) => n + r.sets, 0),
    first: own.length === 0,
    advised: follows,
    say,
    load,
    loads,
    low,
    high,
    aim,
    reserve,
    stages,
    swapped,
    inTurns: ready.slots[partner(ready, at, step.slot)]?.short ?? '',
    ...rest,
  }
}

const swapAt = (events: Here[], slot: string) => events.filter((e) => e.swap?.slot === slot).at(-1)?.at ?? 0

/** nearest is the load of a list that is nearest to one, −1 for none. */
export function nearest(loads: ReadySlot['loads'], wholeKg: number): number {
  let best = -1
  loads.forEach((l, i) => {
    if (best < 0 || Math.abs(l.whole_kg - wholeKg) < Math.abs(loads[best]!.whole_kg - wholeKg)) best = i
  })
  return best
}

/** restOf is the rest before a step: from what was done last, or from the same arm's own last set. */
function restOf(at: Standing, step: Ready['steps'][number], slot: ReadySlot, advisedS: number, rowS: number) {
  const last = at.sets.at(-1)
  if (!last) return { restS: 0, restFrom: 0 }
  const longer = (s: number) => (s > 0 && s === rowS && advisedS > s ? advisedS : s)
  const mine = at.sets.filter((s) => s.slot === slot.id && s.side === step.side).at(-1)
  const ends = [
    { s: longer(step.rest_s), from: last.at },
    { s: longer(step.own_s), from: mine?.at ?? 0 },
  ].filter((r) => r.s > 0 && r.from > 0)
  if (ends.length === 0) return { restS: 0, restFrom: 0 }
  const latest = ends.reduce((a, b) => (b.from + 1000 * b.s > a.from + 1000 * a.s ? b : a))
  return { restS: latest.s, restFrom: latest.from }
}

/** hurtAgain lists what hurts too much a second time: a try was made, and it came back. */
export function hurtAgain(ready: Ready, at: Standing): string[] {
  const tried = new Set<string>()
  const out: string[] = []
  for (const e of at.events) {
    if (e.swap?.joint) tried.add(e.swap.joint)
    if (e.pain?.joint && e.pain.score > ready.pain.over && tried.has(e.pain.joint)) out.push(e.pain.joint)
  }
  return out
}

const awayFrom = (ready: Ready, at: Standing, slot: number) =>
  hurtAgain(ready, at).some((j) => ready.slots[slot]!.after[ready.joints.findIndex((w) => w.id === j)] === 'away')

/** outFor are the slots that a joint takes out once it hurts again, with the sets still to come. */
export function outFor(ready: Ready, at: Standing, joint: string) {
  const k = ready.joints.findIndex((j) => j.id === joint)
  const steps = ahead(ready, at)
  return ready.slots
    .map((slot, i) => ({ slot, sets: steps.filter((s) => s.slot === i).length }))
    .filter(({ slot, sets }) => sets > 0 && slot.after[k] === 'out')
}

/** tryFor is what may be tried in a slot once a joint is back at a score; null for nothing. */
export function tryFor(ready: Ready, slot: ReadySlot, joint: string, now: number): Try | null {
  const k = ready.joints.findIndex((j) => j.id === joint)
  return slot.tries[slot.ladder[k]?.[now <= ready.pain.low ? 0 : 1] ?? -1] ?? null
}

/** minutesAhead is how long what is still to do takes, as the core reckoned it slot by slot. */
export function minutesAhead(ready: Ready, at: Standing) {
  const steps = ahead(ready, at)
  const pairs = pairsOf(ready, at)
  const left = (...slots: number[]) => steps.filter((s) => slots.includes(s.slot)).length
  return (
    ready.slots.reduce(
      (sum, slot, i) =>
        pairs.some((p) => p.slot === i || p.other === i) ? sum : sum + (slot.ahead[doneOf(slot, steps, i)] ?? 0),
      0,
    ) + pairs.reduce((sum, p) => sum + (p.way.ahead[p.way.steps.length - left(p.slot, p.other)] ?? 0), 0)
  )
}

/** nextPair is the first slot that may go on in turns with its neighbour, so that the ones after it can pair up too;
 * null where nothing is offered. */
export function nextPair(ready: Ready, at: Standing) {
  const steps = ahead(ready, at)
  const gone = new Set([
    ...pairsOf(ready, at).flatMap((p) => [p.slot, p.other]),
    ...ready.slots.flatMap((s, i) => (at.events.some((e) => (e.swap ?? e.left_out)?.slot === s.id) ? [i] : [])),
  ])
  for (const [i, slot] of ready.slots.entries()) {
    const { pair } = slot
    if (!pair || gone.has(i) || gone.has(pair.with)) continue
    const done = doneOf(slot, steps, i)
    const way = pair.ways[done]
    const begun = doneOf(ready.slots[pair.with]!, steps, pair.with) > 0
    if (way && way.saves > 0 && !begun) return { slot, done, words: way.words }
  }
  return null
}

/** doneOf is how many sets of a slot are through, each arm's. */
function doneOf(slot: ReadySlot, steps: Ready['steps'], i: number) {
  const sets = slot.rows.reduce((n, r) => n + r.sets, 0)
  return sets - Math.ceil(steps.filter((s) => s.slot === i).length / slot.sides.length)
}

/** leastLoss is what costs the week least for the minutes it saves; null where nothing is offered. */
export function leastLoss(ready: Ready, at: Standing) {
  const steps = ahead(ready, at)
  const offers = ready.slots.flatMap((slot, i) => {
    const l = slot.leave[doneOf(slot, steps, i)]
    const sets = steps.filter((s) => s.slot === i).length
    return l && sets > 0 ? [{ ...l, slot, sets }] : []
  })
  return offers.sort((a, b) => a.loses / a.minutes - b.loses / b.minutes || b.minutes - a.minutes)[0] ?? null
}

/** began is when a session's first set was begun, ms; 0 before it. */
export function began(ready: Ready, at: Standing) {
  const first = at.sets[0]
  return first ? first.at - 1000 * (ready.steps[0]?.about_s ?? 0) : 0
}

/** repsOf are the clean reps of a set at its own load. */
export const repsOf = (stages: Stage[]) =>
  stages.filter((s) => s.is === 'clean' && !s.rung).reduce((n, s) => n + s.reps, 0)

/** partsOf makes the parts of a set from the stages that were done, none where it is clean reps alone. */
export function partsOf(stages: Stage[], loads: ReadySlot['loads'], rungs: number[]): Part[] {
  if (stages.length === 1 && stages[0]!.is === 'clean') return []
  return stages
    .filter((s) => s.is !== '')
    .map((s) => ({
      kind: s.is as Part['kind'],
      ...(s.is === 'hold' ? { seconds: s.seconds ?? 0 } : { reps: s.reps }),
      ...(s.pause_s ? { pause_s: s.pause_s } : {}),
      ...(s.rung && loads[rungs[s.rung] ?? -1] ? { load_kg: loads[rungs[s.rung]!]!.hand_kg } : {}),
    }))
}

/** again is a set as it was told, to be put right or taken out. */
export const again = (s: SetHere): SetTold => ({
  slot: s.slot,
  side: s.side,
  set_no: s.setNo,
  reps: s.reps,
  whole_kg: s.wholeKg,
  reserve: s.reserve,
  technical: s.technical,
  faults: s.faults,
  ...(s.parts.length ? { parts: s.parts } : {}),
  ...(s.note ? { note: s.note } : {}),
  replaces: s.id,
})

import { describe, expect, it, vi } from 'vitest'
import { Painter, runs, type Job, type Look } from './painter'

const look: Look = { fill: 'skin', stroke: '', width: 0, dash: [], cap: 'round' }

/** one point that goes to the right, one belly that grows, one letter; the belly is slack at the end */
const job = (): Job => ({
  stills: {
    parts: [
      { class: 'far', points: 1, r: 0.1 },
      { class: 'belly', points: 2, head: 'brachialis', closed: true },
      { class: 'letter', points: 1, head: 'brachialis' },
    ],
    first: [0, 0, 0, 0, 10, 0, 5, 5],
    bends: [[4, 0, 0, 0, 0, 0, 0, 0]],
    far: 1,
    close: 1,
    tension: [
      [0, 0, 0, 0, 0, 0, 0],
      [0, 0, 100, 0, 0, 0, 0],
    ],
    slack: [0, 1 << 2],
  },
  per: 100,
  size: [40, 20],
  ground: 'card',
  edge: { x: 20, wide: 1, colour: 'line' },
  looks: [
    look,
    { ...look, stroke: 'ink', width: 2 },
    { ...look, letters: { picture: 'BA' as unknown as ImageBitmap, x: 1, y: 1 } },
  ],
  under: ['behind', 'before'] as unknown as ImageBitmap[],
  to: [
    [1, 0, 0, 1, 0, 0],
    [2, 0, 0, 2, 20, 0],
  ],
  tints: { brachialis: ['pale', 'half', 'full'] },
  dash: [3, 3],
})

/** canvas notes what is painted on it, in its order. */
function canvas() {
  const done: string[] = []
  const on = {
    fillStyle: '',
    dashed: false,
    fill: () => done.push(`fill ${on.fillStyle}`),
    stroke: () => done.push(on.dashed ? 'dashed' : 'line'),
    setLineDash: (d: number[]) => (on.dashed = d.length > 0),
    drawImage: (what: unknown, x: number, y: number) => done.push(`${String(what)} ${x} ${y}`),
    getTransform: () => ({ a: 2, d: 2, e: 20, f: 0 }),
    arc: (x: number) => done.push(`disc at ${x}`),
  }
  const rest = [
    'fillRect',
    'setTransform',
    'save',
    'restore',
    'beginPath',
    'rect',
    'clip',
    'moveTo',
    'lineTo',
    'closePath',
  ]
  for (const name of rest) Object.assign(on, { [name]: () => undefined })
  return { on: on as unknown as CanvasRenderingContext2D, done }
}

describe('a painter', () => {
  it('paints from behind to before, each head as it pulls, slack ones dashed, letters where they belong', () => {
    const { on, done } = canvas()
    const painter = new Painter(on, job())
    painter.paint(0)
    expect(done).toEqual(['behind 0 0', 'disc at 0', 'fill skin', 'before 0 0', 'fill pale', 'line', 'BA 59 39'])
    done.length = 0
    painter.paint(1)
    expect(done).toEqual(['behind 0 0', 'disc at 16', 'fill skin', 'before 0 0', 'fill full', 'dashed', 'BA 59 39'])
  })

  it('goes on as long as somebody is there and the clock runs', () => {
    const frames: (() => void)[] = []
    vi.stubGlobal('requestAnimationFrame', (f: () => void) => frames.push(f))
    const paint = vi.fn()
    const painters = new Map([[1, { paint } as unknown as Painter]])
    let run: { since: number; tempo: number[] } | undefined = {
      since: performance.timeOrigin + performance.now(),
      tempo: [2, 0, 2, 0],
    }
    const again = runs(painters, () => run)
    again()
    again() // asked twice it is painted once
    expect(frames).toHaveLength(1)
    frames.shift()!()
    expect(paint).toHaveBeenCalledTimes(1)
    run = undefined
    frames.shift()!()
    expect(frames).toHaveLength(0)
    vi.unstubAllGlobals()
  })
})

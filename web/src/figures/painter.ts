/**
 * A repetition painted while it runs: a drawing that changes in every frame costs more than painting does. It runs in a
 * thread of its own where the browser lets it, so nothing here may touch the page.
 */
import type { Stills } from '../api/client'
import { placeAt, type Tempo } from './tempo'
import { between, headIndex, isSlack, placesOf, startsOf } from './stills'

/** Picture is what is painted once; in the thread that paints it is always a bitmap. */
export type Picture = ImageBitmap | HTMLCanvasElement

/** Look is how a line, an area or letters are painted, in the drawing's own units. */
export interface Look {
  fill: string // empty: not at all
  stroke: string
  width: number
  dash: number[]
  cap: CanvasLineCap
  /** letters, as they are put at their place, and their half size */
  letters?: { picture: Picture; x: number; y: number }
}

/** Job is all that a painter has to know. */
export interface Job {
  stills: Pick<Stills, 'parts' | 'first' | 'bends' | 'far' | 'close' | 'tension' | 'slack'>
  per: number // of the drawing's units, a metre
  size: [number, number]
  ground: string
  /** where the arm's drawing begins, with a line between it and the person's */
  edge: { x: number; wide: number; colour: string }
  looks: Look[]
  /** what does not move: behind the farther arm, and before it */
  under: Picture[]
  /** from the drawings' units to the canvas: the person's, the arm's */
  to: number[][]
  /** of each head, how it is filled, from not at all to quite */
  tints: Record<string, string[]>
  /** of a belly that is slack */
  dash: number[]
}

type On = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

/** Painter paints one repetition. */
export class Painter {
  private readonly starts: number[]
  private readonly places: Int32Array[]
  private readonly now: Int32Array

  constructor(
    private readonly on: On,
    private readonly job: Job,
  ) {
    this.starts = startsOf(job.stills)
    this.places = placesOf(job.stills)
    this.now = new Int32Array(job.stills.first.length)
  }

  /** paint paints an instant: where in the range it is. */
  paint(place: number) {
    const { on, job, now } = this
    const { stills, looks } = job
    between(this.places, place, now)
    const i = Math.max(0, Math.min(this.places.length - 2, Math.floor(place)))
    const t = place - i
    const near = Math.round(place)
    on.setTransform(1, 0, 0, 1, 0, 0)
    on.fillStyle = job.ground
    on.fillRect(0, 0, ...job.size)
    on.fillStyle = job.edge.colour
    on.fillRect(job.edge.x, 0, job.edge.wide, job.size[1])
    on.drawImage(job.under[0]!, 0, 0)
    this.begin(0)
    stills.parts.forEach((p, k) => {
      if (k === stills.far) {
        on.setTransform(1, 0, 0, 1, 0, 0)
        on.drawImage(job.under[1]!, 0, 0)
        this.turn(0)
      }
      if (k === stills.close) {
        on.restore()
        this.begin(1)
      }
      const look = looks[k]!
      if (look.letters) this.letters(this.starts[k]!, look.letters)
      else if (!p.head) this.part(k, look, look.fill, look.dash)
      else {
        const h = headIndex[p.head]!
        const pull = (stills.tension[i]![h]! * (1 - t) + stills.tension[i + 1]![h]! * t) / 100
        const all = job.tints[p.head]!
        this.part(
          k,
          look,
          all[Math.round((all.length - 1) * Math.max(0, Math.min(1, pull)))]!,
          isSlack(stills, near, h) ? job.dash : [],
        )
      }
    })
    on.restore()
  }

  /** begin goes on in one of the two drawings, and not over its edge. */
  private begin(drawing: number) {
    const { on, job } = this
    const [wide, high] = job.size
    on.save()
    on.beginPath()
    on.setTransform(1, 0, 0, 1, 0, 0)
    if (drawing === 0) on.rect(0, 0, job.edge.x, high)
    else on.rect(job.edge.x + job.edge.wide, 0, wide, high)
    on.clip()
    this.turn(drawing)
  }

  private turn(drawing: number) {
    const [a, b, c, d, e, f] = this.job.to[drawing]!
    this.on.setTransform(a!, b!, c!, d!, e!, f!)
  }

  /** letters puts them at their place, not turned. */
  private letters(from: number, { picture, x, y }: NonNullable<Look['letters']>) {
    const { on, now } = this
    const to = on.getTransform()
    const [px, py] = [now[from]! * to.a + to.e, now[from + 1]! * to.d + to.f]
    on.setTransform(1, 0, 0, 1, 0, 0)
    on.drawImage(picture, px - x, py - y)
    this.turn(1)
  }

  private part(k: number, look: Look, fill: string, dash: number[]) {
    const { on } = this
    this.trace(k)
    if (fill) {
      on.fillStyle = fill
      on.fill()
    }
    if (look.stroke && look.width) {
      on.strokeStyle = look.stroke
      on.lineWidth = look.width
      on.lineCap = look.cap
      on.lineJoin = 'round'
      on.setLineDash(dash)
      on.stroke()
    }
  }

  /** trace lays a part's line. */
  private trace(k: number) {
    const { on, now: at } = this
    const part = this.job.stills.parts[k]!
    const from = this.starts[k]!
    const end = from + 2 * part.points
    on.beginPath()
    if (part.r) on.arc(at[from]!, at[from + 1]!, part.r * this.job.per, 0, 2 * Math.PI)
    else if (part.smooth) {
      on.moveTo((at[end - 2]! + at[from]!) / 2, (at[end - 1]! + at[from + 1]!) / 2)
      for (let k = from; k < end; k += 2) {
        const next = k + 2 < end ? k + 2 : from
        on.quadraticCurveTo(at[k]!, at[k + 1]!, (at[k]! + at[next]!) / 2, (at[k + 1]! + at[next + 1]!) / 2)
      }
    } else {
      on.moveTo(at[from]!, at[from + 1]!)
      for (let k = from + 2; k < end; k += 2) on.lineTo(at[k]!, at[k + 1]!)
    }
    if (part.closed) on.closePath()
  }
}

/** Run is how a clock runs: since when, ms since the epoch, and at which tempo. */
export interface Run {
  since: number
  tempo: Tempo
}

/** runs paints what it is given in every frame, as long as there is something; what it returns has it look again. */
export function runs(painters: Map<number, Painter>, run: () => Run | undefined): () => void {
  let asked = false
  const frame = () => {
    asked = false
    const how = run()
    if (!how || painters.size === 0) return
    const place = placeAt((performance.timeOrigin + performance.now() - how.since) / 1000, how.tempo)
    painters.forEach((p) => p.paint(place))
    again()
  }
  const again = () => {
    if (asked) return
    asked = true
    requestAnimationFrame(frame)
  }
  return again
}

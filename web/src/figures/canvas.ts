import type { Stills } from '../api/client'
import { clock } from './clock'
import { headOf, per } from './stills'
import { Painter, runs, type Job, type Look, type Picture, type Run } from './painter'
import type { Told } from './painter.worker'
import { tintsOf } from './tints'
import css from './pose.module.css'

let thread: Worker | undefined
let count = 0

// Where the browser has no canvas for another thread, it is painted in this one.
const here = new Map<number, Painter>()
const again = runs(here, now)

function now(): Run {
  const { since, tempo } = clock.run()
  return { since: performance.timeOrigin + since, tempo }
}

const tell = () => clock.isRunning() && thread?.postMessage({ run: now() } satisfies Told)

/**
 * begin has a repetition painted over its drawing while the clock runs; what it returns takes it away. The first one
 * begins the thread that paints, which stays.
 */
export function begin(frame: HTMLElement, stills: Stills): () => void {
  const id = count++
  if (frame.clientWidth === 0) return () => undefined // it is not to be seen
  const canvas = document.createElement('canvas')
  canvas.className = css.runs!
  canvas.setAttribute('aria-hidden', 'true')
  const job = jobOf(frame, stills)
  ;[canvas.width, canvas.height] = job.size
  frame.append(canvas)
  if ('transferControlToOffscreen' in HTMLCanvasElement.prototype) {
    if (!thread) {
      thread = new Worker(new URL('./painter.worker.ts', import.meta.url), { type: 'module' })
      clock.watch(tell)
      tell()
    }
    const on = canvas.transferControlToOffscreen()
    const pictures = [...job.under, ...job.looks.flatMap((l) => l.letters?.picture ?? [])] as ImageBitmap[]
    thread.postMessage({ id, on, job } satisfies Told, [on, ...pictures])
  } else {
    here.set(id, new Painter(canvas.getContext('2d')!, job))
    again()
  }
  return () => {
    here.delete(id)
    thread?.postMessage({ id } satisfies Told)
    canvas.remove()
  }
}

/** layerOf is a canvas that nobody sees; where the browser has none of that kind, one of the page's. */
function layerOf(wide: number, high: number) {
  const layer =
    typeof OffscreenCanvas === 'undefined'
      ? Object.assign(document.createElement('canvas'), { width: wide, height: high })
      : new OffscreenCanvas(wide, high)
  return [layer, layer.getContext('2d') as OffscreenCanvasRenderingContext2D] as const
}

const pictureOf = (layer: OffscreenCanvas | HTMLCanvasElement): Picture =>
  layer instanceof HTMLCanvasElement ? layer : layer.transferToImageBitmap()

/** jobOf reads from the drawing what a painter has to know. */
function jobOf(frame: HTMLElement, stills: Stills): Job {
  const box = frame.getBoundingClientRect()
  const dots = window.devicePixelRatio || 1
  const size: [number, number] = [Math.round(box.width * dots), Math.round(box.height * dots)]
  const toDots = (of: SVGGraphicsElement) =>
    new DOMMatrix().scale(dots).translate(-box.left, -box.top).multiply(DOMMatrix.fromMatrix(of.getScreenCTM()!))
  const drawings = [...frame.querySelectorAll<SVGSVGElement>('svg[data-still]')]
  const [person, arm] = drawings.map(toDots)
  const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
  const scale = per(stills)
  const edge = {
    x: (drawings[1]!.getBoundingClientRect().left - box.left) * dots,
    wide: Math.round(dots),
    colour: colour('--hairline'),
  }
  return {
    stills: {
      parts: stills.parts,
      first: stills.first,
      bends: stills.bends,
      far: stills.far,
      close: stills.close,
      tension: stills.tension,
      slack: stills.slack,
    },
    per: scale,
    size,
    ground: colour('--card'),
    edge,
    looks: [...frame.querySelectorAll<SVGElement>('[data-part]')].map((of) =>
      of instanceof SVGTextElement ? { ...lookOf(of), letters: lettersOf(of, arm!.a) } : lookOf(of),
    ),
    under: [...frame.querySelectorAll<SVGGElement>('g[data-stays]')].map((g) => standing(g, size, toDots, edge.x)),
    to: [person!, arm!].map((m) => [m.a, m.b, m.c, m.d, m.e, m.f]),
    tints: Object.fromEntries(headOf.map((h) => [h, tintsOf(h)])),
    dash: slackOf(frame),
  }
}

/** lookOf reads from the drawing how something is painted. */
function lookOf(of: SVGElement): Look {
  const s = getComputedStyle(of)
  const paint = (x: string) => (x === 'none' ? '' : x)
  return {
    fill: paint(s.fill),
    stroke: paint(s.stroke),
    width: parseFloat(s.strokeWidth),
    dash: s.strokeDasharray === 'none' ? [] : s.strokeDasharray.split(',').map(parseFloat),
    cap: s.strokeLinecap as CanvasLineCap,
  }
}

/** slackOf reads from the style sheet how the edge of a slack belly is dashed. */
function slackOf(frame: HTMLElement): number[] {
  const probe = document.createElementNS('http://www.w3.org/2000/svg', 'path')
  probe.setAttribute('class', css.slack!)
  frame.querySelector('svg[data-still]')!.append(probe)
  const { dash } = lookOf(probe)
  probe.remove()
  return dash
}

/** standing paints what does not move, as far as the edge. */
function standing(
  g: SVGGElement,
  size: [number, number],
  toDots: (of: SVGGraphicsElement) => DOMMatrix,
  edge: number,
): Picture {
  const [layer, on] = layerOf(...size)
  on.beginPath()
  on.rect(0, 0, edge, size[1])
  on.clip()
  g.querySelectorAll('path').forEach((path) => {
    const look = lookOf(path)
    on.setTransform(toDots(path))
    const line = new Path2D(path.getAttribute('d')!)
    if (look.fill) {
      on.fillStyle = look.fill
      on.fill(line)
    }
    if (look.stroke && look.width) {
      on.globalAlpha = Number(getComputedStyle(path).strokeOpacity)
      on.strokeStyle = look.stroke
      on.lineWidth = look.width
      on.lineCap = look.cap
      on.lineJoin = 'round'
      on.setLineDash(look.dash)
      on.stroke(line)
      on.globalAlpha = 1
    }
  })
  return pictureOf(layer)
}

/** lettersOf paints letters once, in the page's own type, which the thread that paints has not. */
function lettersOf(of: SVGTextElement, scale: number): Look['letters'] {
  const s = getComputedStyle(of)
  const high = parseFloat(s.fontSize) * scale
  const [layer, on] = layerOf(Math.ceil(high * 4), Math.ceil(high * 2))
  on.font = `${s.fontWeight} ${high}px ${s.fontFamily}`
  const x = s.textAnchor === 'start' ? high / 4 : layer.width / 2
  on.textAlign = s.textAnchor === 'start' ? 'left' : 'center'
  on.textBaseline = 'middle'
  on.lineJoin = 'round'
  on.strokeStyle = s.stroke
  on.lineWidth = parseFloat(s.strokeWidth) * scale
  on.strokeText(of.textContent, x, layer.height / 2)
  on.fillStyle = s.fill
  on.fillText(of.textContent, x, layer.height / 2)
  return { picture: pictureOf(layer), x, y: layer.height / 2 }
}

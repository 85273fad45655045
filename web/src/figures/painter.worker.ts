import { Painter, runs, type Job, type Run } from './painter'

/** What the page tells: who is to be painted on what, who no more, and how the clock runs that all of them go by. */
export type Told = { id: number; on: OffscreenCanvas; job: Job } | { id: number } | { run: Run }

const painters = new Map<number, Painter>()
let run: Run | undefined
const again = runs(painters, () => run)

self.onmessage = ({ data }: MessageEvent<Told>) => {
  if ('run' in data) run = data.run
  else if ('job' in data) painters.set(data.id, new Painter(data.on.getContext('2d')!, data.job))
  else painters.delete(data.id)
  again()
}

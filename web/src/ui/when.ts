/** How days and moments are written, on every page alike. */
const style = 'en-GB'

const written = (iso: string) => new Date(`${iso}T12:00:00`)

/** dayWords writes a calendar day, which no time zone moves: 30 November 2026. */
export const dayWords = (iso: string) =>
  written(iso).toLocaleDateString(style, { day: 'numeric', month: 'long', year: 'numeric' })

/** spanWords writes days from one to another: 23 – 29 November 2026. */
export function spanWords(from: string, to: string): string {
  const [a, b] = [written(from), written(to)]
  const same = a.getMonth() === b.getMonth()
  const first = a.toLocaleDateString(style, same ? { day: 'numeric' } : { day: 'numeric', month: 'long' })
  return `${first} – ${dayWords(to)}`
}

/** clockWords writes the time of a moment by the reader's clock: 14:05. */
export const clockWords = (iso: string) =>
  new Date(iso).toLocaleTimeString(style, { hour: '2-digit', minute: '2-digit' })

/** momentWords writes a moment by the reader's clock and calendar: 30 November 2026, 14:05. */
export const momentWords = (iso: string) =>
  `${new Date(iso).toLocaleDateString(style, { day: 'numeric', month: 'long', year: 'numeric' })}, ${clockWords(iso)}`

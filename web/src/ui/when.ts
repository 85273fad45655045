/** How days and moments are written, on every page alike, the reader's way round. */
import { datesOf } from '../app/dates'

const style = () => (datesOf() === 'month_first' ? 'en-US' : 'en-GB')

const written = (iso: string) => new Date(`${iso}T12:00:00`)

const long = (d: Date) => d.toLocaleDateString(style(), { day: 'numeric', month: 'long', year: 'numeric' })

/** dayWords writes a calendar day, which no time zone moves: 30 November 2026. */
export const dayWords = (iso: string) => long(written(iso))

/** spanWords writes days from one to another: 23 – 29 November 2026. */
export function spanWords(from: string, to: string): string {
  const [a, b] = [written(from), written(to)]
  const same = a.getMonth() === b.getMonth()
  if (datesOf() === 'month_first') {
    const first = a.toLocaleDateString(style(), { day: 'numeric', month: 'long' })
    return `${first} – ${same ? `${b.getDate()}, ${b.getFullYear()}` : dayWords(to)}`
  }
  const first = a.toLocaleDateString(style(), same ? { day: 'numeric' } : { day: 'numeric', month: 'long' })
  return `${first} – ${dayWords(to)}`
}

/** clockWords writes the time of a moment by the reader's clock: 14:05. */
export const clockWords = (iso: string) =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })

/** momentWords writes a moment by the reader's clock and calendar: 30 November 2026, 14:05. */
export const momentWords = (iso: string) => `${long(new Date(iso))}, ${clockWords(iso)}`

/** typedDays are how a day is typed and written in a field, the first as it is written everywhere. */
export const typedDays = () =>
  datesOf() === 'month_first'
    ? ['MMMM D, YYYY', 'MMM D, YYYY', 'M/D/YYYY', 'D MMMM YYYY', 'YYYY-MM-DD']
    : ['D MMMM YYYY', 'D MMM YYYY', 'D.M.YYYY', 'D/M/YYYY', 'YYYY-MM-DD']

/** shortDay writes a day where it is tight, without its year: 30 Nov. */
export const shortDay = (iso: string) => written(iso).toLocaleDateString(style(), { day: 'numeric', month: 'short' })

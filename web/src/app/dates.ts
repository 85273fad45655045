// Which way round the reader has dates: told once, when it is known who reads.
export type Dates = 'day_first' | 'month_first'

let reads: Dates = 'day_first'

export const datesOf = () => reads

/** readDates sets it; what is shown already is written anew when it is read anew. */
export function readDates(next: Dates) {
  reads = next
}

// A day of the server's holds together by no-break spaces, so that it is told from one that somebody typed.
const day =
  /(\d{1,2})\u00a0(January|February|March|April|May|June|July|August|September|October|November|December)\u00a0(\d{4})/g

/** turned writes the server's days the reader's way round. */
export const turned = (text: string) => (reads === 'month_first' ? text.replace(day, '$2\u00a0$1,\u00a0$3') : text)

/** laterBy writes a date some days on; what is no date stays as it is, for whoever is asked about it. */
export function laterBy(date: string, days: number): string {
  const d = new Date(`${date}T00:00:00Z`)
  if (Number.isNaN(d.getTime())) return date
  d.setUTCDate(d.getUTCDate() + days)
  return d.toISOString().slice(0, 10)
}

/** mondayOf is the first day of a date's week. */
export function mondayOf(date: string): string {
  return laterBy(date, -((new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7))
}

/** momentWords writes a moment as the reader's own clock and calendar do. */
export const momentWords = (iso: string) =>
  new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })

/** dayWords writes a calendar day, which no time zone moves. */
export const dayWords = (iso: string) =>
  new Date(`${iso}T12:00:00`).toLocaleDateString(undefined, { dateStyle: 'long' })

/** The colours of the heads: a family per place, never hue alone (codes and hatches say the same). */
export const headColour: Record<string, string> = {
  biceps_long: 'var(--bl)',
  biceps_short: 'var(--bs)',
  brachialis: 'var(--ba)',
  brachioradialis: 'var(--bd)',
  triceps_long: 'var(--tl)',
  triceps_lateral: 'var(--ta)',
  triceps_medial: 'var(--tm)',
}

/** shade is how opaque a region of the given fill level is drawn. */
export function shade(level: number): number {
  return level === 0 ? 0 : 0.16 + 0.84 * level
}

/** decimals writes a number of the core with a fixed number of decimals; what rounds to nothing has no sign. */
export function decimals(value: number, places = 2): string {
  return value.toFixed(places).replace(/^-(0(\.0+)?)$/, '$1')
}

/** tenths writes a number of the core with a decimal only where it has one. */
export function tenths(value: number): string {
  return String(Number(value.toFixed(1)))
}

/** codes are the letters that say a head's name wherever hue may not. */
export const codes: Record<string, string> = {
  biceps_long: 'BL',
  biceps_short: 'BS',
  brachialis: 'BA',
  brachioradialis: 'BD',
  triceps_long: 'TL',
  triceps_lateral: 'TA',
  triceps_medial: 'TM',
}

/** tone is a head's colour on the arm: paler the less it is filled. */
export const tone = (head: string, level: number) =>
  `color-mix(in srgb, ${headColour[head]} ${Math.round(100 * (0.14 + 0.86 * level))}%, var(--skin))`

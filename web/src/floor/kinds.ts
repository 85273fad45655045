import type { Part } from './types'

/** kinds are what reps can be beside clean ones, in the words in which they are asked for. */
export const kinds: [Part['kind'], string][] = [
  ['assisted', 'with help'],
  ['swung', 'swung'],
  ['momentum', 'with momentum to the end'],
  ['partial_long', 'half, where it is long'],
  ['partial_short', 'half, where it is short'],
  ['lowering', 'lowered only'],
  ['hold', 'held, s'],
]

/** Units are converted here, at the edge, and nowhere else: what is kept is metric. */
export type Units = 'metric' | 'imperial'

const inch = 2.54
const pound = 0.45359237

export const lengthUnit = (u: Units) => (u === 'imperial' ? 'in' : 'cm')
export const massUnit = (u: Units) => (u === 'imperial' ? 'lb' : 'kg')

const round = (x: number, places: number) => Number(x.toFixed(places))

/** shownLength writes cm as they are read. */
export const shownLength = (cm: number, u: Units) => round(u === 'imperial' ? cm / inch : cm, 1)
/** keptLength is what was typed, in cm. */
export const keptLength = (x: number, u: Units) => round(u === 'imperial' ? x * inch : x, 2)
export const shownMass = (kg: number, u: Units) => round(u === 'imperial' ? kg / pound : kg, 1)
export const keptMass = (x: number, u: Units) => round(u === 'imperial' ? x * pound : x, 2)

/**
 * readGirth reads a girth typed in a hurry: 346 is 34.6 (three digits are tenths;
 * so are two in inches), 34,6 and 34.6 are what they are. NaN for what is no number.
 */
export function readGirth(text: string, u: Units): number {
  const t = text.trim().replace(',', '.')
  if (!/^\d+(\.\d+)?$/.test(t)) return NaN
  if (/^\d{3}$/.test(t) || (u === 'imperial' && /^\d{2}$/.test(t))) return Number(t) / 10
  return Number(t)
}

/** shownMark writes a load in the unit its thing is marked in; NaN stays NaN. */
export const shownMark = (kg: number, unit: string) => (unit === 'lb' ? round(kg / pound, 2) : kg)
/** keptMark is what was typed as it is marked, in kg, to the gram and beyond: a mark must be found again. */
export const keptMark = (mark: number, unit: string) => (unit === 'lb' ? mark * pound : mark)

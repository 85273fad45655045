import { describe, expect, it } from 'vitest'
import { keptLength, keptMass, readGirth, shownLength, shownMass } from './units'

describe('units', () => {
  it('reads girths typed with digits alone', () => {
    expect(readGirth('346', 'metric')).toBe(34.6)
    expect(readGirth('34,6', 'metric')).toBe(34.6)
    expect(readGirth('34', 'metric')).toBe(34)
    expect(readGirth('136', 'imperial')).toBe(13.6)
    expect(readGirth('65', 'imperial')).toBe(6.5)
    for (const junk of ['', 'abc', '3 4', '-5', '1e3', '34.6cm']) expect(readGirth(junk, 'metric')).toBeNaN()
  })
  it('comes back as it was typed', () => {
    for (let x = 60; x < 900; x += 7) {
      expect(shownLength(keptLength(x / 10, 'imperial'), 'imperial')).toBe(x / 10)
      expect(shownMass(keptMass(x / 10, 'imperial'), 'imperial')).toBe(x / 10)
      expect(shownLength(keptLength(x / 10, 'metric'), 'metric')).toBe(x / 10)
    }
  })
})

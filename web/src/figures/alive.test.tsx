import { describe, expect, it } from 'vitest'
import type { Stills } from '../api/client'
import { clock } from './clock'
import { last, placeAt } from './tempo'
import { between, pathOf, placesOf } from './stills'

describe('the clock', () => {
  it('goes up, holds, comes down and begins again, at the tempo', () => {
    const tempo = [2, 0.5, 1, 0.5]
    expect(placeAt(0, tempo)).toBe(0)
    expect(placeAt(0.5, tempo)).toBe(last / 2)
    expect(placeAt(1.2, tempo)).toBe(last)
    expect(placeAt(2.5, tempo)).toBeCloseTo(last / 2)
    expect(placeAt(3.7, tempo)).toBe(0)
    expect(placeAt(4.5, tempo)).toBe(last / 2)
    expect(placeAt(7, [0, 0, 0, 0])).toBe(0)
    expect(placeAt(-0.01, tempo)).toBe(0)
  })

  it('stays where it is sought, inside the range', () => {
    const heard: number[] = []
    const stop = clock.hear((place) => heard.push(place))
    clock.seek(12)
    clock.seek(99)
    clock.seek(-3)
    stop()
    clock.seek(5)
    expect(heard).toEqual([0, 12, last, 0])
    expect(clock.isOpen()).toBe(true)
    clock.close()
    expect(clock.isOpen()).toBe(false)
  })
})

describe('stills', () => {
  const stills = {
    first: [0, 0, 10, 0],
    bends: [
      [0, 2, 0, -2],
      [1, -2, 1, 2],
    ],
  } as unknown as Stills
  it('add up, and are drawn between two', () => {
    const places = placesOf(stills)
    expect([...places[2]!]).toEqual([1, 2, 11, -2])
    const half = between(places, 0.5, new Int32Array(4))
    expect([...half]).toEqual([0, 4, 40, -4])
    const part = { class: 'bone', points: 2 }
    expect(pathOf(part, half, 0, 100)).toBe('M0 4L40 -4')
    expect(pathOf({ ...part, closed: true }, half, 0, 100)).toBe('M0 4L40 -4Z')
    expect(pathOf({ ...part, smooth: true, closed: true }, half, 0, 100)).toBe('M20 0Q0 4 20 0Q40 -4 20 0Z')
    expect(pathOf({ class: 'bone', points: 1, r: 0.1 }, half, 2, 100)).toBe(
      'M30 -4a10 10 0 1 0 20 0a10 10 0 1 0 -20 0Z',
    )
  })
})

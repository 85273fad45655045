import { describe, expect, it } from 'vitest'
import type { Stills } from '../api/client'
import { drawn, placesOf } from './Alive'
import { clock, last, placeAt } from './clock'
import { middle } from './heads'

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
    steps: [
      [0, 2, 0, -2],
      [1, 0, 1, 0],
    ],
  } as unknown as Stills
  it('add up, and are drawn between two', () => {
    const [a, b, c] = placesOf(stills)
    expect([...c!]).toEqual([1, 2, 11, -2])
    expect(drawn(a!, b!, 0.5, 0.1, 0, 2, true)).toBe('M0.0000 0.1000L1.0000 -0.1000Z')
  })
  it('are labelled in their middle', () => {
    expect(middle('M0 0L.5 0L.5 1L0 1Z')).toEqual([0.25, 0.5])
  })
})

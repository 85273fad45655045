import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const read = (file: string) => readFileSync(new URL(file, import.meta.url), 'utf8')
const inks = (css: string) =>
  Object.fromEntries([...css.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6})/g)].map((m) => [m[1]!, m[2]!]))
const base = read('../app/base.css')
const dark = base.indexOf('prefers-color-scheme: dark')
const day = { ...inks(read('../app/palette.css')), ...inks(base.slice(0, dark)) }
const themes = { day, night: { ...day, ...inks(base.slice(dark)) } }

/** light is a colour's relative luminance (WCAG 2.2). */
function light(hex: string) {
  const [r, g, b] = [1, 3, 5].map((k) => {
    const c = parseInt(hex.slice(k, k + 2), 16) / 255
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
}
const contrast = (a: string, b: string) => {
  const [low, high] = [light(a), light(b)].sort((x, y) => x - y)
  return (high! + 0.05) / (low! + 0.05)
}

const heads = ['bl', 'bs', 'ba', 'bd', 'tl', 'ta', 'tm']

describe.each(Object.entries(themes))('the figure by %s', (_, ink) => {
  it.each([
    ['the edge of a belly, and letters on their ground', 'ink', 'skin', 4.5],
    ['letters', 'ink', 'card', 7],
    ['the weight, and the way of the hand', 'weight', 'card', 3],
    ['the weight before the body', 'weight', 'figure', 3],
    ['a bench', 'bench', 'card', 2.8],
    ['a bone in the arm', 'hair', 'bone', 2.4],
    ['the body', 'figure', 'card', 1.5],
    ['where down is', 'soft', 'card', 4.5],
  ])('shows %s', (_, a, b, least) => {
    expect(contrast(ink[a]!, ink[b]!)).toBeGreaterThanOrEqual(least)
  })
  it.each(heads)('shows a full %s on the arm', (head) => {
    expect(contrast(ink[head]!, ink.skin!)).toBeGreaterThanOrEqual(2.2) // its edge is drawn, besides
  })
})

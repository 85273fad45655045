import { expect, test } from 'vitest'
import { meant, plainText } from './words'

const words = [
  { words: ['hammer'], movements: ['curl_neutral'], ask: 'with a rope?' },
  { words: ['cross-body', 'pinwheel'], movements: ['curl_neutral_across'], ask: '' },
]

test('a common word is found as a whole word only', () => {
  expect(meant(words, 'hammer')).toHaveLength(1)
  expect(meant(words, 'Hammer curl')).toHaveLength(1)
  expect(meant(words, 'hammering')).toHaveLength(0)
  expect(meant(words, 'cross body')[0]!.movements).toEqual(['curl_neutral_across'])
  expect(meant(words, '')).toHaveLength(0)
})

test('plain text wants every word', () => {
  expect(plainText('Kick-back, cable curl_x', 'cable kick')).toBe(true)
  expect(plainText('Kick-back', 'kick rope')).toBe(false)
})

import { expect, test } from 'vitest'
import { sending } from './sending'

test('an id stands for one content, until that is kept', () => {
  const s = sending()
  const first = s.idOf({ chest_pain: false })
  expect(s.idOf({ chest_pain: false })).toBe(first)
  const corrected = s.idOf({ chest_pain: true })
  expect(corrected).not.toBe(first)
  expect(s.idOf({ chest_pain: true })).toBe(corrected)
  s.kept()
  expect(s.idOf({ chest_pain: true })).not.toBe(corrected)
})

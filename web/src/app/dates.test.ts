import { afterEach, expect, test } from 'vitest'
import { dayWords, momentWords, spanWords } from '../ui/when'
import { readDates, turned } from './dates'

afterEach(() => readDates('day_first'))

test('days of the server are written the reader’s way round, what somebody typed stays', () => {
  const text = 'until 30\u00a0November\u00a02026; typed: 30 November 2026'
  expect(turned(text)).toBe(text)
  readDates('month_first')
  expect(turned(text)).toBe('until November\u00a030,\u00a02026; typed: 30 November 2026')
})

test('and so are those the screen writes', () => {
  expect(dayWords('2026-11-30')).toBe('30 November 2026')
  expect(spanWords('2026-11-23', '2026-11-29')).toBe('23 – 29 November 2026')
  readDates('month_first')
  expect(dayWords('2026-11-30')).toBe('November 30, 2026')
  expect(spanWords('2026-11-23', '2026-11-29')).toBe('November 23 – 29, 2026')
  expect(spanWords('2026-11-30', '2026-12-06')).toBe('November 30 – December 6, 2026')
  expect(momentWords('2026-11-30T14:05:00')).toBe('November 30, 2026, 14:05')
})

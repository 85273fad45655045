import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import type { Dose } from '../../../prescription/rows'
import { Efforts, reservesOf } from './Efforts'

const dose = (part: Partial<Dose>): Dose => ({
  sets: 3,
  reps_low: 8,
  reps_high: 12,
  reserve: 2,
  rest_s: 90,
  load: { find: true },
  ...part,
})

test('what is left set by set: alike, named, and the last one holding on', () => {
  expect(reservesOf(dose({}))).toEqual([2, 2, 2])
  expect(reservesOf(dose({ reserves: [3, 1] }))).toEqual([3, 1, 1])
  expect(reservesOf(dose({ sets: 0 }))).toEqual([2])
  expect(reservesOf(dose({ sets: 100000 })).length).toBeLessThan(20)
})

test('one set is changed, the others stay; what caps and safety forbid cannot be chosen', async () => {
  const set = vi.fn()
  render(<Efforts dose={dose({ reserves: [3, 2, 2] })} minReserve={1} canFail={false} set={set} />)
  await userEvent.selectOptions(screen.getByLabelText('Reps left after set 3'), '1')
  expect(set).toHaveBeenCalledWith({ reserves: [3, 2, 1] })
  expect(screen.getAllByRole<HTMLOptionElement>('option', { name: 'limit' }).every((o) => o.disabled)).toBe(true)
})

import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import type { DoseDraft, SlotDraft } from '../../../api/client'
import { Efforts, reservesOf } from './Efforts'
import { fitted } from './useDraft'

const dose = (part: Partial<DoseDraft>): DoseDraft => ({ sets: 3, reps_low: 8, reps_high: 12, reserve: 2, rest_s: 90, tempo: [], load_kg: null, ...part })

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

test('fewer sets let go of the grips and reserves of those that went', () => {
  const slot: SlotDraft = { id: 'a', movement: 'curl_neutral', settings: {}, cues: [], grips: [{ movement: 'a', settings: {} }, { movement: 'b', settings: {} }], dose: dose({ sets: 1, reserves: [3, 2, 1] }) }
  expect(fitted(slot).grips).toHaveLength(1)
  expect(fitted(slot).dose?.reserves).toEqual([3])
  expect(fitted({ ...slot, grips: undefined, dose: dose({}) }).dose?.reserves).toBeUndefined()
})

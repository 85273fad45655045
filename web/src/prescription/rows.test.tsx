import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import type { Row, SlotDraft, SlotView } from '../api/client'
import { Rows } from './Rows'
import { faultOf, restOf, rowsOf, withRest, withRow } from './session'

const row = (more: Partial<Row> = {}): Row => ({
  id: 'r1',
  sets: 3,
  reps_low: 8,
  reps_high: 12,
  reserve: 2,
  rest_s: 90,
  load: { kg: 14 },
  ...more,
})
const slot = (more: Partial<SlotDraft> = {}): SlotDraft => ({
  id: 's',
  movement: 'curl',
  settings: {},
  rows: [row()],
  cues: [],
  ...more,
})
const view = (rows: Row[], more: object = {}) =>
  ({
    ...slot({ rows }),
    row_words: rows.map((r) => ({
      id: r.id,
      done: `${r.sets} × ${r.reps_low}–${r.reps_high}`,
      load: '14 kg',
      set_up: '',
    })),
    methods: [{ id: 'drops', refused: '' }],
    ...more,
  }) as unknown as SlotView

test('a row is changed and the others stay; a new slot has the rows the server gives it', () => {
  const two = slot({ rows: [row(), row({ id: 'r2', sets: 1 })] })
  expect(withRow(two, undefined, 1, { sets: 2 }).rows.map((r) => r.sets)).toEqual([3, 2])
  const fresh = slot({ rows: [] })
  expect(rowsOf(fresh)).toEqual([])
  expect(withRow(fresh, view([row()]), 0, { reserve: 1 }).rows).toEqual([row({ reserve: 1 })])
})

test('the rest stands where the server says: in the combo, else in the row', () => {
  const s = { slots: [slot({ combo: 'c' })], combos: [{ id: 'c', between_s: 20, after_s: 120 }] }
  const inCombo = view([row()], { rest_in: { combo: 'c', field: 'between_s' } })
  expect(restOf(s, inCombo, row())).toBe(20)
  expect(withRest(s, 's', inCombo, 0, 45).combos[0]!.between_s).toBe(45)
  expect(restOf(s, view([row()]), row())).toBe(90)
  expect(withRest(s, 's', view([row()]), 0, 45).slots[0]!.rows[0]!.rest_s).toBe(45)
})

test('a fault is found at its row, or at any of its slot', () => {
  const faults = [{ field: 'rows[1].sets', reason: 'too many' }]
  expect(faultOf(faults, 'sets', 1)).toBe('too many')
  expect(faultOf(faults, 'sets', 0)).toBeUndefined()
  expect(faultOf(faults, 'sets')).toBe('too many')
  expect(faultOf(faults, 'set')).toBeUndefined()
})

test('commands go to the core: one key each, moved and taken out by keyboard', async () => {
  const arrange = vi.fn()
  const choose = vi.fn()
  const rows = [row(), row({ id: 'r2', sets: 1, reps_low: 15, reps_high: 20 })]
  render(<Rows view={view(rows)} at={0} choose={choose} arrange={arrange} faults={[]} />)
  await userEvent.keyboard('dbse')
  expect(arrange.mock.calls.map(([c]) => c as object)).toEqual([
    { do: 'last_method', slot: 's', method: 'drops' },
    { do: 'back_off', slot: 's' },
    { do: 'split', slot: 's', row: 0 },
    { do: 'each', slot: 's' },
  ])
  arrange.mockClear()
  screen.getByText('1 × 15–20').closest('button')!.focus()
  await userEvent.keyboard('{Alt>}{ArrowUp}{/Alt}{Delete}')
  expect(arrange.mock.calls.map(([c]) => c as object)).toEqual([
    { do: 'move', slot: 's', row: 1, by: -1 },
    { do: 'remove', slot: 's', row: 1 },
  ])
  await userEvent.keyboard('.')
  expect(choose).toHaveBeenLastCalledWith(1)
})

test('whoever writes plain sets sees no rows, and who may not plan no commands', () => {
  const { rerender } = render(<Rows view={view([row()])} at={0} choose={() => {}} arrange={vi.fn()} faults={[]} />)
  expect(screen.queryByRole('list')).toBeNull()
  expect(screen.getByText('last set drops')).toBeInTheDocument()
  rerender(
    <Rows
      view={view([row(), row({ id: 'x' })])}
      at={0}
      choose={() => {}}
      faults={[{ field: 'rows[1].sets', reason: 'too many' }]}
    />,
  )
  expect(screen.queryByText('last set drops')).toBeNull()
  expect(screen.getByRole('alert')).toHaveTextContent('too many')
})

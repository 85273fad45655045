import { fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import type { BoardSlot, Catalogue, WeekDraft } from '../../api/client'
import { CatalogueContext } from '../../app/me'
import { BoardSession } from './BoardSession'

const slot = (id: string, more: object = {}) => ({
  id,
  movement: `move_${id}`,
  settings: {},
  rows: [],
  cues: [],
  ...more,
})
const info = (id: string, fit: BoardSlot['fit']['fit'] = 'fits'): BoardSlot => ({
  id,
  title: `Title ${id}`,
  short: `Title ${id}`,
  details: '',
  dose_words: '3 × 8–12',
  load_words: '12 kg a hand',
  glyph: { slice: { text: `slice ${id}`, heads: [] } },
  fit: {
    fit,
    words: fit === 'too_light' ? 'Too light: the heaviest is 14 kg.' : 'Fits.',
    instead: fit === 'too_light' ? ['slower', 'to the limit'] : [],
  },
})

function show(draft: Partial<WeekDraft>, infos: BoardSlot[], mayPlan = true) {
  const calls = {
    change: vi.fn(),
    takeOut: vi.fn(),
    copy: vi.fn(),
    open: vi.fn(),
    grab: vi.fn(),
    sessionKey: vi.fn(),
    slotKey: vi.fn(),
  }
  const full: WeekDraft = {
    id: 's',
    version: 1,
    name: 'Gallery day',
    planned_on: '2026-11-27',
    warm_up_min: 5,
    slots: [],
    ...draft,
  }
  render(
    <CatalogueContext
      value={{ right: { outline: '', bone: { x: 0.5, y: 0.5 }, bone_r: 0.1, regions: [] } } as unknown as Catalogue}
    >
      <BoardSession
        draft={full}
        view={{ minutes: 38.6, warm_up: 7.4 } as never}
        slots={new Map(infos.map((i) => [i.id, i]))}
        held={undefined}
        mayPlan={mayPlan}
        {...calls}
      />
    </CatalogueContext>,
  )
  return { full, ...calls }
}

describe('a session on the board', () => {
  it('tells its time with the warm-up apart, its slots with their dose, and opens on a click', async () => {
    const { open } = show({ slots: [slot('a'), slot('b')] }, [info('a'), info('b')])
    expect(screen.getByText(/39 min, 7 of it warm-up/)).toBeInTheDocument()
    await userEvent.click(screen.getByText('Title b'))
    expect(open).toHaveBeenCalledWith('b')
    await userEvent.click(screen.getByText('Gallery day'))
    expect(open).toHaveBeenCalledWith()
  })

  it('says only of what does not fit that it does not, with what to do instead', () => {
    show({ slots: [slot('a'), slot('b')] }, [info('a', 'too_light'), info('b')])
    const misfits = screen.getAllByText(/here$/)
    expect(misfits).toHaveLength(1)
    expect(misfits[0]).toHaveTextContent('too light here')
    expect(misfits[0]).toHaveAttribute('title', 'Too light: the heaviest is 14 kg. Instead: slower; to the limit.')
  })

  it('locks a slot and itself, one at a time', async () => {
    const { change, full } = show({ slots: [slot('a'), slot('b', { locked: true })] }, [info('a'), info('b')])
    await userEvent.click(screen.getByRole('button', { name: 'Lock Title a' }))
    expect(change).toHaveBeenLastCalledWith({ ...full, slots: [{ ...full.slots[0], locked: true }, full.slots[1]] })
    expect(screen.getByRole('button', { name: 'Lock Title b' })).toHaveAttribute('aria-pressed', 'true')
    await userEvent.click(screen.getByRole('button', { name: 'Lock Title b' }))
    expect(change).toHaveBeenLastCalledWith({ ...full, slots: [full.slots[0], { ...full.slots[1], locked: false }] })
    await userEvent.click(screen.getByRole('button', { name: 'Lock Gallery day' }))
    expect(change).toHaveBeenLastCalledWith({ ...full, locked: true })
  })

  it('is copied and taken out, but not taken out while it is locked', async () => {
    const { takeOut, copy } = show({}, [])
    await userEvent.click(screen.getByRole('button', { name: 'Remove Gallery day' }))
    await userEvent.click(screen.getByRole('button', { name: 'Copy Gallery day to another day' }))
    expect([takeOut.mock.calls.length, copy.mock.calls.length]).toEqual([1, 1])
    expect(screen.getByText('No slots yet.')).toBeInTheDocument()
    show({ locked: true, name: 'Held day' }, [])
    expect(screen.queryByRole('button', { name: 'Remove Held day' })).toBeNull()
  })

  it('marks a combo, and passes keys and grips on', () => {
    const { slotKey, grab } = show({ slots: [slot('a', { combo: 'x' }), slot('b', { combo: 'x' }), slot('c')] }, [
      info('a'),
      info('b'),
      info('c'),
    ])
    const rows = document.querySelectorAll('[data-slot]')
    expect([...rows].map((r) => r.classList.contains('board_joined'))).toEqual([true, false, false])
    fireEvent.keyDown(screen.getByText('Title a').closest('button')!, { key: 'ArrowDown', altKey: true })
    expect(slotKey.mock.calls[0]![1]).toBe('a')
    fireEvent.pointerDown(rows[2]!.querySelector('.board_grip')!)
    expect(grab.mock.calls[0]![1]).toEqual({ kind: 'slot', id: 'c' })
  })

  it('sets which day is the heavy one, and is only read by who may not plan', async () => {
    const { change, full } = show({}, [])
    await userEvent.selectOptions(screen.getByLabelText('Intent of Gallery day'), 'heavy')
    expect(change).toHaveBeenCalledWith({ ...full, intent: 'heavy' })
    show({ name: 'Read day', intent: 'light', slots: [slot('a')] }, [info('a')], false)
    expect(screen.queryByLabelText('Intent of Read day')).toBeNull()
    expect(screen.getByText(/the light day/, { selector: '.board_facts' })).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: 'Lock Title a' })).toBeNull()
  })
})

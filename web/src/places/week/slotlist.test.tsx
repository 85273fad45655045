import { fireEvent, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'
import type { Catalogue, SlotDraft, SlotView } from '../../api/client'
import { CatalogueContext } from '../../app/me'
import { SlotList } from './SlotList'

const glyph = { slice: { text: 'slice', heads: [] } }
const draft = (id: string, more: Partial<SlotDraft> = {}): SlotDraft => ({
  id,
  movement: 'm',
  settings: {},
  rows: [],
  cues: [],
  ...more,
})
const view = (id: string, more: Partial<SlotView> = {}) =>
  ({
    id,
    title: `Title ${id}`,
    short: `Title ${id}`,
    details: '',
    dose_words: '3 × 8–12',
    load_words: '12 kg a hand',
    refused: '',
    glyph,
    grip_words: '',
    starts_words: '',
    between: '',
    ...more,
  }) as unknown as SlotView

function show(
  slots: SlotDraft[],
  views: SlotView[],
  more: { active?: string; mayPlan?: boolean; sessionLocked?: boolean; faulty?: number } = {},
) {
  const calls = { choose: vi.fn(), remove: vi.fn(), move: vi.fn(), join: vi.fn(), lock: vi.fn() }
  render(
    <CatalogueContext
      value={
        {
          right: { outline: '', bone: { x: 0.5, y: 0.5 }, bone_r: 0.1, regions: [] },
          movements: [{ id: 'm', name: 'A movement', glyph }],
        } as unknown as Catalogue
      }
    >
      <SlotList
        draft={slots}
        views={views}
        activeId={more.active ?? slots[0]!.id}
        mayPlan={more.mayPlan ?? true}
        faulty={(i) => i === more.faulty}
        sessionLocked={more.sessionLocked}
        {...calls}
      />
    </CatalogueContext>,
  )
  const face = (id: string) => screen.getByText(`Title ${id}`).closest('button')!
  return { ...calls, face }
}
const two = [draft('a'), draft('b')]
const views = [view('a'), view('b')]

describe('the slots of a session', () => {
  it('are chosen with a click, moved and taken out with keys', async () => {
    const { choose, move, remove, face } = show(two, views)
    await userEvent.click(face('b'))
    expect(choose).toHaveBeenCalledWith('b')
    fireEvent.keyDown(face('b'), { key: 'ArrowUp', altKey: true })
    expect(move).toHaveBeenCalledWith('b', -1)
    fireEvent.keyDown(face('a'), { key: 'ArrowDown' })
    expect(move).toHaveBeenCalledTimes(1)
    fireEvent.keyDown(face('a'), { key: 'Delete' })
    expect(remove).toHaveBeenCalledWith('a')
  })

  it('are joined, and say what there is to change between them', async () => {
    const { join } = show(two, views)
    await userEvent.click(screen.getByRole('button', { name: 'Join with the next' }))
    expect(join).toHaveBeenCalledWith('a')
    const other = show([draft('c'), draft('d')], [view('c', { between: 'the pulley, 20 s' }), view('d')])
    const button = screen.getAllByRole('button', { name: 'Join with the next' })[1]!
    expect(button).toHaveAttribute(
      'title',
      'Done in turns with the next slot; to change between them: the pulley, 20 s',
    )
    await userEvent.click(button)
    expect(other.join).toHaveBeenCalledWith('c')
  })

  it('can always be taken apart again', async () => {
    const { join } = show(
      [draft('a', { combo: 'x' }), draft('b', { combo: 'x' })],
      [view('a', { between: 'one is at the cable, the other is not' }), view('b')],
    )
    await userEvent.click(screen.getByRole('button', { name: 'Split from the next' }))
    expect(join).toHaveBeenCalledWith('a')
  })

  it('stand still while they are locked, by themselves or with the session', async () => {
    const { move, remove, lock, face } = show([draft('a', { locked: true }), draft('b')], views)
    fireEvent.keyDown(face('a'), { key: 'ArrowDown', altKey: true })
    fireEvent.keyDown(face('a'), { key: 'Delete' })
    expect(move).not.toHaveBeenCalled()
    expect(remove).not.toHaveBeenCalled()
    for (const name of ['Move down', 'Remove', 'Join with the next'])
      expect(screen.getByRole('button', { name })).toBeDisabled()
    await userEvent.click(screen.getByRole('button', { name: 'Lock Title a' }))
    expect(lock).toHaveBeenCalledWith('a', false)
    const whole = show([draft('c'), draft('d')], [view('c'), view('d')], { sessionLocked: true })
    fireEvent.keyDown(whole.face('d'), { key: 'Delete' })
    expect(whole.remove).not.toHaveBeenCalled()
    expect(screen.queryByRole('button', { name: 'Lock Title c' })).toBeNull()
  })

  it('tell a grip for each set and the arm that begins in few words', () => {
    show(
      [draft('a', { starts: 'left' })],
      [
        view('a', {
          grip_words: 'set 1: Palms-down curl; set 2: Standing curl',
          starts_words: 'left arm first, the right does no more',
        }),
      ],
    )
    expect(screen.getByText('a grip for each set, left arm first')).toHaveAttribute(
      'title',
      'set 1: Palms-down curl; set 2: Standing curl',
    )
  })

  it('mark what is wrong, and show what is not counted yet by its movement', () => {
    show([draft('a'), draft('b'), draft('new')], [view('a'), view('b', { refused: 'out of reach' })], { faulty: 0 })
    expect([...document.querySelectorAll('.builder_slot')].map((s) => s.classList.contains('builder_bad'))).toEqual([
      true,
      true,
      false,
    ])
    expect(screen.getByText('A movement')).toBeInTheDocument()
  })

  it('are only read by who may not plan', () => {
    const { remove, face } = show(two, views, { mayPlan: false })
    fireEvent.keyDown(face('a'), { key: 'Delete' })
    expect(remove).not.toHaveBeenCalled()
    expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull()
  })
})

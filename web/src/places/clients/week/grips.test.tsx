import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, type DoseDraft, type SlotDraft } from '../../../api/client'
import { Grips } from './Grips'

afterEach(() => vi.restoreAllMocks())

const ways = [
  { movement: 'curl_palms_down', settings: {}, words: 'Palms-down curl', part: 0.65, from_log: false },
  { movement: 'curl_neutral', settings: {}, words: 'Thumbs-up curl', part: 0.93, from_log: false },
  { movement: 'curl_plain', settings: {}, words: 'Standing curl', part: 1, from_log: false },
]
const plan = ways.map(({ movement, settings }) => ({ movement, settings }))
const proposal = (more: object) => ({ load: { source: 'find', load_kg: null, words: 'find it', guess: false }, fit: { fit: 'not_known', words: '', instead: [] }, cues: [], known: [], grips: ways, grip_plan: plan, starts: '', starts_why: '', takes_turns: false, ...more })

function show(slot: Partial<SlotDraft>, more: { sets?: number; proposal?: object; mayPlan?: boolean; fault?: string } = {}) {
  vi.spyOn(api, 'POST').mockImplementation((async () => ({ data: proposal(more.proposal ?? {}), response: new Response('{}') })) as never)
  const setSlot = vi.fn()
  const dose: DoseDraft = { sets: more.sets ?? 3, reps_low: 8, reps_high: 12, reserve: 2, rest_s: 90, tempo: [], load_kg: null }
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Grips client="c" slot={{ id: 's', movement: 'curl_plain', settings: {}, cues: [], ...slot }} dose={dose} mayPlan={more.mayPlan ?? true} fault={more.fault} setSlot={setSlot} />
    </QueryClientProvider>,
  )
  return setSlot
}

describe('a grip for each set', () => {
  it('is offered from weak to strong', async () => {
    const setSlot = show({})
    await userEvent.click(await screen.findByText('A grip for each set, from weak to strong'))
    expect(setSlot).toHaveBeenCalledWith({ grips: plan })
  })

  it('begins as it is where no plan is known', async () => {
    const setSlot = show({}, { sets: 2, proposal: { grip_plan: [] } })
    await userEvent.click(await screen.findByText(/A grip for each set/))
    expect(setSlot).toHaveBeenCalledWith({ grips: [{ movement: 'curl_plain', settings: {} }, { movement: 'curl_plain', settings: {} }] })
  })

  it('is changed set by set; the last one holds on for sets that came later', async () => {
    const setSlot = show({ grips: plan.slice(0, 2) }, { sets: 4 })
    const sets = await screen.findAllByRole('combobox')
    expect(sets).toHaveLength(4)
    await screen.findAllByText(/Palms-down curl, 0.65 of the strongest/)
    await userEvent.selectOptions(screen.getByLabelText('Set 2'), screen.getAllByRole('option', { name: /Standing curl/ })[1]!)
    expect(setSlot).toHaveBeenCalledWith({ grips: [plan[0], plan[2], plan[1], plan[1]] })
  })

  it('goes with one word', async () => {
    const setSlot = show({ grips: plan })
    await userEvent.click(await screen.findByText('One grip for all sets'))
    expect(setSlot).toHaveBeenCalledWith({ grips: undefined })
    expect(screen.getByText(/by the model and the usual hand factors/)).toBeInTheDocument()
  })

  it('is not offered for one set, one way, or to who may not plan', async () => {
    show({}, { sets: 1 })
    show({}, { proposal: { grips: ways.slice(0, 1) } })
    show({}, { mayPlan: false })
    await vi.waitFor(() => expect(api.POST).toHaveBeenCalled())
    expect(screen.queryByText(/A grip for each set/)).toBeNull()
  })

  it('tells what is wrong at its place', async () => {
    show({ grips: plan }, { fault: 'curl_reclined is not the same weight in another grip' })
    expect(await screen.findByRole('alert')).toHaveTextContent('not the same weight')
  })
})

describe('the arm that begins', () => {
  const gap = { takes_turns: true, starts: 'left', starts_why: 'The right is 1.1 cm bigger. That is real.' }
  it('is proposed where a tape shows a real gap, with its reason', async () => {
    const setSlot = show({}, { proposal: gap })
    expect(await screen.findByText(/1.1 cm bigger/)).toBeInTheDocument()
    await userEvent.click(screen.getByText('The left begins'))
    expect(setSlot).toHaveBeenCalledWith({ starts: 'left' })
  })
  it('may be chosen otherwise, and is not asked where both work together', async () => {
    const setSlot = show({ starts: 'left' }, { proposal: gap })
    await userEvent.selectOptions(await screen.findByLabelText('Begins:'), 'right arm')
    expect(setSlot).toHaveBeenCalledWith({ starts: 'right' })
    expect(screen.queryByText('The left begins')).toBeNull()
  })
})

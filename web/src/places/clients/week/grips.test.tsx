import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, type SlotDraft } from '../../../api/client'
import type { Dose, Hand } from '../../../prescription/rows'
import { Grips } from './Grips'

afterEach(() => vi.restoreAllMocks())

const ways = [
  { movement: 'curl_palms_down', words: 'Palms-down curl', part: 0.65, from_log: false },
  { movement: 'curl_neutral', words: 'Thumbs-up curl', part: 0.93, from_log: false },
  { words: 'Standing curl', part: 1, from_log: false },
]
const plan: Hand[] = ways.map(({ movement }) => (movement ? { movement } : {}))
const proposal = (more: object) => ({
  load: { source: 'find', load: null, words: 'find it', guess: false },
  fit: { fit: 'not_known', words: '', instead: [] },
  cues: [],
  known: [],
  grips: ways,
  grip_plan: plan,
  starts: '',
  starts_why: '',
  takes_turns: false,
  ...more,
})

function show(
  slot: Partial<SlotDraft> & { hands?: Hand[] },
  more: { sets?: number; proposal?: object; mayPlan?: boolean; fault?: string } = {},
) {
  vi.spyOn(api, 'POST').mockImplementation((async () => ({
    data: proposal(more.proposal ?? {}),
    response: new Response('{}'),
  })) as never)
  const setSlot = vi.fn()
  const setDose = (_: string, d: Dose) => setSlot({ hands: d.hands })
  const { hands, ...rest } = slot
  const dose: Dose = {
    sets: more.sets ?? 3,
    reps_low: 8,
    reps_high: 12,
    reserve: 2,
    rest_s: 90,
    load: { find: true },
    hands,
  }
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Grips
        client="c"
        slot={{ id: 's', movement: 'curl_plain', settings: {}, rows: [], cues: [], ...rest }}
        dose={dose}
        mayPlan={more.mayPlan ?? true}
        fault={more.fault}
        setSlot={setSlot}
        setDose={setDose}
      />
    </QueryClientProvider>,
  )
  return setSlot
}

describe('a grip for each set', () => {
  it('is offered from weak to strong', async () => {
    const setSlot = show({})
    await userEvent.click(await screen.findByText('A grip for each set, from weak to strong'))
    expect(setSlot).toHaveBeenCalledWith({ hands: plan })
  })

  it('begins as it is where no plan is known', async () => {
    const setSlot = show({}, { sets: 2, proposal: { grip_plan: [] } })
    await userEvent.click(await screen.findByText(/A grip for each set/))
    expect(setSlot).not.toHaveBeenCalled()
    await userEvent.selectOptions(
      screen.getByLabelText('Set 1'),
      screen.getAllByRole('option', { name: /Palms-down curl/ })[0]!,
    )
    expect(setSlot).toHaveBeenCalledWith({ hands: [plan[0], {}] })
  })

  it('is changed set by set; the last one holds on for sets that came later', async () => {
    const setSlot = show({ hands: plan.slice(0, 2) }, { sets: 4 })
    const sets = await screen.findAllByRole('combobox')
    expect(sets).toHaveLength(4)
    await screen.findAllByText(/Palms-down curl, 0.65 of the strongest/)
    await userEvent.selectOptions(
      screen.getByLabelText('Set 2'),
      screen.getAllByRole('option', { name: /Standing curl/ })[1]!,
    )
    expect(setSlot).toHaveBeenCalledWith({ hands: [plan[0], plan[2], plan[1], plan[1]] })
  })

  it('goes with one word', async () => {
    const setSlot = show({ hands: plan })
    await userEvent.click(await screen.findByText('One grip for all sets'))
    expect(setSlot).toHaveBeenCalledWith({ hands: undefined })
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
    show({ hands: plan }, { fault: 'curl_reclined is not the same weight in another grip' })
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

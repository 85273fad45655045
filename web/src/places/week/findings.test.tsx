import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, type AuditView, type Catalogue, type LedgerHead, type LedgerView } from '../../api/client'
import { CatalogueContext } from '../../app/me'
import { Audit } from './Audit'
import { Ledger } from './Ledger'

afterEach(() => vi.restoreAllMocks())

const answer = (status: number, body: unknown) => {
  const response = new Response(status === 204 ? null : JSON.stringify(body), { status })
  return response.ok ? { data: body, response } : { error: body, response }
}

const none = null as unknown as string // the schema has no null for an id that may be missing

const finding = (more: Partial<AuditView>): AuditView => ({
  key: 'k',
  code: 'under',
  severity: 'warn',
  text: 'The week gives too little.',
  why: 'Targets follow the emphasis.',
  session: none,
  slot: none,
  held: false,
  ways: [],
  ...more,
})

describe('findings', () => {
  const show = (findings: AuditView[], mayPlan = true) => {
    const calls = { fix: vi.fn(), show: vi.fn(), changed: vi.fn() }
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Audit client="c" findings={findings} mayPlan={mayPlan} {...calls} />
      </QueryClientProvider>,
    )
    return calls
  }

  it('count every card by what it asks for', () => {
    show([finding({ key: 'a' }), finding({ key: 'b', severity: 'note', text: 'Worth knowing.' })])
    expect(screen.getByRole('heading', { name: '1 to mend, 1 worth knowing' })).toBeInTheDocument()
    expect(screen.getByText(/Worth knowing/)).toBeInTheDocument()
  })

  it('offer one action, its reason on demand, and the slot they are of', async () => {
    const f = finding({ slot: 's1', session: 's', fix: { words: 'Add 3 sets', sessions: [] } })
    const calls = show([f])
    await userEvent.click(screen.getByText('Add 3 sets'))
    expect(calls.fix).toHaveBeenCalledWith(f)
    expect(screen.queryByText(/Targets follow/)).toBeNull()
    await userEvent.click(screen.getByText('why?'))
    expect(screen.getByText(/Targets follow/)).toBeInTheDocument()
    await userEvent.click(screen.getByText('Show it'))
    expect(calls.show).toHaveBeenCalledWith(f)
  })

  it('say when what would clear them is locked', () => {
    show([finding({ held: true })])
    expect(screen.getByText(/is locked/)).toBeInTheDocument()
  })

  it('are let stand only with a reason, which is kept and shown, and taken back', async () => {
    const post = vi.spyOn(api, 'POST').mockImplementation((async () => answer(204, undefined)) as never)
    const calls = show([
      finding({}),
      finding({
        key: 'old',
        text: 'Accepted before.',
        accepted: { reason: 'on stage twice', by: 'Wren', at: '2026-11-25T10:00:00Z' },
      }),
    ])
    expect(screen.getByText(/Wren let it stand: on stage twice/)).toBeInTheDocument()
    await userEvent.click(screen.getByText('Let it stand'))
    const keep = screen.getByRole('button', { name: 'Save the reason' })
    expect(keep).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Why it may stand'), '  ')
    expect(keep).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Why it may stand'), 'one week only{Enter}')
    await waitFor(() => expect(calls.changed).toHaveBeenCalledOnce())
    expect(post.mock.calls[0]![1]).toMatchObject({ body: { key: 'k', accepted: true, reason: '  one week only' } })
    await userEvent.click(screen.getByText('No longer'))
    expect(post.mock.calls[1]![1]).toMatchObject({ body: { key: 'old', accepted: false } })
  })

  it('keep the reason that was typed when it could not be kept', async () => {
    vi.spyOn(api, 'POST').mockImplementation((async () => answer(503, { detail: 'The database is away.' })) as never)
    const calls = show([finding({})])
    await userEvent.click(screen.getByText('Let it stand'))
    await userEvent.type(screen.getByLabelText('Why it may stand'), 'a reason{Enter}')
    expect(await screen.findByText('The database is away.')).toBeInTheDocument()
    expect(screen.getByLabelText('Why it may stand')).toHaveValue('a reason')
    expect(calls.changed).not.toHaveBeenCalled()
  })

  it('are only read by who may not plan', () => {
    show([finding({ fix: { words: 'Add 3 sets', sessions: [] } })], false)
    expect(screen.queryByText('Add 3 sets')).toBeNull()
    expect(screen.queryByText('Let it stand')).toBeNull()
  })

  it('say that nothing is wrong', () => {
    show([])
    expect(screen.getByRole('heading', { name: 'No findings' })).toBeInTheDocument()
  })
})

describe('the ledger', () => {
  const head = (more: Partial<LedgerHead>): LedgerHead => ({
    id: 'biceps_long',
    code: 'BL',
    name: 'biceps, long head',
    direct: 3.3,
    elsewhere: 1.6,
    total: 4.9,
    low: 4,
    high: 6,
    target_low: 8,
    target_high: 12,
    level: 'build',
    short: true,
    band: 'build: 8–12 effective sets a week',
    sum: '',
    lengths: [
      { name: 'short', sets: 0.4, covered: false },
      { name: 'middle', sets: 1.1, covered: false },
      { name: 'long', sets: 3.4, covered: true },
    ],
    terms: [
      {
        session: 's',
        slot: 's1',
        words: 'Reclined curl: 3 sets × 1.10',
        value: 3.3,
        rules: [{ rule: 'r_behind', words: '×1.05 arm behind the body (grade C)' }],
      },
      { session: none, slot: none, words: 'pulling elsewhere: 4 sets × 0.40', value: 1.6, rules: [] },
    ],
    ...more,
  })
  const ledger: LedgerView = {
    heads: [
      head({}),
      head({
        id: 'triceps_long',
        code: 'TL',
        name: 'triceps, long head',
        total: 9,
        direct: 9,
        short: false,
        elsewhere: 0,
        terms: [],
      }),
    ],
    slice: { text: 'Effective sets of the week', heads: [] },
    hard_sets_flexors: 26,
    hard_sets_extensors: 8,
    most_group_sets: 24,
    hard_why: 'Hard sets, with at most 3 left. Bending: Reclined curl 26. Straightening: Push-down 8.',
    over_groups: ['flexors'],
    failure_sets: 1,
    minutes: 68,
    warm_up: 14,
    spent: '68 min: 14 general warm-up, 20 in sets, 34 rests',
    joints: [
      { name: 'wrist', load: 10, most: 45, over: false, terms: [] },
      {
        name: 'back of the elbow',
        load: 30,
        most: 25,
        over: true,
        terms: [{ session: 's', slot: 's2', words: 'Push-down: 6 hard × score 5', value: 30, rules: [] }],
      },
    ],
  }
  const show = () => {
    const calls = { ask: vi.fn(), show: vi.fn() }
    const catalogue = {
      right: { outline: '', bone: { x: 0.5, y: 0.5 }, bone_r: 0.1, regions: [] },
    } as unknown as Catalogue
    render(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <CatalogueContext value={catalogue}>
            <Ledger ledger={ledger} stance="Balanced" {...calls} />
          </CatalogueContext>
        </MemoryRouter>
      </QueryClientProvider>,
    )
    return calls
  }

  it('reads each head against its target, with lengths and whiskers in words', () => {
    show()
    const line = screen.getByRole('button', {
      name: /^BL 4.9 8–12 effective sets: biceps, long head, build; 1.6 of them elsewhere; 4.0 to 6.0 over all stances; short 0.4, middle 1.1, long 3.4/,
    })
    expect(line).toHaveClass('ledger_short')
    expect(screen.getByRole('button', { name: /triceps, long head/ })).not.toHaveClass('ledger_short')
  })

  it('marks what is over, and names the joint nearest its budget', () => {
    show()
    expect(screen.getByText('26')).toHaveClass('warn')
    expect(screen.getByText('8')).not.toHaveClass('warn')
    expect(screen.getByText(/the joint nearest its budget/)).toHaveTextContent('back of the elbow 30 of 25')
    expect(screen.getByText(/of it warm-up/)).toHaveTextContent('68 min, 14 of it warm-up')
  })

  it('says what the minutes are made of, and a joint’s load by slot', async () => {
    const calls = show()
    await userEvent.click(screen.getByText('why?'))
    expect(screen.getByText(/14 general warm-up, 20 in sets/)).toBeInTheDocument()
    await userEvent.click(screen.getByText('joints by slot'))
    await userEvent.click(screen.getByText('Push-down: 6 hard × score 5'))
    expect(calls.show).toHaveBeenCalledWith('s', 's2')
  })

  it('says what a number adds up from, with the rules, and leads to the slot', async () => {
    const calls = show()
    expect(screen.queryByText(/Reclined curl/)).toBeNull()
    await userEvent.click(screen.getByRole('button', { name: /biceps, long head/ }))
    expect(screen.getByRole('link', { name: /×1.05 arm behind the body/ })).toHaveAttribute(
      'href',
      '/stances?rule=r_behind',
    )
    expect(screen.getByText(/Target: build: 8–12/)).toBeInTheDocument()
    expect(screen.getByText('pulling elsewhere: 4 sets × 0.40').tagName).toBe('SPAN')
    await userEvent.click(screen.getByRole('button', { name: /Reclined curl/ }))
    expect(calls.show).toHaveBeenCalledWith('s', 's1')
    await userEvent.click(screen.getByRole('button', { name: /triceps, long head/ }))
    expect(screen.queryByText(/Reclined curl/)).toBeNull()
    expect(screen.getByText(/Nothing in this week trains it/)).toBeInTheDocument()
  })
})

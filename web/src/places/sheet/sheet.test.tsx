import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Catalogue, api, type SessionView, type SheetView } from '../../api/client'
import { CatalogueContext } from '../../app/me'
import { Compare } from './Compare'
import { Editing } from './Editing'
import { Inline, NumberBox } from './Inline'

beforeEach(() => localStorage.clear())
afterEach(() => vi.restoreAllMocks())

const answer = (status: number, body: unknown) => {
  const response = new Response(JSON.stringify(body), { status })
  return response.ok ? { data: body, response } : { error: body, response }
}

describe('text that is changed where it stands', () => {
  const show = (fault?: string) => {
    const set = vi.fn()
    render(
      <>
        <Inline label="the rest" fault={fault} editor={() => <NumberBox focus label="Rest" value={90} set={set} />}>
          rest 90 s
        </Inline>
        <button type="button">elsewhere</button>
      </>,
    )
    return set
  }
  it('opens on a click with the field in hand, and closes with Enter, Escape or by leaving', async () => {
    show()
    for (const leave of ['{Enter}', '{Escape}', null]) {
      await userEvent.click(screen.getByRole('button', { name: /, change the rest$/ }))
      expect(screen.getByLabelText('Rest')).toHaveFocus()
      if (leave) await userEvent.keyboard(leave)
      else await userEvent.click(screen.getByText('elsewhere'))
      expect(screen.queryByLabelText('Rest')).toBeNull()
    }
  })
  it('takes numbers with either decimal sign, and nothing else', async () => {
    const set = show()
    await userEvent.click(screen.getByRole('button', { name: /, change the rest$/ }))
    const box = screen.getByLabelText('Rest')
    await userEvent.clear(box)
    expect(set).not.toHaveBeenCalled()
    expect(box).toHaveAttribute('aria-invalid', 'true')
    await userEvent.type(box, '7,5')
    expect(set).toHaveBeenLastCalledWith(7.5)
    set.mockClear()
    await userEvent.clear(box)
    await userEvent.type(box, 'soon')
    expect(set).not.toHaveBeenCalled()
    expect(box).toHaveValue('soon')
  })
  it('tells what is wrong right there, open or not', () => {
    show('99 is outside 1…12')
    expect(screen.getByRole('alert')).toHaveTextContent('99 is outside')
  })
})

describe('a sheet that is edited as it is read', () => {
  const row = { id: 'r', sets: 3, reps_low: 8, reps_high: 12, reserve: 2, rest_s: 90, load: { kg: 10 } }
  const session = (more: object = {}) =>
    ({
      id: 's',
      version: 1,
      name: 'Gallery day',
      planned_on: '2026-11-27',
      warm_up_min: 5,
      saved_at: '2026-11-25T10:00:00Z',
      saved_by: 'Wren',
      slots: [
        {
          id: 'a',
          movement: 'curl_plain',
          settings: {},
          rows: [row],
          cues: ['Elbows stay'],
          steps: [
            { load: { kg: 10 }, words: '10 kg a hand' },
            { load: { kg: 12 }, words: '12 kg a hand' },
          ],
          later: [],
          reserves: [0, 1, 2, 3].map((value) => ({
            value,
            words: value === 0 ? 'to the limit' : String(value),
            refused: value < 1 ? 'at least 1' : '',
          })),
        },
      ],
      ...more,
    }) as unknown as SessionView
  let puts: { slots: { rows: (typeof row)[]; cues: string[] }[]; name: string; warm_up_min: number }[]

  /** The sheet as a server would read it: numbers come from what was sent, never from the screen. */
  const read = (d: { slots: { rows: (typeof row)[]; cues: string[] }[]; name: string; warm_up_min: number }) =>
    ({
      session: d.name,
      warm_up: `${d.warm_up_min} min easy warm-up`,
      slots: d.slots.map((s) => ({
        sets: `${s.rows[0]!.sets} × ${s.rows[0]!.reps_low}–${s.rows[0]!.reps_high}`,
        load: `${s.rows[0]!.load.kg} kg a hand`,
        effort: `${s.rows[0]!.reserve} left`,
        rest: `rest ${s.rows[0]!.rest_s} s`,
        tempo: 'controlled',
        cues: s.cues,
      })),
    }) as unknown as SheetView

  beforeEach(() => {
    puts = []
    vi.spyOn(api, 'POST').mockImplementation((async (path: string, init: { body: Parameters<typeof read>[0] }) => {
      if (path.endsWith('/preview')) {
        const over = init.body.slots.findIndex((s) => s.rows[0]!.sets > 12)
        return answer(200, {
          session: session(),
          faults:
            over < 0
              ? []
              : [
                  {
                    field: `slots[${over}].rows[0].sets`,
                    reason: `${init.body.slots[over]!.rows[0]!.sets} is outside 1…12`,
                  },
                ],
        })
      }
      return answer(200, read(init.body))
    }) as never)
    vi.spyOn(api, 'PUT').mockImplementation((async (_p: string, init: { body: (typeof puts)[number] }) => {
      puts.push(structuredClone(init.body))
      return answer(200, session({ version: 1 + puts.length, ...init.body }))
    }) as never)
  })

  const show = (s = session()) => {
    render(
      <MemoryRouter>
        <QueryClientProvider client={new QueryClient()}>
          <CatalogueContext value={{ limits: { cues: 3, cue: 60, word: 60, name: 60, rows: 8 } } as Catalogue}>
            <Editing client="c" session={s}>
              {(sheet, parts, saved) =>
                sheet ? (
                  <main aria-label="sheet" data-saved={saved}>
                    {parts.session(sheet.session)} {parts.warmUp(sheet.warm_up)} {parts.sets(0, sheet.slots[0]!.sets)}{' '}
                    {parts.load(0, sheet.slots[0]!.load)} {parts.effort(0, sheet.slots[0]!.effort)}{' '}
                    {parts.rest(0, sheet.slots[0]!.rest)} {parts.tempo(0, sheet.slots[0]!.tempo)}{' '}
                    {parts.cues(0, sheet.slots[0]!.cues)}
                  </main>
                ) : (
                  <p>reading</p>
                )
              }
            </Editing>
          </CatalogueContext>
        </QueryClientProvider>
      </MemoryRouter>,
    )
    return screen.findByRole('main')
  }

  it('reads at once what was changed, saves it, and is saved only then', async () => {
    const sheet = await show()
    expect(sheet).toHaveTextContent('3 × 8–12')
    await userEvent.click(within(sheet).getByRole('button', { name: /, change sets and reps of slot 1$/ }))
    await userEvent.clear(screen.getByLabelText('Sets'))
    await userEvent.type(screen.getByLabelText('Sets'), '4{Enter}')
    await waitFor(() => expect(sheet).toHaveTextContent('4 × 8–12'))
    expect(sheet).toHaveAttribute('data-saved', 'false')
    await waitFor(() => expect(sheet).toHaveAttribute('data-saved', 'true'), { timeout: 3000 })
    expect(puts).toHaveLength(1)
    expect(puts[0]!.slots[0]!.rows[0]!.sets).toBe(4)
    await userEvent.click(screen.getByRole('button', { name: 'Undo' }))
    await waitFor(() => expect(sheet).toHaveTextContent('3 × 8–12'))
  })

  it('tells a fault at its place and keeps what was typed', async () => {
    const sheet = await show()
    await userEvent.click(within(sheet).getByRole('button', { name: /, change sets and reps of slot 1$/ }))
    await userEvent.clear(screen.getByLabelText('Sets'))
    await userEvent.type(screen.getByLabelText('Sets'), '99')
    expect(await within(sheet).findByRole('alert')).toHaveTextContent('99 is outside 1…12')
    expect(screen.getByLabelText('Sets')).toHaveValue('99')
  })

  it('takes loads only from the room’s steps, and effort only as the caps allow', async () => {
    const sheet = await show()
    await userEvent.click(within(sheet).getByRole('button', { name: /, change the load of slot 1$/ }))
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['find it', '10 kg a hand', '12 kg a hand'])
    await userEvent.selectOptions(screen.getByLabelText('Load'), '12 kg a hand')
    await waitFor(() => expect(sheet).toHaveTextContent('12 kg a hand'))
    await userEvent.click(within(sheet).getByRole('button', { name: /, change the effort of slot 1$/ }))
    expect(screen.getByRole<HTMLOptionElement>('option', { name: 'to the limit' }).disabled).toBe(true)
    await userEvent.selectOptions(screen.getByLabelText('Reps left in reserve'), '3 left')
    await waitFor(() => expect(sheet).toHaveTextContent('3 left'))
  })

  it('adds, changes and drops cues, at most three', async () => {
    const sheet = await show()
    const add = () => screen.queryByLabelText('Another cue for slot 1')
    await userEvent.type(add()!, 'Push the floor{Enter}')
    await userEvent.type(add()!, 'Breathe out{Enter}')
    await waitFor(() => expect(add()).toBeNull())
    await userEvent.click(within(sheet).getByRole('button', { name: /, change cue 1 of slot 1$/ }))
    await userEvent.clear(screen.getByLabelText('Cue'))
    await userEvent.keyboard('{Enter}')
    await waitFor(() => expect(sheet).not.toHaveTextContent('Elbows stay'))
    expect(sheet).toHaveTextContent('Push the floor')
    expect(add()).not.toBeNull()
  })

  it('is only read while it is locked, and says where to unlock it', async () => {
    const sheet = await show(session({ locked: true }))
    expect(within(sheet).queryAllByRole('button')).toHaveLength(0)
    expect(screen.getByText(/This session is locked/)).toBeInTheDocument()
  })
})

describe('two sheets', () => {
  it('are compared, with the one before at first, and with any other', async () => {
    const asked: unknown[] = []
    vi.spyOn(api, 'GET').mockImplementation((async (
      _p: string,
      init: { params: { query: { was: number; is: number } } },
    ) => {
      asked.push(init.params.query)
      return answer(200, {
        changes:
          init.params.query.was === 0 ? [] : [`Curl: sets ${init.params.query.is}, before ${init.params.query.was}.`],
      })
    }) as never)
    render(
      <QueryClientProvider client={new QueryClient()}>
        <Compare client="c" session="s" is={3} count={3} />
      </QueryClientProvider>,
    )
    expect(await screen.findByText(/sets 3, before 2/)).toBeInTheDocument()
    expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual([
      'what is planned now',
      'sheet 1',
      'sheet 2',
    ])
    await userEvent.selectOptions(screen.getByRole('combobox'), 'sheet 1')
    expect(await screen.findByText(/sets 3, before 1/)).toBeInTheDocument()
    await userEvent.selectOptions(screen.getByRole('combobox'), 'what is planned now')
    expect(await screen.findByText(/the same/)).toBeInTheDocument()
    expect(asked).toEqual([
      { was: 2, is: 3 },
      { was: 1, is: 3 },
      { was: 0, is: 3 },
    ])
  })
})

import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { readKept } from '../../app/kept'
import { api, Problem } from '../../api/client'
import { SavingContext, savingFor } from '../../saving/useDoc'
import { Fill } from './Fill'
import { Blank, number, trimmed } from '../../ui/Blank'
import { useDossier } from './useDossier'

describe('a blank in a sentence', () => {
  it('saves with Enter, takes back with Escape, keeps what cannot be read', async () => {
    const saved: unknown[] = []
    render(<Blank label="Mass" shown="70" read={number()} save={(v) => saved.push(v)} />)
    const input = screen.getByLabelText('Mass')
    await userEvent.clear(input)
    await userEvent.type(input, '72,5{Enter}')
    expect(saved).toEqual([72.5])
    await userEvent.clear(input)
    await userEvent.type(input, 'much{Enter}')
    expect(screen.getByText('“much” is no number')).toBeInTheDocument()
    expect(input).toHaveValue('much')
    await userEvent.type(input, '{Escape}')
    expect(input).toHaveValue('70')
    expect(saved).toHaveLength(1)
  })
})

const client = 'c1'
const dossier = { minutes: 45, name: 'Odile' }
const view = (more: object) => ({ dossier: { ...dossier, ...more } })

interface Answer {
  status: number
  body: unknown
}

function Page() {
  const edit = useDossier(client)
  if (!edit.query.data) return null
  return <Fill edit={edit} field="minutes" label="Minutes" read={(t) => Number(trimmed(t))} />
}

/** serve answers a reading with the view, and changes with what is queued; away when nothing is. */
function serve(patches: (Answer | 'away')[]) {
  const sent: unknown[] = []
  const answer = (a: Answer) => {
    const response = new Response(JSON.stringify(a.body), { status: a.status })
    return response.ok ? { data: a.body, response } : { error: a.body, response }
  }
  vi.spyOn(api, 'GET').mockImplementation((async () => answer({ status: 200, body: view({}) })) as never)
  vi.spyOn(api, 'PATCH').mockImplementation((async (_path: string, init: { body: unknown }) => {
    sent.push(init.body)
    const next = patches.shift() ?? 'away'
    if (next === 'away') throw new Problem(0, 'no network')
    return answer(next)
  }) as never)
  return sent
}

function open() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const saving = savingFor(queries)
  saving.outbox.begin('')
  return render(
    <QueryClientProvider client={queries}>
      <SavingContext value={saving}>
        <Page />
      </SavingContext>
    </QueryClientProvider>,
  )
}

async function type(text: string) {
  const input = await screen.findByLabelText('Minutes')
  await userEvent.clear(input)
  await userEvent.type(input, `${text}{Enter}`)
  return input
}

describe('a dossier that is edited in place', () => {
  beforeEach(() => localStorage.clear())
  afterEach(() => vi.restoreAllMocks())

  it('sends what it was and what it shall be, and shows a refusal with what was typed', async () => {
    const sent = serve([
      {
        status: 422,
        body: { detail: 'x', errors: [{ location: 'body.minutes', message: '5 is outside 10…240 minutes' }] },
      },
    ])
    const { unmount } = open()
    const input = await type('5')
    await screen.findByText('5 is outside 10…240 minutes')
    expect(input).toHaveValue('5')
    expect(sent).toEqual([{ changes: [{ field: 'minutes', was: 45, value: 5 }] }])
    await type('45') // as it was: nothing is left to save
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull())
    unmount()
  })

  it('shows what somebody else wrote and writes over it only when told to', async () => {
    const clash = { status: 409, body: { detail: 'x', clashes: [{ field: 'minutes', now: 60, by: 'Wren', at: null }] } }
    const sent = serve([clash, { status: 200, body: view({ minutes: 50 }) }])
    const { unmount } = open()
    await type('50')
    await screen.findByText(/Wren wrote “60” meanwhile; you wrote “50”/)
    await userEvent.click(screen.getByText('Keep mine'))
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull())
    expect(sent[1]).toEqual({ changes: [{ field: 'minutes', was: 60, value: 50 }] })
    unmount()
  })

  it('keeps what is typed while the network is gone, over a reload too', async () => {
    serve(['away'])
    const { unmount } = open()
    await type('90')
    await screen.findByText(/Not saved yet/)
    expect(JSON.stringify(readKept(localStorage, `doc field/${client}/minutes`))).toContain('90')
    unmount()
    open()
    expect(await screen.findByLabelText('Minutes')).toHaveValue('90')
  })
})

import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type ImportView, type WeekDraft } from '../../api/client'
import { Files } from './Files'

const json = (status: number, body: unknown) => new Response(JSON.stringify(body), { status })
const answer = (status: number, body: unknown) => {
  const response = json(status, body)
  return response.ok ? { data: body, response } : { error: body, response }
}
const read: ImportView = {
  sessions: [{ id: 'a', version: 0, name: 'From the file', planned_on: '2026-11-25', warm_up_min: 5, slots: [] }],
  changes: ['New: From the file on 2026-11-25, 1 slots.'],
  unknown: ['mood'],
  questions: [],
  same: 0,
  problems: [{ where: 'row 3, movement', reason: 'there is no movement "curl_of_the_moon"' }],
}

let templates: { id: string; name: string; holds: string }[]
beforeEach(() => {
  templates = []
  vi.spyOn(api, 'GET').mockImplementation((async () => answer(200, { templates })) as never)
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

function show(mayPlan = true) {
  const change = vi.fn<(sessions: WeekDraft[]) => void>()
  const go = vi.fn()
  const { container } = render(
    <QueryClientProvider client={new QueryClient()}>
      <Files client="c" from="2026-11-23" mayPlan={mayPlan} change={change} go={go} />
    </QueryClientProvider>,
  )
  const bring = (name: string) =>
    userEvent.upload(container.querySelector<HTMLInputElement>('input[type=file]')!, new File(['x'], name), {
      applyAccept: false,
    })
  return { change, go, bring }
}

describe('a week as a file', () => {
  it('leaves in every format, dated from its Monday', () => {
    show()
    const links = screen.getAllByRole('link')
    expect(links.map((a) => a.getAttribute('href'))).toEqual(
      ['xlsx', 'csv', 'json', 'ics'].map((f) => `/api/clients/c/plan?format=${f}&from=2026-11-23`),
    )
  })

  it('is refused by its kind before anything is sent', async () => {
    const fetched = vi.fn()
    vi.stubGlobal('fetch', fetched)
    const { bring } = show()
    await bring('week.docx')
    expect(screen.getByRole('alert')).toHaveTextContent('Only .xlsx, .csv and .json files are read.')
    expect(fetched).not.toHaveBeenCalled()
  })

  it('tells what it would change and what it does not understand, and keeps nothing until it is wanted', async () => {
    const fetched = vi.fn(async (...args: [string, RequestInit]) => args && json(200, read))
    vi.stubGlobal('fetch', fetched)
    const { change, bring } = show()
    await bring('Week.CSV')
    expect(await screen.findByText('New: From the file on 2026-11-25, 1 slots.')).toBeInTheDocument()
    expect(fetched.mock.calls[0]![0]).toContain('format=csv')
    expect(screen.getByText(/curl_of_the_moon/)).toHaveTextContent('row 3, movement')
    expect(screen.getByText(/Columns nobody knows here: mood/)).toBeInTheDocument()
    expect(change).not.toHaveBeenCalled()
    await userEvent.click(screen.getByRole('button', { name: 'Change it so' }))
    expect(change).toHaveBeenCalledExactlyOnceWith(read.sessions)
    expect(screen.queryByText(/would change/)).toBeNull()
  })

  it('changes only the week on the board; what lies in another one waits until that is gone to', async () => {
    const later = { ...read.sessions[0]!, id: 'b', planned_on: '2026-12-02' }
    vi.stubGlobal('fetch', async () => json(200, { ...read, sessions: [...read.sessions, later] }))
    const { change, go, bring } = show()
    await bring('week.json')
    await userEvent.click(await screen.findByRole('button', { name: 'Change it so' }))
    expect(change).toHaveBeenCalledExactlyOnceWith(read.sessions)
    await userEvent.click(screen.getByRole('button', { name: 'Go to that week' }))
    expect(go).toHaveBeenCalledExactlyOnceWith('2026-11-30')
    await userEvent.click(screen.getByRole('button', { name: 'Leave it' }))
    expect(screen.queryByText(/would change/)).toBeNull()
    expect(change).toHaveBeenCalledOnce()
  })

  it('asks which load holds where two disagree, and reads the file again with the answer', async () => {
    const asked = {
      ...read,
      sessions: [],
      changes: [],
      questions: [{ where: 'row 2', reason: '7 kg in one hand is 14 kg as marked, the file says 20 kg' }],
    }
    const fetched = vi.fn(async (url: string) => json(200, url.includes('load=marked') ? read : asked))
    vi.stubGlobal('fetch', fetched)
    const { bring } = show()
    await bring('week.csv')
    expect(await screen.findByText(/14 kg as marked/)).toHaveTextContent('row 2')
    expect(screen.queryByRole('button', { name: 'Change it so' })).toBeNull()
    await userEvent.click(screen.getByRole('button', { name: 'The load as marked holds' }))
    expect(await screen.findByRole('button', { name: 'Change it so' })).toBeInTheDocument()
  })

  it('says when it changes nothing, is too big, or the server is away', async () => {
    vi.stubGlobal('fetch', async () =>
      json(200, { sessions: [], changes: [], unknown: [], problems: [], questions: [], same: 2 }),
    )
    const { bring } = show()
    await bring('same.csv')
    expect(await screen.findByText(/changes nothing/)).toHaveTextContent('2 sessions are as planned already')
    expect(screen.queryByRole('button', { name: 'Change it so' })).toBeNull()
    vi.stubGlobal('fetch', async () => json(413, { detail: 'the file is over 4 MB' }))
    await bring('huge.csv')
    expect(await screen.findByText('the file is over 4 MB')).toBeInTheDocument()
    vi.stubGlobal('fetch', async () => {
      throw new TypeError('no network')
    })
    await bring('away.csv')
    expect(await screen.findByText('The server cannot be reached. Nothing was read.')).toBeInTheDocument()
  })

  it('only leaves for who may not plan', () => {
    show(false)
    expect(screen.queryByRole('button', { name: 'Bring a file in' })).toBeNull()
    expect(screen.queryByLabelText('Name of the template')).toBeNull()
  })
})

describe('a week as a template', () => {
  it('is kept under a name, laid with a look before, and forgotten', async () => {
    const put = vi.spyOn(api, 'PUT').mockImplementation((async () => {
      templates = [{ id: 't', name: 'Two days', holds: '2 sessions, 7 slots' }]
      return answer(200, {})
    }) as never)
    const post = vi
      .spyOn(api, 'POST')
      .mockImplementation((async () => answer(200, { ...read, problems: [], unknown: [] })) as never)
    const remove = vi.spyOn(api, 'DELETE').mockImplementation((async () => answer(200, {})) as never)
    show()
    expect(screen.getByRole('button', { name: 'Save it, without loads' })).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Name of the template'), 'Two days{Enter}')
    expect(await screen.findByText(/2 sessions, 7 slots/)).toBeInTheDocument()
    expect(put.mock.calls[0]![1]).toMatchObject({ body: { client: 'c', of: '2026-11-23', name: 'Two days' } })
    await userEvent.click(screen.getByRole('button', { name: 'Lay it on this week' }))
    expect(await screen.findByText(/would change/)).toHaveTextContent('Two days would change')
    expect(post).toHaveBeenCalledOnce()
    await userEvent.click(screen.getByText('forget it'))
    await waitFor(() => expect(remove).toHaveBeenCalledOnce())
  })
})

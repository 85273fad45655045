import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useRef, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, type ImportView } from '../../../api/client'

interface Props {
  client: string
  from: string
  mayPlan: boolean
  saved: () => void
}

const formats: [string, string][] = [
  ['xlsx', 'workbook, a sheet a session'],
  ['csv', 'CSV, a row a slot'],
  ['json', 'JSON'],
  ['ics', 'calendar'],
]

/** Templates are weeks kept for other clients, without loads: laid on this week after a look at what changes. */
function Templates({ client, from, mayPlan, lay, fail }: { client: string; from: string; mayPlan: boolean; lay: (name: string, view: ImportView) => void; fail: (why: string) => void }) {
  const queries = useQueryClient()
  const templates = useQuery({ queryKey: ['templates'], queryFn: () => got(api.GET('/templates')) })
  const [name, setName] = useState('')
  const once = async (what: () => Promise<unknown>) => {
    fail('')
    try {
      await what()
      void queries.invalidateQueries({ queryKey: ['templates'] })
    } catch (e) {
      fail(e instanceof Problem ? (e.faults[0]?.reason ?? e.message) : String(e))
    }
  }
  const list = templates.data?.templates ?? []
  if (!mayPlan) return null
  return (
    <div>
      {list.map((t) => (
        <p key={t.id}>
          <b>{t.name}</b>: {t.holds}{' '}
          <Button size="small" onClick={() => void once(async () => lay(t.name, await got(api.POST('/clients/{client}/templates/{template}', { params: { path: { client, template: t.id }, query: { of: from } } }))))}>
            Lay it on this week
          </Button>{' '}
          <button type="button" className="link" onClick={() => void once(() => got(api.DELETE('/templates/{template}', { params: { path: { template: t.id } } })))}>
            forget it
          </button>
        </p>
      ))}
      <form
        className="files-keep"
        onSubmit={(e) => {
          e.preventDefault()
          void once(async () => {
            await got(api.PUT('/templates/{template}', { params: { path: { template: uuidv7() } }, body: { client, of: from, name } }))
            setName('')
          })
        }}
      >
        <Input size="small" aria-label="Name of the template" placeholder="keep this week as a template" value={name} onChange={(e) => setName(e.target.value)} />
        <Button size="small" htmlType="submit" disabled={name.trim() === ''}>
          Keep it, without loads
        </Button>
      </form>
    </div>
  )
}

/** Files takes a week out as a file and brings one in: first what would change and what was not understood, then, if it is wanted, the change. */
export function Files({ client, from, mayPlan, saved }: Props) {
  const file = useRef<HTMLInputElement>(null)
  const [read, setRead] = useState<{ name: string; view: ImportView } | null>(null)
  const [why, setWhy] = useState('')
  const [busy, setBusy] = useState(false)
  const bring = async (f: File) => {
    setWhy('')
    setRead(null)
    const kind = /\.(csv|xlsx|json)$/i.exec(f.name)?.[1].toLowerCase()
    if (!kind) return setWhy('Only .xlsx, .csv and .json files are read.')
    setBusy(true)
    try {
      const response = await fetch(`/api/clients/${client}/plan?format=${kind}`, { method: 'POST', body: f, credentials: 'same-origin', headers: { 'Content-Type': 'application/octet-stream' } })
      const data: unknown = await response.json().catch(() => undefined)
      setRead({ name: f.name, view: await got(Promise.resolve({ data: response.ok ? (data as ImportView) : undefined, error: data, response })) })
    } catch (e) {
      setWhy(e instanceof Problem ? e.message : 'The server cannot be reached; nothing was read.')
    }
    setBusy(false)
  }
  const apply = async () => {
    if (!read) return
    setBusy(true)
    setWhy('')
    try {
      await got(api.PUT('/clients/{client}/week', { params: { path: { client }, query: { of: from } }, body: { sessions: read.view.sessions.map((s) => ({ ...s, write: uuidv7() })) } }))
      setRead(null)
      saved()
    } catch (e) {
      setWhy(e instanceof Problem ? `Nothing was kept: ${e.message}` : String(e))
    }
    setBusy(false)
  }
  return (
    <div className="files">
      <p>
        Take this week out as{' '}
        {formats.map(([f, words], i) => (
          <span key={f}>
            {i > 0 && ', '}
            <a href={`/api/clients/${client}/plan?format=${f}&from=${from}`} download>
              {words}
            </a>
          </span>
        ))}
        .{' '}
        {mayPlan && (
          <>
            <input ref={file} type="file" hidden accept=".csv,.xlsx,.json" aria-label="File to bring in" onChange={(e) => { if (e.target.files?.[0]) void bring(e.target.files[0]); e.target.value = '' }} />
            <Button size="small" loading={busy} onClick={() => file.current?.click()}>
              Bring a file in
            </Button>
          </>
        )}
      </p>
      <Templates client={client} from={from} mayPlan={mayPlan} lay={(name, view) => setRead({ name, view })} fail={setWhy} />
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      {read && (
        <div className="files-read" role="status">
          <p>
            <b>{read.name}</b> {read.view.changes.length === 0 ? 'changes nothing.' : 'would change:'}
          </p>
          <ul>
            {read.view.changes.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          {read.view.problems.length > 0 && <p className="fault">Not understood, or not possible, and left out:</p>}
          <ul>
            {read.view.problems.map((p) => (
              <li key={p.where + p.reason}>
                <b>{p.where}</b>: {p.reason}
              </li>
            ))}
          </ul>
          {read.view.unknown.length > 0 && <p>Columns nobody knows here: {read.view.unknown.join(', ')}.</p>}
          <p>
            {read.view.changes.length > 0 && (
              <Button size="small" type="primary" loading={busy} onClick={() => void apply()}>
                Change it so
              </Button>
            )}{' '}
            <Button size="small" onClick={() => setRead(null)}>
              Leave it
            </Button>
          </p>
        </div>
      )}
    </div>
  )
}

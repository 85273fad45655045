import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, type IssuesView, type SheetView } from '../../../api/client'
import { putFresh } from '../../../api/fresh'
import { useMe } from '../../../app/me'
import { Compare } from './Compare'

interface Props {
  client: string
  session: string
  looked: SheetView | null
  look: (sheet: SheetView | null) => void
  /** what is on screen is saved, so that what is issued is what is seen */
  saved: boolean
}

const at = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const linkDays = 28

/** Issuing is what of this sheet has left, what changed since, and the link by which the client reads it. */
export function Issuing({ client, session, looked, look, saved }: Props) {
  const me = useMe()
  const queries = useQueryClient()
  const path = { client, session }
  const issues = useQuery({ queryKey: ['issues', session], queryFn: () => got(api.GET('/clients/{client}/sessions/{session}/issues', { params: { path } })), staleTime: 0 })
  const kept = useQuery({ queryKey: ['session', session], queryFn: () => got(api.GET('/clients/{client}/sessions/{session}', { params: { path } })) })
  const [id, setId] = useState(() => uuidv7())
  const [why, setWhy] = useState('')
  const [busy, setBusy] = useState(false)
  const [link, setLink] = useState('')
  const view = issues.data
  if (!view || !kept.data) return <div className="issuing" />
  const locked = !me.data?.may_plan
  const last = view.issues[0]
  const pending = view.pending.length > 0
  const fail = (e: unknown) => {
    const p = e instanceof Problem ? e : new Problem(0, String(e))
    setWhy(p.faults.map((f) => f.reason).join('; ') || p.message)
  }
  const keep = (v: IssuesView) => {
    putFresh(queries, ['issues', session], v)
    void queries.invalidateQueries({ queryKey: ['client', client] })
  }
  const issue = async () => {
    setBusy(true)
    setWhy('')
    try {
      keep(await got(api.POST('/clients/{client}/sessions/{session}/issues', { params: { path }, body: { id, version: kept.data!.version } })))
      setId(uuidv7())
    } catch (e) {
      fail(e)
      void queries.invalidateQueries({ queryKey: ['session', session] })
    }
    setBusy(false)
  }
  const makeLink = async () => {
    setWhy('')
    try {
      const made = await got(api.POST('/clients/{client}/links', { params: { path: { client } }, body: { id: uuidv7(), days: linkDays } }))
      setLink(location.origin + made.path)
      void issues.refetch()
    } catch (e) {
      fail(e)
    }
  }
  const revoke = async (which: string) => {
    setWhy('')
    try {
      await got(api.DELETE('/clients/{client}/links/{link}', { params: { path: { client, link: which } } }))
      setLink('')
      void issues.refetch()
    } catch (e) {
      fail(e)
    }
  }
  const open = view.links.filter((l) => l.state === 'open')
  return (
    <section className="issuing" aria-label="Issuing">
      <p className="issuing-line">
        {!last ? 'Not issued yet: the client cannot read it.' : pending ? <b>Changed since sheet {last.number} left:</b> : <span>Sheet {last.number} left on {at(last.at)} and is what is planned.</span>}
        {!locked && (!last || pending) && (
          <Button type="primary" size="small" loading={busy} disabled={busy || !saved} onClick={() => void issue()}>
            {last ? `Issue sheet ${last.number + 1}` : 'Issue it'}
          </Button>
        )}
        {view.issues.length > 0 && (
          <Select
            size="small"
            aria-label="Which sheet"
            value={looked ? view.issues.findIndex((i) => i.sheet === looked) : -1}
            onChange={(i) => look(i < 0 ? null : view.issues[i].sheet)}
            options={[{ value: -1, label: 'as planned now' }, ...view.issues.map((i, n) => ({ value: n, label: `sheet ${i.number}, ${at(i.at)}, ${i.by}` }))]}
          />
        )}
      </p>
      {pending && (
        <ul>
          {view.pending.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      {looked && view.issues.some((i) => i.sheet === looked) && <Compare key={view.issues.find((i) => i.sheet === looked)!.number} client={client} session={session} is={view.issues.find((i) => i.sheet === looked)!.number} count={view.issues.length} />}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      <p className="issuing-line">
        {open.length === 0 ? 'The client has no link that opens.' : open.map((l) => (
          <span key={l.id}>
            A link, until {new Date(l.expires).toLocaleDateString(undefined, { dateStyle: 'medium' })}: {l.opened === 0 ? 'not opened yet' : `opened ${l.opened === 1 ? 'once' : `${l.opened} times`}, last ${at(l.opened_at!)}`}{' '}
            {!locked && (
              <button type="button" className="link" onClick={() => void revoke(l.id)}>
                End it
              </button>
            )}
          </span>
        ))}
        {!locked && (
          <Button size="small" onClick={() => void makeLink()}>
            Make a link for {linkDays} days
          </Button>
        )}
      </p>
      {link && (
        <p className="issuing-line">
          <span className="issuing-link">{link}</span>
          <Button size="small" onClick={() => void navigator.clipboard?.writeText(link)}>
            Copy
          </Button>
          <span className="caveat">It is shown once: send it now.</span>
        </p>
      )}
    </section>
  )
}

import { useQueryClient } from '@tanstack/react-query'
import { App, Button } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem } from '../../api/client'
import { useMe } from '../../app/me'
import type { Worn } from './useFit'
import { draftOf } from '../clients/week/useDraft'

/** Send puts what is worn into the client's next session. */
export function Send({ worn, refused }: { worn: Worn; refused: boolean }) {
  const { client } = worn
  const { message } = App.useApp()
  const me = useMe()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [busy, setBusy] = useState(false)
  if (!me.data?.may_plan) return null
  const send = async () => {
    setBusy(true)
    try {
      const who = await got(api.GET('/clients/{client}', { params: { path: { client: client! } } }))
      if (!who.current) throw new Problem(0, 'This client has no session planned yet.')
      const path = { client: client!, session: who.current }
      const session = await got(api.GET('/clients/{client}/sessions/{session}', { params: { path } }))
      const draft = draftOf(session)
      draft.slots.push({ id: uuidv7(), movement: worn.movement, settings: worn.settings, cues: [] })
      const saved = await got(api.PUT('/clients/{client}/sessions/{session}', { params: { path }, body: { ...draft, version: session.version, write: uuidv7() } }))
      queries.setQueryData(['session', saved.id], saved)
      void queries.invalidateQueries({ queryKey: ['client', client] })
      void queries.invalidateQueries({ queryKey: ['clients'] })
      message.success(
        <span>
          In {who.name}’s {saved.name} ({saved.when}).{' '}
          <button type="button" className="link" onClick={() => navigate(`/clients/${client}/week/${saved.id}`)}>
            Open it
          </button>
        </span>,
        6,
      )
    } catch (e) {
      message.error(e instanceof Problem ? e.message : String(e))
    }
    setBusy(false)
  }
  return (
    <Button type="primary" loading={busy} disabled={!client || refused} title={client ? undefined : 'Choose a client first'} onClick={() => void send()}>
      Send to the next session
    </Button>
  )
}

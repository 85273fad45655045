import { putFresh, touched } from '../../api/queries'
import { useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, type Worn } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import { draftOf } from '../../saving/kinds'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

/** Send puts what is worn into the session it was opened from, else the client's next one. */
export function Send({ worn, refused, at }: { worn: Worn; refused: boolean; at: string | null }) {
  const { client } = worn
  const me = useMe()
  const cache = useQueryClient()
  const navigate = useNavigate()
  const slot = useSending()
  const { run: send, busy } = useWrite(
    async () => {
      const who = await got(api.GET('/clients/{client}', { params: { path: { client: client! } } }))
      const to = who.sessions.some((s) => s.id === at) ? at! : who.current
      if (!to) throw new Problem(0, 'This client has no session planned yet.')
      const path = { client: client!, session: to }
      const session = await got(api.GET('/clients/{client}/sessions/{session}', { params: { path } }))
      const draft = draftOf(session)
      const fresh = {
        id: slot.idOf([to, worn.movement, worn.settings]),
        movement: worn.movement,
        settings: worn.settings,
        rows: [],
        cues: [],
      }
      // It is there already when only the answer was lost.
      const saved = draft.slots.some((s) => s.id === fresh.id)
        ? session
        : await got(
            api.PUT('/clients/{client}/sessions/{session}', {
              params: { path },
              body: { ...draft, slots: [...draft.slots, fresh], version: session.version, write: uuidv7() },
            }),
          )
      slot.kept()
      putFresh(cache, ['session', saved.id], saved)
      touched(cache, ['plan'], ['session', saved.id])
      message.success(
        <span>
          In {who.name}’s {saved.name} ({saved.when}).{' '}
          <button type="button" className="link" onClick={() => navigate(`/clients/${client}/week/${saved.id}`)}>
            Open it
          </button>
        </span>,
        6,
      )
    },
    (p) => message.error(p.words),
  )
  if (!me.data?.may_plan) return null
  return (
    <Button
      type="primary"
      loading={busy}
      disabled={!client || refused}
      title={client ? undefined : 'Choose a client first'}
      onClick={() => void send()}
    >
      {at ? 'Send to the session' : 'Send to the next session'}
    </Button>
  )
}

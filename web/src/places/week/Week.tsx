import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { useNavigate } from 'react-router'
import { api, got } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { useClient, useSessionId } from '../../ui/thread/Client'
import { SessionTabs } from '../../ui/thread/SessionTabs'
import { Builder } from './Builder'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'
import { newName } from './newName'

/** Week is the builder of one session of the week; the board shows them all. */
export function Week() {
  const client = useClient()
  const id = useSessionId()
  const me = useMe()
  const navigate = useNavigate()
  const cache = useQueryClient()
  const session = useQuery(queries.session(client.id, id))
  const mayPlan = me.data?.may_plan ?? false

  const fresh = useSending()
  const { run: plan } = useWrite(
    async () => {
      const today = me.data!.today
      const body = {
        name: newName(client.sessions.map((s) => s.name)),
        planned_on: session.data && session.data.planned_on > today ? session.data.planned_on : today,
        warm_up_min: 5,
        slots: [],
      }
      const id = fresh.idOf([body, client.sessions.length])
      await got(
        api.POST('/clients/{client}/sessions', {
          params: { path: { client: client.id } },
          body: { id, write: id, ...body },
        }),
      )
      await cache.refetchQueries(queries.client(client.id))
      touched(cache, ['plan'], ['client', client.id])
      void navigate(`/clients/${client.id}/week/${id}`)
    },
    (p) => message.error(p.words),
  )

  return (
    <>
      <SessionTabs place="week" id={id}>
        {mayPlan && (
          <Button size="small" onClick={() => void plan()}>
            Plan another session
          </Button>
        )}
      </SessionTabs>
      {id === null ? (
        <main className="soon">
          <h1>No session yet</h1>
          <p>
            Plan one: pick movements, turn their settings until each head gets what you want, then give sets, reps and
            cues.
          </p>
        </main>
      ) : session.data ? (
        <Builder key={id} client={client.id} session={session.data} mayPlan={mayPlan} />
      ) : (
        <Waiting query={session} />
      )}
    </>
  )
}

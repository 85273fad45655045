import { momentWords } from '../../ui/when'
import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { useState } from 'react'
import { api, got, type RoomView } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { Room } from './Room'
import { Zone } from './Zone'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import { StudioTabs } from './StudioTabs'
import { WayBack } from './WayBack'
import { HowWeTrain } from './HowWeTrain'
import css from './studio.module.css'
import { useWrite } from '../../api/useWrite'

const emptyRoom: RoomView['form'] = {
  name: 'A new room',
  pairs: '',
  singles: '',
  bars: [],
  pads: false,
  slopes: '',
  pins: false,
  rails: false,
  partner: false,
  dip_bars: false,
  dip_loads: '',
  others: [],
}

/** Studio is the rooms with what is really in them, and what was done with whole clients. */
export function Studio() {
  const me = useMe()
  const cache = useQueryClient()
  const rooms = useQuery(queries.rooms())
  const [open, setOpen] = useState<string | null>(null)
  const fresh = useSending()
  const locked = !me.data?.may_plan
  const list = rooms.data?.rooms ?? []
  const here = list.find((r) => r.id === open) ?? [...list].sort((a, b) => b.clients.length - a.clients.length)[0]
  const keep = (room: RoomView) => {
    cache.setQueryData<typeof rooms.data>(
      ['rooms'],
      (old) =>
        old && {
          ...old,
          rooms: old.rooms.some((r) => r.id === room.id)
            ? old.rooms.map((r) => (r.id === room.id ? room : r))
            : [...old.rooms, room],
        },
    )
    touched(cache, ['rooms'], ['rooms'])
  }
  const { run: add, why } = useWrite(async () => {
    const id = fresh.idOf(list.length)
    keep(await got(api.PUT('/rooms/{room}', { params: { path: { room: id } }, body: { mark: '', form: emptyRoom } })))
    fresh.kept()
    setOpen(id)
  })
  if (!rooms.data) return <Waiting query={rooms} />
  return (
    <>
      <StudioTabs />
      <div className={clsx(leavesCss.dossier, leavesCss.studio)}>
        <main className={leavesCss.dossierMain}>
          <h1 className="only-read">Studio</h1>
          <WayBack />
          <nav className={css.roomsLine} aria-label="Rooms">
            {list.map((r) => (
              <button
                key={r.id}
                type="button"
                className={r.id === here?.id ? clsx(css.roomTab, css.here) : css.roomTab}
                aria-pressed={r.id === here?.id}
                onClick={() => setOpen(r.id)}
              >
                <b>{r.form.name}</b>
                <span className={css.roomBar} aria-hidden>
                  <i style={{ width: `${(100 * r.allows) / r.of}%` }} />
                </span>
                <span>
                  allows {r.allows} of {r.of}
                </span>
              </button>
            ))}
            {!locked && (
              <Button onClick={() => void add()} aria-label="Add a room">
                Add a room
              </Button>
            )}
          </nav>
          {why && <p className="fault">{why}</p>}
          {here ? (
            <Room key={here.id} room={here} stations={rooms.data.stations} locked={locked} />
          ) : (
            <p className="hint">No room yet. Loads are rounded to what is really there, so begin with the room.</p>
          )}
          <HowWeTrain locked={locked} />
          {!locked && <Deleted />}
        </main>
        <aside className="margin" aria-label="What the tool says">
          {here && (
            <>
              <h2>What this room allows</h2>
              <div className="finding does">
                <b className={css.big}>
                  {here.allows} of {here.of}
                </b>{' '}
                movements at their usual set-up.
              </div>
              {here.missing.length > 0 && <h2>What is missing, by how much waits for it</h2>}
              {here.missing.slice(0, 7).map((m) => (
                <p key={m.what} className="margin-line">
                  <b>{m.waits}</b> wait for {m.what}
                </p>
              ))}
              {here.gaps.length > 0 && <h2>Gaps in the loads</h2>}
              {here.gaps.map((g) => (
                <div key={g} className="finding">
                  {g}. Between them: more reps first.
                </div>
              ))}
              <h2>Who trains here</h2>
              <p className="margin-line">
                {here.clients.join(', ') || 'Nobody yet; a client’s rooms are chosen in the Dossier.'}
              </p>
            </>
          )}
          <Zone />
        </aside>
      </div>
    </>
  )
}

const did: Record<string, string> = {
  exported: 'was exported',
  deleted: 'was deleted',
  restored: 'was brought back',
  erased: 'was erased for good',
}

function Deleted() {
  const cache = useQueryClient()
  const deleted = useQuery(queries.deleted())
  const { run: back, why } = useWrite(async (client: string) => {
    await got(api.POST('/clients/{client}/restore', { params: { path: { client } } }))
    touched(cache, ['clients'])
  })
  if (!deleted.data || (deleted.data.deleted.length === 0 && deleted.data.events.length === 0)) return null
  return (
    <section className={leavesCss.leaf} aria-label="Deleted clients">
      <h2>Deleted, exported, brought back</h2>
      {deleted.data.deleted.map((d) => (
        <p key={d.id}>
          <b>{d.name}</b>, deleted {d.when}, erased for good on {d.erased_on}.{' '}
          <Button size="small" onClick={() => void back(d.id)}>
            Bring back
          </Button>
        </p>
      ))}
      {why && <p className="fault">{why}</p>}
      {deleted.data.events.slice(0, 8).map((e, i) => (
        <p key={i} className="caveat">
          {momentWords(e.at)}: {e.who || 'a client whose name is gone'} {did[e.what] ?? e.what}
          {e.by && ` by ${e.by}`}
        </p>
      ))}
    </section>
  )
}

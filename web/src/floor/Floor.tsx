import { useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { clsx } from 'clsx'
import { accountDoor, linkDoor, readAround, type Door } from './door'
import { Floors } from './floors'
import { keepAround, keptAround } from './keep'
import { RestBand } from './RestBand'
import { Session } from './Session'
import { Spent } from './Spent'
import { Trainees } from './Trainees'
import { now as nowOf } from './machine'
import { useAwake, useClock, useSenses, type Senses } from './senses'
import type { Around, OnFloor } from './types'
import css from './floor.module.css'

type Near = Omit<Around, 'key'>

/** FloorByAccount is the floor of whoever is signed in: everybody who trains these days. */
export function FloorByAccount() {
  const [around, setAround] = useState<Near | null>(null)
  const [out, setOut] = useState('')
  useEffect(() => {
    let gone = false
    const read = async () => {
      const here = await keptAround().catch(() => null)
      if (here && !gone) setAround((was) => was ?? here)
      const answer = await readAround()
      if (gone) return
      if (answer.is === 'ok') {
        await keepAround(answer.what).catch(() => undefined)
        setAround(answer.what)
      } else if (answer.is !== 'away') setOut(answer.words)
      else if (!here) setOut('This device has not been here with network yet.')
    }
    void read()
    return () => {
      gone = true
    }
  }, [])
  const account = around?.account
  const door = useMemo(() => (account ? accountDoor(account) : null), [account])
  if (out && !around)
    return (
      <main className="soon">
        <h1>The floor</h1>
        <p role="alert">{out}</p>
        <p>
          <a href={signIn()}>Sign in</a>
        </p>
      </main>
    )
  if (!around || !door) return <div className="waiting" aria-busy="true" />
  return (
    <Rooms
      key={door.owner}
      door={door}
      around={around}
      out={out}
      leave={(client, session) => location.assign(client ? `/clients/${client}/log/${session}` : '/today')}
    />
  )
}

/** FloorByLink is a client's own floor. */
export function FloorByLink({
  token,
  client,
  session,
  near,
  leave,
}: {
  token: string
  client: string
  session: string
  near: Near
  leave: () => void
}) {
  const door = useMemo(() => linkDoor(token), [token])
  return <Rooms door={door} around={near} out="" first={{ client, session }} leave={leave} />
}

interface RoomsProps {
  door: Door
  around: Near
  out: string
  first?: { client: string; session: string }
  leave: (client: string, session: string) => void
}

function Rooms({ door, around, out, first, leave }: RoomsProps) {
  const [floors] = useState(() => new Floors(door))
  useEffect(() => floors.begin(), [floors])
  return <Room floors={floors} around={around} out={out} first={first} leave={leave} />
}

function Room({ floors, around, out, first, leave }: Omit<RoomsProps, 'door'> & { floors: Floors }) {
  const shown = useSyncExternalStore(floors.subscribe, floors.snapshot)
  const clock = useClock(floors.clock)
  const [senses, setSenses] = useSenses()
  const [setting, setSetting] = useState(false)
  const [others, setOthers] = useState(false)
  const [here, setHere] = useState(() => first ?? atAddress())
  useAwake()
  const opened = here ?? pick(around.sessions)
  const client = opened?.client
  const session = opened?.session
  useEffect(() => {
    if (session) void floors.open(client ?? '', session)
  }, [floors, client, session])
  // Those who have begun today are kept at hand, as is whoever may begin: the phone may lose the network any time.
  useEffect(() => {
    for (const n of around.sessions.filter((n) => n.session !== session).slice(0, 8))
      void floors.open(n.client, n.session)
  }, [floors, around, session])
  const one = session ? shown.sessions[session] : undefined
  const now = one ? nowOf(one.ready, one.at) : null
  const go = (n: OnFloor) => {
    setHere({ client: n.client, session: n.session })
    if (!first) history.replaceState(null, '', `/floor/${n.client}/${n.session}`)
  }
  // The row is for those who train today, or have begun; whoever comes tomorrow is behind it.
  const begun = (n: OnFloor) => n.today || n.session === session || (shown.sessions[n.session]?.at.sets.length ?? 0) > 0
  const row = others ? around.sessions : around.sessions.filter(begun)
  const refused = shown.waiting.filter((w) => w.row.refused)
  const waits = shown.waiting.length - refused.length
  const away = session ? shown.away[session] : ''
  return (
    <main className={clsx(css.floor, senses.left && css.leftHand)}>
      <header className={css.head}>
        <button
          type="button"
          className={css.plain}
          onClick={() => leave(client ?? '', session ?? '')}
          aria-label="Leave the floor"
        >
          ×
        </button>
        <h1>
          {one ? (
            <>
              {one.ready.name}{' '}
              <span className={css.small}>
                {one.ready.title}, {one.ready.when}
              </span>
            </>
          ) : (
            'The floor'
          )}
        </h1>
        <button type="button" className={css.plain} aria-expanded={setting} onClick={() => setSetting(!setting)}>
          This device
        </button>
      </header>
      {setting && <Settings senses={senses} put={setSenses} />}
      {around.sessions.length > 1 && (
        <Trainees
          near={row}
          more={around.sessions.length > row.length ? () => setOthers(true) : null}
          sessions={shown.sessions}
          here={session ?? ''}
          clock={clock}
          right={around.right}
          go={go}
        />
      )}
      {shown.full && (
        <p className={css.alarm} role="alert">
          {shown.full}
        </p>
      )}
      {(waits > 0 || shown.words) && (
        <p className={css.waits} role="status">
          {waits > 0 &&
            `${waits} ${whatWaits(
              shown.waiting.every((w) => w.event.kind === 'set'),
              waits,
            )} to be sent.`}{' '}
          {shown.words}
          {shown.words && <a href={signIn()}>Sign in</a>}
        </p>
      )}
      {out && <p className={css.waits}>{out}</p>}
      {refused.map((w) => (
        <p key={w.row.id} className={css.offer} role="alert">
          Not kept:{' '}
          {w.event.kind === 'set' ? `set ${w.event.set?.set_no ?? ''}, ${w.event.set?.reps ?? ''} reps` : w.event.kind}.{' '}
          {w.row.refused}{' '}
          <button type="button" className={css.plain} onClick={() => void floors.drop(w.row.id)}>
            Let it go
          </button>
        </p>
      ))}
      {(shown.told || shown.erased > 0) && (
        <p className={css.offer} role="status">
          {shown.told}{' '}
          {shown.erased > 0 && `${shown.erased} told things were never sent and have been erased after 30 days.`}{' '}
          <button type="button" className={css.plain} onClick={floors.hush}>
            Good
          </button>
        </p>
      )}
      {one ? (
        one.ready.blocked && !one.done.blocked ? null : (
          <Session
            key={session}
            floors={floors}
            one={one}
            clock={clock}
            leave={() => leave(client ?? '', session ?? '')}
            senses={senses}
            mayPlan={around.may_plan && floors.door.by === 'account'}
          />
        )
      ) : away ? (
        <p className={css.offer} role="alert">
          {away}
        </p>
      ) : opened ? (
        <div className="waiting" aria-busy="true" />
      ) : (
        <p className={css.offer}>Nobody trains these days. Plan a session in somebody’s week.</p>
      )}
      {one && (
        <RestBand
          restS={now?.restS ?? 0}
          from={now?.restFrom ?? 0}
          at={clock}
          long={one.ready.long_rest}
          senses={senses}
        >
          <Spent one={one} clock={clock} />
        </RestBand>
      )}
    </main>
  )
}

const whatWaits = (sets: boolean, n: number) => `${sets ? 'set' : 'thing'}${n === 1 ? ' waits' : 's wait'}`

/** signIn is where one signs in and comes back from. */
const signIn = () => `/clients?to=${encodeURIComponent(location.pathname)}`

/** atAddress is whose session the address names. */
function atAddress() {
  const [, , client, session] = location.pathname.split('/')
  return client && session ? { client, session } : null
}

const pick = (near: OnFloor[]) => near.find((n) => n.today && !n.blocked && n.done < n.sets) ?? near[0] ?? null

function Settings({ senses, put }: { senses: Senses; put: (s: Senses) => void }) {
  const box = (label: string, is: boolean, set: (yes: boolean) => void) => (
    <button type="button" className={clsx(css.plain, is && css.on)} aria-pressed={is} onClick={() => set(!is)}>
      {label}
    </button>
  )
  return (
    <div className={css.row} role="group" aria-label="This device">
      {box('In the left hand', senses.left, (left) => put({ ...senses, left }))}
      {box('A tone when the rest is over', senses.sound, (sound) => put({ ...senses, sound }))}
      {box('Shake when it is', senses.shake, (shake) => put({ ...senses, shake }))}
      {(['sound', 'shake', 'light'] as const).map((p) => (
        <span key={p}>
          {box(`Pace a slow lowering by ${p}`, senses.pace === p, (yes) => put({ ...senses, pace: yes ? p : 'off' }))}
        </span>
      ))}
    </div>
  )
}

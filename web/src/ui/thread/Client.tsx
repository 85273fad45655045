import { clsx } from 'clsx'
import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import {
  Link,
  Navigate,
  NavLink,
  Outlet,
  useLocation,
  useNavigate,
  useOutletContext,
  useParams,
  useSearchParams,
} from 'react-router'
import { type ClientView } from '../../api/client'
import { useKeys, type Keys } from '../../app/keys'
import { useCatalogue } from '../../app/me'
import { Waiting } from '../Waiting'
import { Slice } from '../../figures/Slice'
import { mondayOf } from '../days'
import css from './thread.module.css'

/** Client is one client with the thread; the knots' places open below it. */
export function Client() {
  const { client = '' } = useParams()
  const view = useQuery(queries.client(client))
  if (!view.data) return <Waiting query={view} />
  return (
    <>
      <Thread view={view.data} />
      <Outlet context={view.data} />
    </>
  )
}

/** ClientThread is the thread in a place that works for a client without being a knot of hers. */
export function ClientThread({ client }: { client: string }) {
  const view = useQuery(queries.client(client))
  return view.data ? <Thread view={view.data} /> : <div className={css.thread} />
}

/** useClient gives a knot's place its client. */
export function useClient(): ClientView {
  return useOutletContext<ClientView>()
}

/**
 * useWork is what is being worked on, which stands in the address: the session as a
 * step of the path or as "at", the week as "of". Where both are there the week is in
 * hand and the session only the one that is shown of it. to writes the address of
 * another place of the thread that stays with them.
 */
export function useWork(client: string) {
  const { session } = useParams()
  const [search] = useSearchParams()
  const at = session ?? search.get('at') ?? undefined
  const of = search.get('of') ?? undefined
  const to = (place: string) => {
    const step = at && ofSession.includes(place) && !(place === 'week' && of)
    const query = new URLSearchParams({
      ...(at && !ofSession.includes(place) ? { at } : {}),
      ...(of ? { of } : {}),
    }).toString()
    return `/clients/${client}/${place}${step ? `/${at}` : ''}${query && `?${query}`}`
  }
  return { at, of, to }
}

const ofSession = ['week', 'sheet', 'log']

/** NameSession puts the session that is shown into the address, and its week. */
export function NameSession({ place, id }: { place: string; id: string }) {
  const client = useClient()
  const { of } = useWork(client.id)
  return (
    <Navigate
      replace
      to={`/clients/${client.id}/${place}/${id}?of=${of ?? client.sessions.find((s) => s.id === id)?.planned_on ?? ''}`}
    />
  )
}

/**
 * useSessionId is the session being worked on, else the first of the week being worked on, else the one to open; null
 * when there is none.
 */
export function useSessionId(): string | null {
  return useSessionOf(useClient())
}

function useSessionOf(client: ClientView): string | null {
  const { at, of } = useWork(client.id)
  if (at) return at
  if (!of) return client.current || null
  const week = client.sessions
    .filter((s) => mondayOf(s.planned_on) === mondayOf(of))
    .sort((a, b) => a.planned_on.localeCompare(b.planned_on))
  return (week.find((s) => s.planned_on >= of) ?? week[0])?.id ?? null // a turn of a block may begin in mid-week
}

function Thread({ view }: { view: ClientView }) {
  const { right } = useCatalogue()
  const navigate = useNavigate()
  const { to: path } = useWork(view.id)
  const here = useLocation().pathname.split('/')[3]
  const at = view.knots.findIndex((k) => k.key === here)
  const keys: Keys = {}
  view.knots.forEach((k, i) => {
    keys[String(i + 1)] = { does: `go to ${k.label}`, run: () => void navigate(path(k.key)) }
  })
  const session = useSessionOf(view)
  const floor = session ? `/floor/${view.id}/${session}` : '/floor'
  keys.f = { does: 'on the floor', run: () => location.assign(floor) }
  useKeys(keys)
  return (
    <>
      <nav className={css.thread} aria-label={`The work with ${view.name}`}>
        <div className={css.who}>
          <Slice geometry={right} view={view.slice} size={58} />
          <div>
            <h1>{view.name}</h1>
            <p>
              {view.about} ·{' '}
              <a className={css.floor} href={floor}>
                On the floor
              </a>
            </p>
          </div>
        </div>
        <ol className={css.line}>
          {view.knots.map((k, i) => (
            <li key={k.key} className={i < at ? css.passed : undefined}>
              <NavLink to={path(k.key)} className={({ isActive }) => clsx(css.knot, isActive && css.here)}>
                <span className={css.knotDot} aria-hidden />
                <span className={css.knotLabel}>{k.label}</span>
                <span className={css.knotState}>{k.state}</span>
              </NavLink>
            </li>
          ))}
        </ol>
      </nav>
      {view.blocked && !tellsItself.includes(here!) && (
        <p className={css.blocked} role="alert">
          <b>No training now.</b> {view.blocked} <Link to={path('dossier')}>To the dossier</Link>
        </p>
      )}
    </>
  )
}

// The places that say themselves why a client may not train.
const tellsItself = ['dossier', 'sheet']

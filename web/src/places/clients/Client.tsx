import { useQuery } from '@tanstack/react-query'
import { NavLink, Outlet, useLocation, useNavigate, useOutletContext, useParams } from 'react-router'
import { api, got, type ClientView } from '../../api/client'
import { useKeys, type Keys } from '../../app/keys'
import { useCatalogue } from '../../app/me'
import { Missing } from '../../app/Soon'
import { Waiting } from '../../app/Shell'
import { Slice } from '../../figures/Slice'

/** Client is one client with the thread; the knots' places open below it. */
export function Client() {
  const { client = '' } = useParams()
  const view = useQuery({ queryKey: ['client', client], queryFn: () => got(api.GET('/clients/{client}', { params: { path: { client } } })) })
  if (view.isError) return <Missing />
  if (!view.data) return <Waiting failed={view.failureReason} />
  return (
    <>
      <Thread view={view.data} />
      <Outlet context={view.data} />
    </>
  )
}

/** ClientThread is the thread in a place that works for a client without being a knot of hers. */
export function ClientThread({ client }: { client: string }) {
  const view = useQuery({ queryKey: ['client', client], queryFn: () => got(api.GET('/clients/{client}', { params: { path: { client } } })) })
  return view.data ? <Thread view={view.data} /> : <div className="thread" />
}

/** useClient gives a knot's place its client. */
export function useClient(): ClientView {
  return useOutletContext<ClientView>()
}

/** useSessionId is the session in the address, else the one to open. */
export function useSessionId(): string | null {
  const { session } = useParams()
  const { current } = useClient()
  return session ?? current ?? null
}

function Thread({ view }: { view: ClientView }) {
  const { right } = useCatalogue()
  const navigate = useNavigate()
  const { session } = useParams()
  const here = useLocation().pathname.split('/')[3]
  const at = view.knots.findIndex((k) => k.key === here)
  const path = (key: string) => `/clients/${view.id}/${key}${session && ['week', 'sheet', 'log'].includes(key) ? `/${session}` : ''}`
  const keys: Keys = {}
  view.knots.forEach((k, i) => {
    keys[String(i + 1)] = { does: `go to ${k.label}`, run: () => navigate(path(k.key)) }
  })
  useKeys(keys)
  return (
      <nav className="thread" aria-label={`The work with ${view.name}`}>
        <div className="thread-who">
          <Slice geometry={right} view={view.slice} size={58} />
          <div>
            <h1>{view.name}</h1>
            <p>{view.about}</p>
          </div>
        </div>
        <ol className="thread-line">
          {view.knots.map((k, i) => (
            <li key={k.key} className={i < at ? 'passed' : undefined}>
              <NavLink to={path(k.key)} className={({ isActive }) => `knot${isActive ? ' here' : ''}${k.open ? '' : ' closed'}`}>
                <span className="knot-dot" aria-hidden />
                <span className="knot-label">{k.label}</span>
                <span className="knot-state">{k.state}</span>
              </NavLink>
            </li>
          ))}
        </ol>
      </nav>
  )
}

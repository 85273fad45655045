import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { NavLink, Outlet } from 'react-router'
import { api, got, Problem } from '../api/client'
import { SignIn } from '../places/signin/SignIn'
import { shownKeys, useKeys } from './keys'
import { startAfresh, whenLeft } from './kept'
import { CatalogueContext, useMe } from './me'
import { SignOut } from './SignOut'

const places = [
  ['today', 'Today'],
  ['clients', 'Clients'],
  ['fitting', 'Fitting'],
  ['library', 'Library'],
  ['stances', 'Stances'],
  ['studio', 'Studio'],
]

/** Shell is the one frame: the bar with the places as words, and the place below. */
export function Shell() {
  const me = useMe()
  const queries = useQueryClient()
  const [help, setHelp] = useState(false)
  useKeys({
    '?': { does: 'show or hide these keys', run: () => setHelp((h) => !h) },
    Escape: { does: 'back out', run: () => setHelp(false) },
  })
  const catalogue = useQuery({
    queryKey: ['catalogue'],
    queryFn: () => got(api.GET('/catalogue')),
    staleTime: Infinity,
    enabled: !!me.data,
  })

  // An answer of any query that says "not signed in" brings the sign-in up.
  useEffect(
    () =>
      queries.getQueryCache().subscribe((event) => {
        const error = event.query.state.error
        if (event.type === 'updated' && error instanceof Problem && error.status === 401)
          queries.setQueryData(['me'], null)
      }),
    [queries],
  )

  // Signed out in another tab, or brought back by the browser from before a sign-out: nothing stays on screen.
  useEffect(() => whenLeft(startAfresh), [])
  useEffect(() => {
    const back = (e: PageTransitionEvent) => e.persisted && location.reload()
    window.addEventListener('pageshow', back)
    return () => window.removeEventListener('pageshow', back)
  }, [])

  if (me.isPending) return <Waiting failed={me.failureReason} />
  if (me.isError) return <Waiting failed={me.error} />
  if (!me.data) return <SignIn />
  return (
    <>
      <a className="skip" href="#place">
        Skip to the page
      </a>
      <header className="bar">
        <span className="bar-name">Musculus</span>
        <nav aria-label="Places">
          {places.map(([path, label]) => (
            <NavLink key={path} to={`/${path}`}>
              {label}
            </NavLink>
          ))}
        </nav>
        <span className="bar-who">
          {me.data.name}
          <span className="bar-studio"> · {me.data.studio}</span>
          <SignOut />
        </span>
      </header>
      {help && <Help close={() => setHelp(false)} />}
      <div id="place">
        {catalogue.data ? (
          <CatalogueContext value={catalogue.data}>{<Outlet />}</CatalogueContext>
        ) : (
          <Waiting failed={catalogue.failureReason} />
        )}
      </div>
    </>
  )
}

/** Waiting keeps the page's shape while the first answer is under way, and says why when it takes long. */
export function Waiting({ failed }: { failed: Error | null }) {
  return (
    <div className="waiting" aria-busy="true">
      {failed ? <p role="status">{failed.message} Trying again …</p> : <div className="skeleton" />}
    </div>
  )
}

function Help({ close }: { close: () => void }) {
  return (
    <aside className="help" aria-label="Keys">
      <h2>Keys</h2>
      <dl>
        {shownKeys().map(([key, does]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
        <div>
          <dt>
            <kbd>← →</kbd>
          </dt>
          <dd>turn a setting that has the focus, by hand or on the figure; with Shift three steps</dd>
        </div>
      </dl>
      <button type="button" className="quiet" onClick={close}>
        Close
      </button>
    </aside>
  )
}

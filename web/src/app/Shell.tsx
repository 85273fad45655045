import { queries } from '../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect, useState } from 'react'
import { Navigate, NavLink, Outlet, useLocation } from 'react-router'
import { Problem } from '../api/client'
import { lettersOff, shownKeys, switchLetters, useKeys } from './keys'
import { useArrival } from './arrival'
import { startAfresh, whenLeft } from './kept'
import { CatalogueContext, useMe } from './me'
import { useSaving } from '../saving/useDoc'
import { Waiting } from '../ui/Waiting'
import { useOwnErrors } from './errors'
import { SignOut } from './SignOut'
import { Unsaved } from './Unsaved'
import css from './shell.module.css'

const SignIn = lazy(async () => ({ default: (await import('../places/signin/SignIn')).SignIn }))

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
  const cache = useQueryClient()
  const { outbox } = useSaving()
  const [help, setHelp] = useState(false)
  useKeys({
    '?': { does: 'show or hide these keys', run: () => setHelp((h) => !h) },
    ...(help && { Escape: { does: 'back out', run: () => setHelp(false) } }), // else it is the place's below
  })
  const [out, setOut] = useState('') // why the sign-in ended
  const { pathname } = useLocation()
  const lacks = me.data?.lacks ?? false
  const catalogue = useQuery({ ...queries.catalogue(), enabled: !!me.data && !lacks })

  // An answer of any query that says "not signed in" brings the sign-in up.
  useEffect(
    () =>
      cache.getQueryCache().subscribe((event) => {
        const error: unknown = event.query.state.error
        if (event.type !== 'updated' || !(error instanceof Problem) || error.status !== 401) return
        if (cache.getQueryData(['me'])) setOut(error.message)
        cache.setQueryData(['me'], null)
      }),
    [cache],
  )

  // What was typed and not saved is sent again as the account that typed it, from whatever page is open.
  const id = me.data?.id
  useEffect(() => {
    if (id) outbox.begin(id)
  }, [id, outbox])
  // Whoever came from the floor to sign in goes back to it.
  useEffect(() => {
    const to = new URLSearchParams(location.search).get('to')
    if (id && to && /^\/floor(\/[\w-]+)*$/.test(to)) location.replace(to)
  }, [id])
  useOwnErrors()
  useArrival()

  // Signed out in another tab, or brought back by the browser from before a sign-out: nothing stays on screen.
  useEffect(
    () =>
      whenLeft(() => {
        outbox.end()
        startAfresh()
      }),
    [outbox],
  )
  useEffect(() => {
    const back = (e: PageTransitionEvent) => e.persisted && location.reload()
    window.addEventListener('pageshow', back)
    return () => window.removeEventListener('pageshow', back)
  }, [])

  if (me.data === undefined) return <Waiting query={me} />
  if (!me.data)
    return (
      <Suspense fallback={<div className="waiting" aria-busy="true" />}>
        <SignIn why={out} />
      </Suspense>
    )
  return (
    <>
      <a className="skip" href="#place">
        Skip to the page
      </a>
      <header className={css.bar}>
        <span className={css.barName}>Musculus</span>
        <nav aria-label="Places">
          {places.map(([path, label]) => (
            <NavLink key={path} to={`/${path}`}>
              {label}
            </NavLink>
          ))}
        </nav>
        <span className={css.barWho}>
          <Unsaved />
          <NavLink className={css.barMe} to="/me">
            {me.data.name}
          </NavLink>
          <span className={css.barStudio}> · {me.data.studio}</span>
          <SignOut />
        </span>
      </header>
      {help && <Help close={() => setHelp(false)} />}
      <div id="place">
        {lacks ? (
          pathname === '/me' ? (
            <Outlet />
          ) : (
            <Navigate to="/me" replace />
          )
        ) : catalogue.data ? (
          <CatalogueContext value={catalogue.data}>{<Outlet />}</CatalogueContext>
        ) : (
          <Waiting query={catalogue} />
        )}
      </div>
    </>
  )
}

const always: [string, string][] = [
  ['Alt ↑ ↓', 'move a slot or a row that has the focus'],
  ['Alt ← →', 'on the board: a slot or a session to another day'],
  ['Delete', 'take a slot or a row out that has the focus'],
  ['l', 'lock a slot of the board that has the focus, or unlock it'],
  ['← →', 'turn a setting that has the focus, by hand or on the figure; with Shift three steps'],
]

function Help({ close }: { close: () => void }) {
  const [off, setOff] = useState(lettersOff)
  return (
    <aside className={css.help} aria-label="Keys">
      <h2>Keys</h2>
      <dl>
        {[...new Map([...shownKeys(), ...always])].map(([key, does]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <p>
        <label>
          <input
            type="checkbox"
            checked={!off}
            onChange={(e) => {
              switchLetters(!e.target.checked)
              setOff(!e.target.checked)
            }}
          />{' '}
          letters and digits are keys on this device
        </label>
      </p>
      <button type="button" className="link" onClick={close}>
        Close
      </button>
    </aside>
  )
}

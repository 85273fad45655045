import { isRouteErrorResponse, Link, useRouteError } from 'react-router'

/** Soon says what a place will hold, and where the work can be done meanwhile. */
export function Soon({ title, holds }: { title: string; holds: string }) {
  return (
    <main className="soon">
      <h1>{title}</h1>
      <p>{holds}</p>
      <p>
        Not built yet. <Link to="/clients">Go to the clients</Link>
      </p>
    </main>
  )
}

/** Missing is an address that leads nowhere. */
export function Missing() {
  return (
    <main className="soon">
      <h1>Nothing here</h1>
      <p>This address leads nowhere. Nothing you saved is lost.</p>
      <p>
        <Link to="/clients">Back to the clients</Link>
      </p>
    </main>
  )
}

/** Broken is what stands where something of ours failed. */
export function Broken() {
  const error = useRouteError()
  if (isRouteErrorResponse(error) && error.status === 404) return <Missing />
  if (!navigator.onLine || (error instanceof TypeError && /dynamically imported|module script/i.test(error.message)))
    return (
      <main className="soon">
        <h1>This page is not here yet</h1>
        <p role="alert">It is loaded from the server, which cannot be reached now. What you typed is kept.</p>
        <p>
          <a href={location.pathname + location.search}>Try again</a>
        </p>
      </main>
    )
  return (
    <main className="soon">
      <h1>Something went wrong on this page</h1>
      <p role="alert">Nothing you saved is lost, and what you typed is kept in this browser.</p>
      <p className="caveat">{error instanceof Error ? error.message : String(error)}</p>
      <p>
        <Link to="/clients" reloadDocument>
          Back to the clients
        </Link>
      </p>
    </main>
  )
}

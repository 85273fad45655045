import { isRouteErrorResponse, Link, useRouteError } from 'react-router'
import { Missing } from '../ui/Failed'

// How browsers and the loader of places say that a file did not come.
const notLoaded = /dynamically imported|module script|preload CSS/i

/** Broken is what stands where something of ours failed. */
export function Broken() {
  const error = useRouteError()
  if (isRouteErrorResponse(error) && error.status === 404) return <Missing />
  if (!navigator.onLine || (error instanceof Error && notLoaded.test(error.message)))
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

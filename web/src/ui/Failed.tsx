import { Problem } from '../api/client'
import { Link } from 'react-router'

/** Failed says what kept something from being shown; only what is not there is missing. */
export function Failed({ error, again }: { error: unknown; again?: () => void }) {
  if (error instanceof Problem && error.status === 404) return <Missing />
  return (
    <main className="soon">
      <h1>This cannot be shown</h1>
      <p role="alert">
        {error instanceof Problem ? error.words : 'Something on this page went wrong. Nothing that was saved is lost.'}
      </p>
      {again && (
        <p>
          <button type="button" className="link" onClick={again}>
            Try again
          </button>
        </p>
      )}
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

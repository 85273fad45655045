import { Link } from 'react-router'

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

export function Missing() {
  return (
    <main className="soon">
      <h1>Nothing here</h1>
      <p>This address leads nowhere, or something on the page failed. Nothing you saved is lost.</p>
      <p>
        <Link to="/clients" reloadDocument>
          Back to the clients
        </Link>
      </p>
    </main>
  )
}

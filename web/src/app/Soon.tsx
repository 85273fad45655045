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

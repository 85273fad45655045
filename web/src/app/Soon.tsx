import { Link } from 'react-router'

/** Soon says what a place will hold, and where the work can be done meanwhile; under: the page has a heading already. */
export function Soon({ title, holds, under }: { title: string; holds: string; under?: boolean }) {
  const Title = under ? 'h2' : 'h1'
  return (
    <main className="soon">
      <Title>{title}</Title>
      <p>{holds}</p>
      <p>
        Not built yet. <Link to="/clients">Go to the clients</Link>
      </p>
    </main>
  )
}

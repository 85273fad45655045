import { useQuery } from '@tanstack/react-query'
import { Link, useSearchParams } from 'react-router'
import { queries } from '../../api/queries'

/** WayBack leads back to the client whose dossier sent somebody here for a room. */
export function WayBack() {
  const [params] = useSearchParams()
  const clients = useQuery(queries.clients())
  const client = clients.data?.clients.find((c) => c.id === params.get('for'))
  if (!client) return null
  return (
    <p className="ask">
      A room for {client.name}: what is in it decides what can be planned.{' '}
      <Link to={`/clients/${client.id}/dossier`}>Back to the dossier</Link>
    </p>
  )
}

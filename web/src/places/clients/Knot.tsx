import { useParams } from 'react-router'
import { Soon } from '../../app/Soon'
import { Missing } from '../../ui/Failed'
import { useClient } from '../../ui/thread/Client'

/** Knot says what a step of the thread will hold while it is not built. */
export function Knot() {
  const { knot } = useParams()
  const found = useClient().knots.find((k) => k.key === knot)
  if (!found) return <Missing />
  return <Soon title={found.label} holds={found.holds} under />
}

import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

interface Props {
  client: string
  session: string
  /** the sheet that is looked at, by its number */
  is: number
  /** how many sheets there are */
  count: number
}

/** Compare tells what changed between the sheet that is looked at and another one, or what is planned now. */
export function Compare({ client, session, is, count }: Props) {
  const [was, setWas] = useState(is > 1 ? is - 1 : 0)
  const other = was === is ? 0 : was
  const compared = useQuery(queries.compared(client, session, other, is))
  const changes = compared.data?.changes
  return (
    <div className="caveat">
      <label>
        Sheet {is} against{' '}
        <select value={other} onChange={(e) => setWas(Number(e.target.value))}>
          <option value={0}>what is planned now</option>
          {Array.from({ length: count }, (_, i) => i + 1)
            .filter((n) => n !== is)
            .map((n) => (
              <option key={n} value={n}>
                sheet {n}
              </option>
            ))}
        </select>
      </label>
      : {changes ? (changes.length === 0 ? 'the same.' : changes.join(' ')) : '…'}
    </div>
  )
}

import { useQuery } from '@tanstack/react-query'
import { Select } from 'antd'
import { useSearchParams } from 'react-router'
import { queries } from '../api/queries'
import css from './field.module.css'

/** useWearer is whom a place works for: the client and stance in the address. */
export function useWearer() {
  const [params, setParams] = useSearchParams()
  const clients = useQuery(queries.clients())
  const book = useQuery(queries.stances())
  const set = (key: string, value: string | undefined) =>
    setParams(
      (p) => {
        if (value) p.set(key, value)
        else p.delete(key)
        if (key === 'client') p.delete('at') // another client has other sessions
        return p
      },
      { replace: true },
    )
  return {
    client: params.get('client') ?? undefined,
    stance: params.get('stance') ?? undefined,
    clients: clients.data?.clients ?? [],
    book: book.data,
    query: book,
    params,
    setParams,
    set,
  }
}

/** Wearer picks the client and the stance a place works for. */
export function Wearer({ w }: { w: ReturnType<typeof useWearer> }) {
  return (
    <div className={css.wearer}>
      <label>
        <span className="field-label">For</span>
        <Select
          aria-label="Client"
          value={w.client ?? ''}
          onChange={(v) => w.set('client', v || undefined)}
          options={[
            { value: '', label: 'an average adult' },
            ...w.clients.map((c) => ({ value: c.id, label: `${c.name}, ${c.room}` })),
          ]}
        />
      </label>
      <label>
        <span className="field-label">Stance</span>
        <Select
          aria-label="Stance"
          value={w.stance ?? ''}
          onChange={(v) => w.set('stance', v || undefined)}
          options={[
            { value: '', label: w.client ? 'the client’s own' : 'Balanced' },
            ...(w.book?.stances ?? []).map((s) => ({ value: s.id, label: s.name })),
          ]}
        />
      </label>
    </div>
  )
}

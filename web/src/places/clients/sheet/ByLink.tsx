import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import { api, got, Problem } from '../../../api/client'
import '../dossier/dossier.css'
import { Page } from './Sheet'
import './sheet.css'

/** ByLink is what a client sees of her link: the next sheet first, nothing else of the studio. */
export function ByLink() {
  const { token = '' } = useParams()
  const [at, setAt] = useState(0)
  const open = useQuery({
    queryKey: ['link', token],
    queryFn: () => got(api.GET('/links/{token}', { params: { path: { token } } })),
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })
  if (open.isError)
    return (
      <main className="soon">
        <h1>This link does not open</h1>
        <p>{open.error instanceof Problem ? open.error.message : 'Something went wrong.'}</p>
      </main>
    )
  if (!open.data)
    return (
      <div className="waiting" aria-busy="true">
        {open.failureReason ? (
          <p role="status">{open.failureReason.message} Trying again …</p>
        ) : (
          <div className="skeleton" />
        )}
      </div>
    )
  const { sheets, client, right } = open.data
  return (
    <div className="by-link">
      <nav aria-label="Sessions">
        {sheets.map((s, i) => (
          <button
            key={s.session}
            type="button"
            className={i === at ? 'chip on' : 'chip'}
            aria-pressed={i === at}
            onClick={() => setAt(i)}
          >
            {s.sheet.session}, {s.when}
          </button>
        ))}
        {sheets[at] && !sheets[at].sheet.blocked && (
          <a className="chip" href={`/api/links/${token}/${sheets[at].session}/sheet.pdf`}>
            On paper
          </a>
        )}
      </nav>
      {sheets.length === 0 ? (
        <main className="soon">
          <h1>{client}</h1>
          <p>No sheet has been sent for these days yet.</p>
        </main>
      ) : (
        <Page sheet={sheets[at].sheet} right={right} />
      )}
    </div>
  )
}

import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Checkbox } from 'antd'
import { clsx } from 'clsx'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, type DossierView } from '../../api/client'
import { queries, touched } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import leavesCss from '../../ui/leaves.module.css'
import { message } from '../../ui/tell'

/** Opened is who read what of this client, a line a day. */
export function Opened({ lines }: { lines: string[] }) {
  const [all, setAll] = useState(false)
  return (
    <section className={clsx(leavesCss.leaf, leavesCss.quiet)} aria-label="Opened by">
      <h2>Opened by</h2>
      {lines.slice(0, all ? undefined : 3).map((l) => (
        <p key={l}>{l}</p>
      ))}
      {lines.length > 3 && !all && (
        <button type="button" className="link" onClick={() => setAll(true)}>
          Earlier
        </button>
      )}
    </section>
  )
}

/** Leave is the whole of a client: as a file, or gone. */
export function Leave({ view, owner }: { view: DossierView; owner: boolean }) {
  const cache = useQueryClient()
  const navigate = useNavigate()
  const [photos, setPhotos] = useState(false)
  const name = useQuery(queries.client(view.id)).data?.name
  const path = { client: view.id }
  const { run: undo } = useWrite(
    async () => {
      await got(api.POST('/clients/{client}/restore', { params: { path } }))
      touched(cache, ['clients', 'dossier'])
      message.destroy(view.id)
    },
    (p) => message.error(p.words),
  )
  const { run: remove, why } = useWrite(async () => {
    await got(api.DELETE('/clients/{client}', { params: { path } }))
    touched(cache, ['clients'])
    void navigate('/clients')
    message.open({
      key: view.id,
      duration: 12,
      content: (
        <>
          {name} is deleted and erased for good in 30 days.{' '}
          <Button size="small" type="primary" onClick={() => void undo()}>
            Undo
          </Button>
        </>
      ),
    })
  })
  return (
    <section className={clsx(leavesCss.leaf, leavesCss.quiet)} aria-label="Everything about this client">
      <h2>Everything kept about this client</h2>
      {owner ? (
        <p>
          <a href={`/api/clients/${view.id}/export${photos ? '?photos=true' : ''}`} download>
            Export it as a file
          </a>{' '}
          <Checkbox checked={photos} onChange={(e) => setPhotos(e.target.checked)}>
            photos too
          </Checkbox>
        </p>
      ) : (
        <p className="caveat">An owner of the studio exports it as a file.</p>
      )}
      <p>
        <Button danger size="small" onClick={remove}>
          Delete this client
        </Button>{' '}
        <span className="caveat">
          Out of sight at once, can be brought back for 30 days (Studio), then erased, photos too.
        </span>
      </p>
      {why && <p className="fault">{why}</p>}
    </section>
  )
}

import { SheetPage } from '../../ui/sheet/SheetPage'
import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { Button } from 'antd'
import { Link, useParams } from 'react-router'
import { useState } from 'react'
import { type SheetView } from '../../api/client'
import { useKeys } from '../../app/keys'
import { useCatalogue, useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { NameSession, useClient, useSessionId } from '../../ui/thread/Client'
import { SessionTabs } from '../../ui/thread/SessionTabs'
import { Editing } from './Editing'
import { Issuing } from './Issuing'
import css from './editing.module.css'

/** Sheet is the page the client gets, as it will be read and printed. */
export function Sheet() {
  const client = useClient()
  const id = useSessionId()
  const { right } = useCatalogue()
  const me = useMe()
  const [looked, setLooked] = useState<SheetView | null>(null) // an earlier sheet
  const sheet = useQuery(queries.sheet(client.id, id))
  const session = useQuery(queries.session(client.id, id))
  useKeys({ p: { does: 'print the sheet', run: () => sheet.data?.blocked === '' && window.print() } })
  const { session: named } = useParams()
  if (id && !named) return <NameSession place="sheet" id={id} />
  return (
    <>
      <SessionTabs place="sheet" id={id}>
        {id && sheet.data?.blocked === '' && (
          <span className={css.sheetOut}>
            <a href={`/api/clients/${client.id}/sessions/${id}/sheet.pdf`} target="_blank" rel="noreferrer">
              PDF, A4
            </a>
            <a href={`/api/clients/${client.id}/sessions/${id}/sheet.pdf?letter=true`} target="_blank" rel="noreferrer">
              Letter
            </a>
          </span>
        )}
        <Button type="primary" size="small" disabled={!!sheet.data?.blocked} onClick={() => window.print()}>
          Print
        </Button>
      </SessionTabs>
      {id && sheet.data && me.data?.may_plan && !sheet.data.blocked && session.data ? (
        <Editing key={id} client={client.id} session={session.data}>
          {(now, parts, saved) => (
            <>
              <Issuing session={id} look={setLooked} looked={looked} saved={saved} />
              <SheetPage sheet={looked ?? now ?? sheet.data} right={right} parts={looked || !now ? undefined : parts} />
            </>
          )}
        </Editing>
      ) : sheet.data ? (
        <>
          {id && <Issuing session={id} look={setLooked} looked={looked} saved />}
          <SheetPage
            sheet={looked ?? sheet.data}
            right={right}
            toDossier={<Link to={`/clients/${client.id}/dossier`}>To the dossier: screening and joints</Link>}
          />
        </>
      ) : id === null ? (
        <p className="hint">Nothing planned yet, so nothing to print.</p>
      ) : (
        <Waiting query={sheet} />
      )}
    </>
  )
}

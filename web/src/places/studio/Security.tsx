import { useQuery } from '@tanstack/react-query'
import { clsx } from 'clsx'
import { queries } from '../../api/queries'
import leavesCss from '../../ui/leaves.module.css'
import { Waiting } from '../../ui/Waiting'
import { momentWords } from '../../ui/when'
import { StudioTabs } from './StudioTabs'
import css from './studio.module.css'

/** Security is what concerned the studio's safety lately, the latest first. */
export function Security() {
  const log = useQuery(queries.security())
  if (!log.data) return <Waiting query={log} />
  return (
    <>
      <StudioTabs />
      <div className={clsx(leavesCss.dossier, leavesCss.studio)}>
        <main className={leavesCss.dossierMain}>
          <h1 className="only-read">Security</h1>
          {log.data.events.length === 0 && <p className="hint">Nothing yet.</p>}
          {log.data.events.map((e, i) => (
            <p key={i} className={css.event}>
              <span className={css.facts}>{momentWords(e.at)}</span> <b>{e.who || 'somebody'}</b> {e.what}
              {e.about && <> {e.about}</>} <span className={css.facts}>from {e.address}</span>
            </p>
          ))}
        </main>
        <aside className="margin" aria-label="What the tool says">
          <h2>What stands here</h2>
          <p className="margin-line">
            Who signed in or failed to, was let in, shut out or refused; links and exports that were made. Nothing of
            anybody’s health.
          </p>
          <p className="margin-line">
            A sign-in that is nobody’s: disable that account under People, ask its owner for a new password, and end the
            links it made.
          </p>
        </aside>
      </div>
    </>
  )
}

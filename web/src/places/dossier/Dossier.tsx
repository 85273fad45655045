import { Input, Switch } from 'antd'
import { useState } from 'react'
import { Link, NavLink } from 'react-router'
import { type DossierView } from '../../api/client'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { useClient, useWork } from '../../ui/thread/Client'
import { Consent } from './Consent'
import { Note } from './Fill'
import { Likes } from './Likes'
import { Leave, Opened } from './Leave'
import { Joints, MobilityChecks } from './Joints'
import { Screening } from './Screening'
import { useDossier, valueOf, type Edit } from './useDossier'
import { Who } from './Who'
import { Wishes } from './Wishes'
import { clsx } from 'clsx'
import threadCss from '../../ui/thread/thread.module.css'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'

/** DossierTabs are the pages of the dossier. */
export function DossierTabs({ client }: { client: string }) {
  const { to } = useWork(client)
  const [path, query] = [to('dossier').split('?')[0], to('dossier').split('?')[1]]
  const sub = (page: string) => `${path}${page}${query ? `?${query}` : ''}`
  const page = ({ isActive }: { isActive: boolean }) => clsx(threadCss.sessionTab, isActive && threadCss.here)
  return (
    <nav className={threadCss.sessions} aria-label="Pages of the dossier">
      <NavLink end className={page} to={sub('')}>
        Who this is
      </NavLink>
      <NavLink className={page} to={sub('/measures')}>
        Measures
      </NavLink>
      <NavLink className={page} to={sub('/now')}>
        What is done now
      </NavLink>
    </nav>
  )
}

/** Dossier is who a client is, edited in place; the margin says what each answer changes. */
export function Dossier() {
  const client = useClient()
  const me = useMe()
  const edit = useDossier(client.id)
  const view = edit.query.data
  const locked = !me.data?.may_plan
  const today = me.data?.today ?? ''
  const owner = me.data?.role === 'owner'
  return (
    <>
      <DossierTabs client={client.id} />
      {!view ? (
        <Waiting query={edit.query} />
      ) : (
        <div className={leavesCss.dossier}>
          <main className={leavesCss.dossierMain}>
            <div className={clsx(css.standing, view.standing.level)} role="status">
              <b>{view.standing.heading}</b>
              {view.standing.said.length > 0 && <Said view={view} />}
              <span className={css.standingNote}>{view.no_diagnosis}</span>
            </div>
            {locked && <p className="hint">You may read this; a coach changes it.</p>}
            <div className={leavesCss.leaves}>
              <div>
                <Who edit={edit} locked={locked} today={today} />
                <Wishes edit={edit} heads={client.slice.heads} locked={locked} />
                <Rooms edit={edit} locked={locked} />
                <Likes edit={edit} locked={locked} />
                <Consent edit={edit} locked={locked} today={today} owner={owner} />
                <section className={leavesCss.leaf} aria-label="Notes">
                  <h2>Notes</h2>
                  <Notes edit={edit} locked={locked} />
                  <label className="near-room">
                    <Switch
                      size="small"
                      aria-label="Hide weights on the sheet"
                      disabled={locked}
                      checked={valueOf(edit, 'hide_weights')}
                      onChange={(v) => edit.change('hide_weights', v)}
                    />{' '}
                    hide weights on the client’s sheet
                  </label>
                </section>
                {view.opened.length > 0 && <Opened lines={view.opened} />}
                {!locked && <Leave view={view} owner={owner} />}
              </div>
              <div>
                <Screening view={view} locked={locked} today={today} keep={edit.keep} />
                <Joints view={view} locked={locked} today={today} keep={edit.keep} />
                <MobilityChecks edit={edit} locked={locked || !view.dossier.health_consent} />
              </div>
            </div>
          </main>
          <Margin view={view} client={client.id} />
        </div>
      )}
    </>
  )
}

function Said({ view }: { view: DossierView }) {
  return (
    <ul>
      {view.standing.said.map((s) => (
        <li key={s.words} className={s.level}>
          {s.words}
        </li>
      ))}
    </ul>
  )
}

function Margin({ view, client }: { view: DossierView; client: string }) {
  const [all, setAll] = useState(false)
  const v = view.verdicts
  const lines = [...v.lines].sort((a, b) => (a.ruling === b.ruling ? 0 : a.ruling === 'avoid' ? -1 : 1))
  return (
    <aside className="margin" aria-label="What the tool says">
      <h2>What this rules out</h2>
      <div className="finding does">
        <p className={leavesCss.counts}>
          <b>{v.allowed}</b> allowed · <b>{v.modify}</b> to modify ·{' '}
          <b className={v.avoid > 0 ? 'warn' : undefined}>{v.avoid}</b> to avoid
        </p>
        {v.lacking > 0 && <p>{v.lacking} cannot be done in the usual room.</p>}
        <Link to={`/library?client=${client}`}>See them in the Library</Link>
      </div>
      {lines.slice(0, all ? undefined : 4).map((l) => (
        <div key={l.movement} className={l.ruling === 'avoid' ? 'finding warn' : 'finding'}>
          <b>{l.name}</b>: {l.ruling}. {l.words}
          {l.reason && <p className="caveat">Overridden: {l.reason}</p>}
        </div>
      ))}
      {lines.length > 4 && (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `All ${lines.length}`}
        </button>
      )}
      {view.caps.length > 0 && <h2>What every dose keeps to</h2>}
      {view.caps.map((c) => (
        <div key={c} className="finding warn">
          {c}
        </div>
      ))}
      <h2>What the answers change</h2>
      {view.says.map((s) => (
        <p key={s} className="margin-line">
          {s}
        </p>
      ))}
    </aside>
  )
}

function Rooms({ edit, locked }: { edit: Edit; locked: boolean }) {
  const client = useClient()
  const here = valueOf(edit, 'rooms')
  const rooms = edit.query.data!.studio_rooms
  return (
    <section className={leavesCss.leaf} aria-label="Rooms">
      <h2>Where</h2>
      <span className={leavesCss.chips} role="group" aria-label="Rooms">
        {rooms.map((r) => {
          const on = here.includes(r.id)
          return (
            <button
              key={r.id}
              type="button"
              className={on ? clsx(leavesCss.chip, leavesCss.on) : leavesCss.chip}
              aria-pressed={on}
              disabled={locked}
              onClick={() => edit.change('rooms', on ? here.filter((id) => id !== r.id) : [...here, r.id])}
            >
              {r.name}
              {here[0] === r.id && here.length > 1 ? ', usually' : ''}
            </button>
          )
        })}
      </span>
      <Note edit={edit} field="rooms" />
      {here.length > 1 && !locked && (
        <p>
          <button type="button" className="link" onClick={() => edit.change('rooms', [...here.slice(1), here[0]])}>
            Usually {rooms.find((r) => r.id === here[1])?.name} instead
          </button>
        </p>
      )}
      <p className="caveat">
        What is in them: <Link to={`/studio?for=${client.id}`}>Studio</Link>
      </p>
    </section>
  )
}

function Notes({ edit, locked }: { edit: Edit; locked: boolean }) {
  const kept = valueOf(edit, 'notes')
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <>
      <Input.TextArea
        aria-label="Notes"
        autoSize={{ minRows: 2, maxRows: 10 }}
        disabled={locked}
        value={typed ?? kept}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed !== null && typed !== kept) edit.change('notes', typed)
          setTyped(null)
        }}
      />
      <Note edit={edit} field="notes" />
    </>
  )
}

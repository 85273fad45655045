import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Checkbox, Input, Switch } from 'antd'
import { useState } from 'react'
import { Link, NavLink, useNavigate } from 'react-router'
import { api, got, type DossierView } from '../../api/client'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { useClient, useWork } from '../../ui/thread/Client'
import { DayFill, Note } from './Fill'
import { Joints, MobilityChecks } from './Joints'
import { Screening } from './Screening'
import { useDossier, valueOf, type Edit } from './useDossier'
import { Who } from './Who'
import { Wishes } from './Wishes'
import { clsx } from 'clsx'
import threadCss from '../../ui/thread/thread.module.css'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'
import { message, modal } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

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
        What is in them: <Link to="/studio">Studio</Link>
      </p>
    </section>
  )
}

function Consent({ edit, locked, today, owner }: { edit: Edit; locked: boolean; today: string; owner: boolean }) {
  const at = valueOf(edit, 'health_consent')
  const body = valueOf(edit, 'body_consent')
  const view = edit.query.data!
  return (
    <section className={leavesCss.leaf} aria-label="Consent">
      <h2>Consent</h2>
      <p className={leavesCss.prose}>
        <Checkbox
          disabled={locked}
          checked={!!at}
          onChange={(e) => edit.change('health_consent', e.target.checked ? today : null)}
        >
          The client agrees that health notes are kept
        </Checkbox>
        {at && (
          <>
            on <DayFill edit={edit} field="health_consent" label="Agreed on" max={today} disabled={locked} />
          </>
        )}
        {!at && <Note edit={edit} field="health_consent" />}
      </p>
      <p className={leavesCss.prose}>
        <Checkbox
          disabled={locked}
          checked={!!body}
          onChange={(e) => edit.change('body_consent', e.target.checked ? today : null)}
        >
          … and that measures and photos are
        </Checkbox>
        {body && (
          <>
            on{' '}
            <DayFill
              edit={edit}
              field="body_consent"
              label="Agreed to measures and photos on"
              max={today}
              disabled={locked}
            />
          </>
        )}
        {!body && <Note edit={edit} field="body_consent" />}
      </p>
      {view.may_measure && body && <p className={clsx(leavesCss.said, 'stop')}>{view.may_measure}</p>}
      <p className={leavesCss.prose}>
        For a minor, a guardian agreed on{' '}
        <DayFill edit={edit} field="guardian_on" label="Guardian agreed on" max={today} disabled={locked} />
      </p>
      <p className="caveat">Taken back, what was kept by it is hidden at once; without health notes no sheet leaves.</p>
      {owner && !view.dossier.health_consent && (
        <Erase view={view} what="health" words="the health notes: screening, joints, mobility" keep={edit.keep} />
      )}
      {owner && !view.dossier.body_consent && (
        <Erase view={view} what="body" words="the measures and photos" keep={edit.keep} />
      )}
    </section>
  )
}

/** Erase offers to erase for good what was kept by a consent that is not there any more. */
function Erase({
  view,
  what,
  words,
  keep,
}: {
  view: DossierView
  what: 'health' | 'body'
  words: string
  keep: Edit['keep']
}) {
  const cache = useQueryClient()
  const { run: erase } = useWrite(
    async () => {
      keep(await got(api.POST('/clients/{client}/erase', { params: { path: { client: view.id } }, body: { what } })))
      touched(cache, ['measures'])
      message.success('Erased.')
    },
    (p) => message.error(p.words),
  )
  const press = () =>
    modal.confirm({
      title: `Erase ${words}?`,
      content: 'For good, at once: it cannot be brought back. Hand out the export first if the client wants it.',
      okText: 'Erase for good',
      okButtonProps: { danger: true },
      cancelText: 'Leave it',
      onOk: erase,
    })
  return (
    <p>
      <button type="button" className="link" onClick={press}>
        Erase {words}
      </button>
    </p>
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

/** Opened is who read what of this client, a line a day. */
function Opened({ lines }: { lines: string[] }) {
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

function Leave({ view, owner }: { view: DossierView; owner: boolean }) {
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

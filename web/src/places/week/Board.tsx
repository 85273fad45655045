import { spanWords } from '../../ui/when'
import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import { Navigate, useNavigate, useSearchParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { api, got, type AuditView, type WeekView } from '../../api/client'
import { useKeys } from '../../app/keys'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { SaveNote, UndoRedo } from '../../ui/SaveNote'
import { useClient } from '../../ui/thread/Client'
import { Asks } from '../../ui/decisions/Proposals'
import { Audit } from './Audit'
import { BoardSession } from './BoardSession'
import { BlockStrip } from './block/BlockStrip'
import { NotYet } from './block/NotYet'
import { Drafts } from './drafts/Drafts'
import { prepare } from './drafts/useDrafts'
import { Files } from './Files'
import { Ledger } from './Ledger'
import { copies } from './move'
import { useMoves } from './useMoves'
import { mondayOf } from '../../ui/days'
import { useWeek, type Drafts as Sessions } from './useWeek'
import { clsx } from 'clsx'
import { Reach } from './Reach'
import { newName } from './newName'
import css from './board.module.css'
import { message, modal } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

/** Board is the whole week that stands in the address, so that it stays when what comes next has changed. */
export function Board() {
  const client = useClient()
  const me = useMe()
  const [params] = useSearchParams()
  // The week that is worked on is the one of the next session.
  const asked = params.get('of')
  const next = client.sessions.find((s) => s.id === client.current)?.planned_on ?? me.data?.today ?? ''
  const of = asked ?? (next && mondayOf(next))
  const week = useQuery({ ...queries.week(client.id, of), enabled: of !== '' })
  const from = week.data?.from ?? ''
  if (of && !asked) return <Navigate replace to={`?of=${of}`} />
  if (!week.data) return <Waiting query={week} />
  // The days that belong together are the server's to say: a week, or a turn of the client's block.
  if (from !== of) {
    const query = new URLSearchParams(params)
    query.set('of', from)
    return <Navigate replace to={`?${query}`} />
  }
  return (
    <Week
      key={from}
      client={client.id}
      name={client.name}
      from={from}
      arrived={week.data}
      again={() => void week.refetch()}
    />
  )
}

interface Props {
  client: string
  name: string
  from: string
  arrived: WeekView
  again: () => void
}

/**
 * Week is sessions on days, slots that are dragged between them, the ledger that fills meanwhile, and what is wrong.
 */
function Week({ client, name, from, arrived, again }: Props) {
  const me = useMe()
  const navigate = useNavigate()
  const cache = useQueryClient()
  const copied = useRef<{ content: string; sessions: Sessions } | null>(null)
  const [params, setParams] = useSearchParams()
  const w = useWeek(client, from, arrived)
  const [files, setFiles] = useState(false)
  const margin = useRef<HTMLElement>(null)
  const mayPlan = me.data?.may_plan ?? false
  const { drafts, view } = w
  const strip = useQuery(queries.block(client))
  // A turn that is not made yet has nothing that could be mended.
  const ahead =
    drafts.length === 0 ? strip.data?.turns.find((t) => t.from === from && t.to >= (me.data?.today ?? '')) : undefined
  const drafting = mayPlan && view.is_week && params.has('drafts')
  const setDrafting = (on: boolean) => setParams(on ? { of: from, drafts: '' } : { of: from })

  useKeys({
    d: { does: 'draft the week', run: () => mayPlan && view.is_week && setDrafting(true) },
    'Ctrl+z': { does: 'undo', run: w.undo },
    'Ctrl+Shift+z': { does: 'redo', run: w.redo },
    n: {
      does: 'plan a session',
      run: () => mayPlan && void plan(view.days.find((d) => d.today)?.date ?? from),
    },
  })

  const go = (of: string) => setParams({ of }, { replace: true })
  const plan = (date: string) => {
    if (!date) return
    w.edit([
      ...drafts,
      {
        id: uuidv7(),
        version: 0,
        name: newName(drafts.map((d) => d.name)),
        planned_on: date,
        warm_up_min: 5,
        slots: [],
      },
    ])
  }
  const { run: copyOn } = useWrite(
    async (sure?: boolean) => {
      const next = view.after
      const content = JSON.stringify(drafts)
      // The copies are the same ones when it is pressed again after a lost answer, or answers what is asked.
      if (copied.current?.content !== content)
        copied.current = { content, sessions: copies(drafts, view.days.length).map((d) => ({ ...d, write: uuidv7() })) }
      await got(
        api.PUT('/clients/{client}/week', {
          params: { path: { client }, query: { of: next } },
          body: { sessions: copied.current.sessions, sure },
        }),
      )
      copied.current = null
      touched(cache, ['plan'])
      setParams({ of: next }, { replace: true })
    },
    (p, again) => {
      if (p.asksWhether)
        modal.confirm({
          title: p.ask!.question,
          okText: 'Yes, copy it so',
          cancelText: 'Leave it',
          onOk: () => again(true),
        })
      else message.error(p.words)
    },
  )
  /** bringIn puts sessions of a file or template in: over those they are, and the new ones beside them. */
  const bringIn = (sessions: Sessions) => {
    const next = new Map(sessions.map((s) => [s.id, s]))
    w.edit([...drafts.map((d) => next.get(d.id) ?? d), ...sessions.filter((s) => !drafts.some((d) => d.id === s.id))])
    message.open({ key: 'brought', content: 'Brought in. Undo takes it back (Ctrl+Z).', duration: 6 })
  }
  /** done says what was changed in one step, with the way back */
  const done = (words: string) =>
    message.open({
      key: 'fixed',
      duration: 8,
      content: (
        <>
          {words}.{' '}
          <Button
            size="small"
            type="primary"
            onClick={() => {
              message.destroy('fixed')
              undo.current()
            }}
          >
            Undo
          </Button>
        </>
      ),
    })
  const fix = (f: AuditView) => {
    if (!f.fix) return
    const next = new Map(f.fix.sessions.map((s) => [s.id, s]))
    w.edit(drafts.map((d) => next.get(d.id) ?? d))
    done(f.fix.words)
  }
  // The toast outlives the render it was made in.
  const undo = useRef(w.undo)
  useEffect(() => {
    undo.current = w.undo
  })
  const { held, shown, grab, drag, release, cancel, slotKey, sessionKey } = useMoves(drafts, view, mayPlan, w)
  const infos = new Map(view.sessions.flatMap((b) => b.board).map((b) => [b.id, b]))

  /** copyDay puts a copy on the next day that is free, one the client trains on if there is one */
  const copyDay = (d: Sessions[number]) => {
    const free = view.days
      .filter((x) => x.date !== d.planned_on && !drafts.some((s) => s.planned_on === x.date))
      .sort(
        (a, b) =>
          Number(b.trains) - Number(a.trains) ||
          Number(a.date < d.planned_on) - Number(b.date < d.planned_on) ||
          a.date.localeCompare(b.date),
      )
    if (!free[0]) {
      message.open({ key: 'copied', content: 'No day of this week is free.', duration: 4 })
      return
    }
    w.edit([...drafts, ...copies([d], 0).map((c) => ({ ...c, planned_on: free[0]!.date }))])
    message.open({
      key: 'copied',
      content: (
        <span>
          {d.name} copied to {free[0].name}. Undo takes it away (Ctrl+Z).
        </span>
      ),
      duration: 6,
    })
  }
  const takeOut = (d: Sessions[number]) => {
    w.edit(drafts.filter((x) => x.id !== d.id))
    message.open({
      key: 'removed',
      content: <span>{d.name} taken out. Undo brings it back (Ctrl+Z).</span>,
      duration: 6,
    })
  }

  if (drafting)
    return (
      <Drafts
        client={client}
        name={name}
        from={from}
        board={drafts}
        lay={(next, words, whole) => {
          w.edit(next)
          done(words)
          if (whole) setDrafting(false)
        }}
        close={() => setDrafting(false)}
      />
    )
  return (
    <div className={css.board}>
      <main className={css.main}>
        <div className={css.top}>
          <Button size="small" aria-label="The week before" onClick={() => go(view.before)}>
            ←
          </Button>
          <h2>{spanWords(view.from, view.to)}</h2>
          <Button size="small" aria-label="The week after" onClick={() => go(view.after)}>
            →
          </Button>
          <SaveNote doc={w.doc} settle={w.settle} itIsSo={w.itIsSo} undo={w.undo} what="this week" mayPlan={mayPlan} />
          {mayPlan && (
            <span className={css.tools}>
              <UndoRedo undo={w.undo} redo={w.redo} canUndo={w.canUndo} canRedo={w.canRedo} />
              {view.is_week && (
                <Button
                  size="small"
                  type="primary"
                  onPointerEnter={() => prepare(client, from)}
                  onFocus={() => prepare(client, from)}
                  onClick={() => setDrafting(true)}
                >
                  Draft the week
                </Button>
              )}
              <Button size="small" disabled={drafts.length === 0} onClick={() => void copyOn()}>
                Copy to the next {view.is_week ? 'week' : 'turn'}
              </Button>
            </span>
          )}
          <Button size="small" aria-expanded={files} onClick={() => setFiles(!files)}>
            Files
          </Button>
        </div>
        {files && (
          <Files
            client={client}
            from={view.from}
            mayPlan={mayPlan}
            change={bringIn}
            go={(of) => setParams({ of }, { replace: true })}
          />
        )}
        <BlockStrip client={client} from={from} planned={drafts.length > 0} mayPlan={mayPlan} go={go} />
        <div
          className={held ? clsx(css.days, css.holding) : css.days}
          style={{
            gridTemplateColumns: view.days
              .map((d) => (shown.some((s) => s.planned_on === d.date) ? 'minmax(190px, 1fr)' : '46px'))
              .join(' '),
          }}
          onPointerMove={drag}
          onPointerUp={release}
          onPointerCancel={cancel}
        >
          {view.days.map((d) => {
            const here = shown.filter((s) => s.planned_on === d.date)
            return (
              <section
                key={d.date}
                data-day={d.date}
                className={clsx(css.day, here.length === 0 && css.empty, d.today && css.today, !d.trains && css.off)}
                aria-label={d.name}
              >
                <h3>
                  {here.length === 0 ? d.name.slice(0, 3) : d.name}
                  <span>{Number(d.date.slice(8))}</span>
                </h3>
                {here.map((s) => (
                  <BoardSession
                    key={s.id}
                    draft={s}
                    view={view.sessions.find((b) => b.id === s.id)}
                    slots={infos}
                    held={held?.id}
                    mayPlan={mayPlan}
                    change={(next) => w.edit(drafts.map((x) => (x.id === s.id ? next : x)))}
                    takeOut={() => takeOut(s)}
                    copy={() => copyDay(s)}
                    open={(slot) =>
                      (s.version > 0 || slot) &&
                      navigate(`/clients/${client}/week/${s.id}`, slot ? { state: { slot } } : undefined)
                    }
                    grab={grab}
                    sessionKey={(e) => sessionKey(e, s.id, s.planned_on)}
                    slotKey={slotKey}
                  />
                ))}
                {mayPlan && (
                  <button
                    type="button"
                    className={css.plan}
                    aria-label={`Plan a session on ${d.name}`}
                    onClick={() => plan(d.date)}
                  >
                    +
                  </button>
                )}
              </section>
            )
          })}
        </div>
        {drafts.length === 0 && !ahead && (
          <p className="hint">
            Nothing is planned in this week. “Draft the week” composes three to choose from; + plans a session on a day;
            or go back a week and copy it here.
          </p>
        )}
      </main>
      <Reach heads={view.ledger.heads} to={margin} />
      <aside ref={margin} className="margin board-margin" aria-label="What it comes to">
        {ahead ? (
          <NotYet turn={ahead} />
        ) : (
          <Ledger
            ledger={view.ledger}
            stance={view.stance}
            show={(session, slot) => navigate(`/clients/${client}/week/${session}`, { state: { slot } })}
            ask={(head) => navigate(`/library?${new URLSearchParams({ client, head })}`)}
          />
        )}
        {!ahead && (
          <Audit
            client={client}
            findings={view.findings}
            hidden={view.hidden_findings}
            mayPlan={mayPlan}
            fix={fix}
            show={(f) => f.session && navigate(`/clients/${client}/week/${f.session}`, { state: { slot: f.slot } })}
            changed={again}
          />
        )}
        <Asks client={client} />
        <p className="caveat">No diagnosis: local rules and licensed practice come first.</p>
      </aside>
    </div>
  )
}

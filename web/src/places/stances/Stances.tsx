import { queries } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input, Switch } from 'antd'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { api, got, type BookView, type RuleView, type SwitchView } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { useWearer, Wearer } from '../../ui/Wearer'
import { TipChecker } from './TipChecker'
import { clsx } from 'clsx'
import css from './stances.module.css'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

/**
 * Stances are the rules coaches hold, how well each is supported, who disputes whom, and what a switch would change.
 */
export function Stances() {
  const w = useWearer()
  const [params] = useSearchParams()
  const [typed, setTyped] = useState(params.get('rule') ?? '')
  const [editing, setEditing] = useState<string | null>(null)
  if (!w.book) return <Waiting query={w.query} />
  const book = w.book
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const says = (text: string) => words.every((x) => text.toLowerCase().includes(x))
  const rules = book.rules.filter((r) => says(`${r.says} ${r.lever} ${r.id} ${r.why}`))
  const wrong = book.wrong.filter((x) => says(`${x.says} ${x.but}`))
  const levers = [...new Set(rules.map((r) => r.lever))]
  const own = book.stances.find((s) => s.id === editing && s.own)
  return (
    <div className={css.stances}>
      <main className={css.main}>
        <h1 className="only-read">Stances</h1>
        <StanceRow book={book} w={w} editing={editing} edit={setEditing} />
        {own && (
          <p className="ask">
            Switching the rules of {own.name}: only rules with a tilt change numbers, and only those whose reason holds
            at least in part.
          </p>
        )}
        <Input
          aria-label="Find a rule"
          placeholder="Find a rule or a saying: brachialis, narrow, burn …"
          allowClear
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
        {words.length > 0 && wrong.length > 0 && (
          <section>
            <h2>Often said</h2>
            {wrong.map((x) => (
              <p key={x.says} className={css.wrong}>
                {x.kind === 'wrong' ? <s>{x.says}</s> : <q>{x.says}</q>} <b>{x.answer}.</b> {x.but}
              </p>
            ))}
          </section>
        )}
        {levers.map((lever) => (
          <details key={lever} open={words.length > 0 || levers.indexOf(lever) === 0}>
            <summary>
              {lever} <span>{rules.filter((r) => r.lever === lever).length}</span>
            </summary>
            {rules
              .filter((r) => r.lever === lever)
              .map((r) => (
                <Rule key={r.id} rule={r} book={book} client={w.client} own={own} />
              ))}
          </details>
        ))}
        {rules.length === 0 && wrong.length === 0 && <p className="hint">No rule says that.</p>}
      </main>
      <aside className="margin" aria-label="Tip checker and grades">
        <Wearer w={w} />
        <TipChecker book={book} />
        <h2>Grades</h2>
        <p className="caveat">
          A several growth measurements agree · B one growth study, or mixed · C muscle activity only · D mechanics only
          · E coaching practice only. A rule whose mechanism does not hold is shown as a hollow mark and counts nothing.
        </p>
      </aside>
    </div>
  )
}

interface RowProps {
  book: BookView
  w: ReturnType<typeof useWearer>
  editing: string | null
  edit: (id: string | null) => void
}

function StanceRow({ book, w, editing, edit }: RowProps) {
  const me = useMe()
  const cache = useQueryClient()
  const [tried, setTried] = useState<{ stance: string; words: string } | null>(null)
  const [used, setUsed] = useState<{ before: string; now: string } | null>(null)
  const mine = w.clients.find((c) => c.id === w.client)?.stance
  const nameOf = (id: string) => book.stances.find((s) => s.id === id)?.name ?? 'the one before'
  const { run: choose } = useWrite(
    async (stance: string) => {
      await got(api.PUT('/clients/{client}/stance', { params: { path: { client: w.client! } }, body: { stance } }))
      await cache.invalidateQueries()
      setTried(null)
      setUsed(mine && mine !== stance ? { before: mine, now: stance } : null)
    },
    (p) => message.error(p.words),
  )
  const { run: tryOut } = useWrite(
    async (stance: string) => {
      const view = await got(
        api.POST('/clients/{client}/try-stance', { params: { path: { client: w.client! } }, body: { stance } }),
      )
      setTried({ stance, words: view.words })
    },
    (p) => message.error(p.words),
  )
  const copied = useSending()
  const { run: copy } = useWrite(
    async (s: Stance) => {
      const body = { of: s.id, name: `${s.name}, our reading` }
      const id = copied.idOf(body)
      await got(api.POST('/stances', { body: { id, ...body } }))
      copied.kept()
      await cache.invalidateQueries(queries.stances())
      edit(id)
    },
    (p) => message.error(p.words),
  )
  return (
    <section className={css.stanceRow} aria-label="Stances">
      {used && used.now === mine && (
        <p className={clsx('ask', css.used)} role="status">
          From now on this client’s numbers follow {nameOf(used.now)}.{' '}
          <button type="button" className="link" onClick={() => void choose(used.before)}>
            Back to {nameOf(used.before)}
          </button>
        </p>
      )}
      {book.stances.map((s) => (
        <div key={s.id} className={clsx(css.stanceCard, s.id === mine && css.mine)}>
          <b>{s.name}</b> {s.id === mine && <span className={css.mineWord}>this client’s own</span>}
          <p>{s.says}</p>
          <p className="caveat">
            base: {s.base === 'balanced' ? 'plain and stretch' : s.base}
            {s.rules.length > 0 && `, ${s.rules.length} rules${s.half ? ' at half strength' : ''}`}
          </p>
          {me.data?.may_plan &&
            (s.own ? (
              <button
                type="button"
                className="link"
                aria-pressed={s.id === editing}
                onClick={() => edit(s.id === editing ? null : s.id)}
              >
                {s.id === editing ? 'Done switching' : 'Switch its rules'}
              </button>
            ) : (
              <button type="button" className="link" onClick={() => void copy(s)}>
                Copy it
              </button>
            ))}{' '}
          {w.client && s.id !== mine && tried?.stance !== s.id && (
            <button type="button" className="link" onClick={() => void tryOut(s.id)}>
              What would change?
            </button>
          )}
          {w.client && tried?.stance === s.id && (
            <div role="status">
              <p>{tried.words}</p>
              {me.data?.may_plan && (
                <button type="button" className="link" onClick={() => void choose(s.id)}>
                  Use for this client
                </button>
              )}{' '}
              <button type="button" className="link" onClick={() => setTried(null)}>
                Leave it
              </button>
            </div>
          )}
        </div>
      ))}
    </section>
  )
}

type Stance = BookView['stances'][number]

function Rule({ rule: r, book, client, own }: { rule: RuleView; book: BookView; client?: string; own?: Stance }) {
  const [open, setOpen] = useState(false)
  return (
    <article className={css.rule}>
      <span className={clsx(css.grade, css[`grade${r.grade}`])} title="evidence grade">
        {r.grade}
      </span>
      <div>
        <p>
          {r.says} {r.tilts.length > 0 && <b className={css.tilts}>{r.tilts.join(', ')}</b>}
        </p>
        <p className="caveat">
          {r.mechanism === 'does not hold'
            ? 'its reason does not hold'
            : r.mechanism === 'partly'
              ? 'its reason holds in part'
              : 'its reason holds'}
          : {r.why}
          {r.stances.length > 0 &&
            ` · used by ${r.stances.map((s) => book.stances.find((x) => x.id === s)?.name ?? 'the house').join(', ')}`}{' '}
          <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'less' : 'card'}
          </button>
        </p>
        {r.disputes.length > 0 && (
          <p className="caveat">
            disputed by: {r.disputes.map((d) => book.rules.find((x) => x.id === d)?.says).join(' · ')}
          </p>
        )}
        {r.note && !open && <p className={css.note}>Our note: {r.note}</p>}
        {open && <Card rule={r} fields={book.card_fields} />}
        {own && r.switch && <OwnSwitch rule={r} own={own} />}
        {r.switch && client && <SwitchRule rule={r.id} client={client} />}
      </div>
    </article>
  )
}

/** Card is the rule's evidence, with what is recorded and nothing else. */
function Card({ rule: r, fields }: { rule: RuleView; fields: string[] }) {
  return (
    <dl className={css.card}>
      {fields
        .filter((f) => r.card[f])
        .map((f) => (
          <div key={f}>
            <dt>{f}</dt>
            <dd>{r.card[f]}</dd>
          </div>
        ))}
      <Note rule={r} />
    </dl>
  )
}

/** Note is what this studio sees with its clients, kept apart from the grade; it is saved when the field is left. */
function Note({ rule: r }: { rule: RuleView }) {
  const me = useMe()
  const cache = useQueryClient()
  const [typed, setTyped] = useState(r.note)
  const { run: save, why } = useWrite(async () => {
    if (typed.trim() === r.note) return
    await got(api.PUT('/rules/{rule}/note', { params: { path: { rule: r.id } }, body: { note: typed } }))
    await cache.invalidateQueries(queries.stances())
  })
  return (
    <div>
      <dt>our own note</dt>
      <dd>
        <Input.TextArea
          aria-label={`Our note on: ${r.says}`}
          autoSize
          maxLength={1000}
          value={typed}
          readOnly={!me.data?.may_plan}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={() => void save()}
        />
        {why && <span className="fault">Not saved: {why} What you typed stays.</span>}
      </dd>
    </div>
  )
}

/** OwnSwitch switches a rule of the studio's own stance. */
function OwnSwitch({ rule: r, own }: { rule: RuleView; own: Stance }) {
  const cache = useQueryClient()
  const { run: flip, busy } = useWrite(
    async (on: boolean) => {
      await got(
        api.POST('/stances/{stance}/switch', {
          params: { path: { stance: own.id } },
          body: { rule: r.id, on, version: own.version },
        }),
      )
      await cache.invalidateQueries()
    },
    (p) => {
      message.error(p.words)
      void cache.invalidateQueries() // somebody else may have switched it
    },
  )
  return (
    <label className="switch">
      <Switch
        size="small"
        loading={busy}
        checked={own.rules.includes(r.id)}
        onChange={(on) => void flip(on)}
        aria-label={`${own.name} uses: ${r.says}`}
      />{' '}
      used by {own.name}
    </label>
  )
}

function SwitchRule({ rule, client }: { rule: string; client: string }) {
  const [told, setTold] = useState<SwitchView | null>(null)
  const who = useQuery(queries.client(client))
  const session = who.data?.current
  const { run: ask, why: fault } = useWrite(async () => {
    setTold(
      await got(
        api.POST('/clients/{client}/sessions/{session}/switch-rule', {
          params: { path: { client, session: session! } },
          body: { rule },
        }),
      ),
    )
  })
  if (!session) return null
  return (
    <p className="switch">
      <Button size="small" onClick={() => void ask()}>
        What if it were switched?
      </Button>{' '}
      <span role="status">{told?.words}</span>
      {fault && <span className="fault">{fault}</span>}
    </p>
  )
}

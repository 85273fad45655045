import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useRef, useState } from 'react'
import { api, got, problemOf, sendFile, type ImportView, type WeekDraft } from '../../api/client'
import { useSending } from '../../api/sending'
import { mondayOf } from '../../ui/days'
import css from './board.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  client: string
  from: string
  mayPlan: boolean
  /** change puts sessions into the week on the board, where they are saved and can be undone */
  change: (sessions: WeekDraft[]) => void
  /** go shows another week */
  go: (of: string) => void
}

const formats: [string, string][] = [
  ['xlsx', 'workbook, a sheet a session'],
  ['csv', 'CSV, a row a slot'],
  ['json', 'JSON'],
  ['ics', 'calendar'],
]

/** Templates are weeks kept for other clients, without loads: laid on this week after a look at what changes. */
function Templates({
  client,
  from,
  mayPlan,
  lay,
  fail,
}: {
  client: string
  from: string
  mayPlan: boolean
  lay: (name: string, view: ImportView) => void
  fail: (why: string) => void
}) {
  const cache = useQueryClient()
  const templates = useQuery(queries.templates())
  const [name, setName] = useState('')
  const fresh = useSending()
  const { run: once } = useWrite(
    async (what: () => Promise<unknown>) => {
      fail('')
      await what()
      touched(cache, ['templates'])
    },
    (p) => fail(p.words),
  )
  const list = templates.data?.templates ?? []
  if (!mayPlan) return null
  return (
    <div>
      {list.map((t) => (
        <p key={t.id}>
          <b>{t.name}</b>: {t.holds}{' '}
          <Button
            size="small"
            onClick={() =>
              void once(async () =>
                lay(
                  t.name,
                  await got(
                    api.POST('/clients/{client}/templates/{template}', {
                      params: { path: { client, template: t.id }, query: { of: from } },
                    }),
                  ),
                ),
              )
            }
          >
            Lay it on this week
          </Button>{' '}
          <button
            type="button"
            className="link"
            onClick={() =>
              void once(() => got(api.DELETE('/templates/{template}', { params: { path: { template: t.id } } })))
            }
          >
            forget it
          </button>
        </p>
      ))}
      <form
        className={css.filesKeep}
        onSubmit={(e) => {
          e.preventDefault()
          void once(async () => {
            const body = { client, of: from, name }
            await got(api.PUT('/templates/{template}', { params: { path: { template: fresh.idOf(body) } }, body }))
            fresh.kept()
            setName('')
          })
        }}
      >
        <Input
          size="small"
          aria-label="Name of the template"
          placeholder="save this week as a template"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button size="small" htmlType="submit" disabled={name.trim() === ''}>
          Save it, without loads
        </Button>
      </form>
    </div>
  )
}

const sessionsWords = (n: number) => (n === 1 ? 'One session lies' : `${n} sessions lie`)

/**
 * Files takes a week out as a file and brings one in: first what would change and what was not understood, then, if it
 * is wanted, the change.
 */
export function Files({ client, from, mayPlan, change, go }: Props) {
  const file = useRef<HTMLInputElement>(null)
  const [read, setRead] = useState<{ name: string; view: ImportView; file?: File } | null>(null)
  const [why, setWhy] = useState('')
  const [busy, setBusy] = useState(false)
  /** bring reads a file; which load holds where two disagree is said, or asked. */
  const bring = async (f: File, load?: 'marked' | 'hand') => {
    setWhy('')
    if (!load) setRead(null)
    const kind = /\.(csv|xlsx|json)$/i.exec(f.name)?.[1]!.toLowerCase()
    if (!kind) return setWhy('Only .xlsx, .csv and .json files are read.')
    setBusy(true)
    try {
      setRead({
        name: f.name,
        file: f,
        view: await sendFile<ImportView>(
          'POST',
          `/clients/${client}/plan?format=${kind}${load ? `&load=${load}` : ''}`,
          f,
        ),
      })
    } catch (e) {
      const p = problemOf(e)
      setWhy(p.away ? `${p.message} Nothing was read.` : p.words)
    }
    setBusy(false)
  }
  const sessions = read?.view.sessions ?? []
  const here = sessions.filter((s) => mondayOf(s.planned_on) === from)
  const elsewhere = sessions.filter((s) => mondayOf(s.planned_on) !== from)
  const apply = () => {
    if (!read) return
    change(here)
    setRead(elsewhere.length === 0 ? null : { ...read, view: { ...read.view, sessions: elsewhere } })
  }
  return (
    <div className={css.files}>
      <p>
        This week as a file:{' '}
        {formats.map(([f, words], i) => (
          <span key={f}>
            {i > 0 && ', '}
            <a href={`/api/clients/${client}/plan?format=${f}&from=${from}`} download>
              {words}
            </a>
          </span>
        ))}
        .{' '}
        {mayPlan && (
          <>
            <input
              ref={file}
              type="file"
              hidden
              accept=".csv,.xlsx,.json"
              aria-label="File to bring in"
              onChange={(e) => {
                if (e.target.files?.[0]) void bring(e.target.files[0])
                e.target.value = ''
              }}
            />
            <Button size="small" loading={busy} onClick={() => file.current?.click()}>
              Bring a file in
            </Button>
          </>
        )}
      </p>
      <Templates
        client={client}
        from={from}
        mayPlan={mayPlan}
        lay={(name, view) => setRead({ name, view })}
        fail={setWhy}
      />
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      {read && (
        <div className={css.filesRead} role="status">
          <p>
            <b>{read.name}</b> {read.view.changes.length === 0 ? 'changes nothing.' : 'would change:'}
            {read.view.same > 0 &&
              ` ${read.view.same === 1 ? 'One session is' : `${read.view.same} sessions are`} as planned already.`}
          </p>
          <ul>
            {read.view.changes.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          {read.view.problems.length > 0 && <p className="fault">Not understood, or not possible, and left out:</p>}
          <ul>
            {read.view.problems.map((p) => (
              <li key={p.where + p.reason}>
                <b>{p.where}</b>: {p.reason}
              </li>
            ))}
          </ul>
          {read.view.questions.length > 0 && (
            <>
              <p className="fault">Asked before these sessions are taken:</p>
              <ul>
                {read.view.questions.map((q) => (
                  <li key={q.where + q.reason}>
                    <b>{q.where}</b>: {q.reason}
                  </li>
                ))}
              </ul>
              {read.file && (
                <p>
                  <Button size="small" loading={busy} onClick={() => void bring(read.file!, 'marked')}>
                    The load as marked holds
                  </Button>{' '}
                  <Button size="small" loading={busy} onClick={() => void bring(read.file!, 'hand')}>
                    The load in one hand holds
                  </Button>
                </p>
              )}
            </>
          )}
          {read.view.unknown.length > 0 && <p>Columns nobody knows here: {read.view.unknown.join(', ')}.</p>}
          <p>
            {here.length > 0 && (
              <Button size="small" type="primary" onClick={apply}>
                Change it so
              </Button>
            )}{' '}
            {elsewhere.length > 0 && (
              <>
                {sessionsWords(elsewhere.length)} in another week.{' '}
                <Button size="small" onClick={() => go(mondayOf(elsewhere[0]!.planned_on))}>
                  Go to that week
                </Button>{' '}
              </>
            )}
            <Button size="small" onClick={() => setRead(null)}>
              Leave it
            </Button>
          </p>
        </div>
      )}
    </div>
  )
}

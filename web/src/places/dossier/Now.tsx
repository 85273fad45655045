import { putFresh, queries } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input, Select } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, got, type PresentView } from '../../api/client'
import { useCatalogue, useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { decimals, headColour } from '../../figures/heads'
import { Slice } from '../../figures/Slice'
import { useClient } from '../../ui/thread/Client'
import { DossierTabs } from './Dossier'
import { Note } from './Fill'
import { useDossier, valueOf } from './useDossier'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'
import { Remember } from '../../ui/Understood'
import { useWrite } from '../../api/useWrite'

/** Now is what the client does already: her list, line by line, and what it covers before any plan exists. */
export function Now() {
  const client = useClient()
  const me = useMe()
  const { right } = useCatalogue()
  const cache = useQueryClient()
  const edit = useDossier(client.id)
  const [typed, setTyped] = useState<string | null>(null)
  const locked = !me.data?.may_plan
  const kept = edit.query.data ? valueOf(edit, 'present') : null
  const path = { client: client.id }
  const present = useQuery(queries.present(client.id, kept))
  const { run: answer, why } = useWrite(async (line: string, movement: string) => {
    putFresh(
      cache,
      queries.present(client.id, kept).queryKey,
      await got(
        api.PUT('/clients/{client}/present/answers', {
          params: { path },
          body: { text: kept ?? '', line, movement },
        }),
      ),
    )
  })
  const view = present.data
  if (kept === null || !view) {
    return (
      <>
        <DossierTabs client={client.id} />
        <Waiting query={edit.query.data ? present : edit.query} />
      </>
    )
  }
  const commit = () => {
    if (typed !== null && typed !== kept) edit.change('present', typed)
    setTyped(null)
  }
  return (
    <>
      <DossierTabs client={client.id} />
      <div className={leavesCss.dossier}>
        <main className={clsx(leavesCss.dossierMain, 'now')}>
          <div className={css.nowPicture}>
            <Slice geometry={right} view={view.slice} size={190} places={1} unit="effective sets" />
            <Coverage view={view} />
          </div>
          <section className={leavesCss.leaf} aria-label="The list">
            <h2>What is done now</h2>
            <Input.TextArea
              aria-label="The present list"
              disabled={locked}
              autoSize={{ minRows: 4, maxRows: 12 }}
              placeholder={'Paste or type it, a line a movement:\nHammer curls 3x10 12 kg\nRope push-downs 3x12'}
              value={typed ?? kept}
              onChange={(e) => setTyped(e.target.value)}
              onBlur={commit}
            />
            {typed !== null && typed !== kept && (
              <p>
                <Button type="primary" size="small" onClick={commit}>
                  Read the list
                </Button>
              </p>
            )}
            <Note edit={edit} field="present" />
            {why && <p className="fault">{why}</p>}
            <ol className={css.lines}>
              {view.lines.map((l, i) => (
                <Line key={i} line={l} locked={locked} answer={(m) => void answer(l.text, m)} />
              ))}
            </ol>
          </section>
          <TryOuts client={client.id} />
        </main>
        <aside className="margin" aria-label="What the tool says">
          {view.open > 0 && (
            <>
              <h2>Still asked</h2>
              <div className="finding warn">
                {view.open === 1 ? 'One line is' : `${view.open} lines are`} not matched yet and not counted.
              </div>
            </>
          )}
          <h2>Never trained</h2>
          {view.open > 0 && view.open === view.lines.length ? (
            <p className="margin-line">Known once the lines are matched.</p>
          ) : view.never.length === 0 ? (
            <p className="margin-line">Every head gets something.</p>
          ) : (
            <div className="finding warn">
              {view.never.join('; ')}.
              <Link className="link" to={`/library?client=${client.id}`}>
                What would train them?
              </Link>
            </div>
          )}
          <h2>Repeated</h2>
          {view.repeats.length === 0 ? (
            <p className="margin-line">No idea comes twice.</p>
          ) : (
            view.repeats.map((r) => (
              <div key={r} className="finding">
                {r}
              </div>
            ))
          )}
          <p className="caveat">{view.assumed}</p>
        </aside>
      </div>
    </>
  )
}

function Line({
  line,
  locked,
  answer,
}: {
  line: PresentView['lines'][number]
  locked: boolean
  answer: (movement: string) => void
}) {
  const { movements } = useCatalogue()
  const [other, setOther] = useState(false)
  const asked = !line.chosen || other
  return (
    <li className={line.chosen ? undefined : css.open}>
      <span className={css.lineText}>{line.text}</span>
      {line.chosen && !other && (
        <span>
          → {line.name}
          {line.says && ` · ${line.says}`}
          {line.left.length > 0 && ` · says nothing here: ${line.left.join(', ')}`}{' '}
          {!locked && (
            <button type="button" className="link" onClick={() => setOther(true)}>
              another
            </button>
          )}
        </span>
      )}
      {asked && !locked && (
        <span className={css.lineAsk}>
          {line.says && <span>{line.says}</span>}
          {line.ask && <b>{line.ask.endsWith('?') ? line.ask : `${line.ask}?`}</b>}
          {line.unknown && <Remember word={line.unknown} choices={line.choices.map((c) => c.value)} />}
          {line.choices.slice(0, 4).map((c) => (
            <Button
              key={c.value}
              size="small"
              onClick={() => {
                setOther(false)
                answer(c.value)
              }}
            >
              {c.words}
            </Button>
          ))}
          <Select
            size="small"
            showSearch={{ optionFilterProp: 'label' }}
            aria-label={`Movement of ${line.text}`}
            placeholder="another movement"
            value={null}
            onChange={(m: string | null) => {
              if (m) {
                setOther(false)
                answer(m)
              }
            }}
            options={[
              { label: 'not one of the arm’s own', options: elsewhere },
              { label: 'movements', options: movements.map((m) => ({ value: m.id, label: m.name })) },
            ]}
          />
        </span>
      )}
    </li>
  )
}

const elsewhere = [
  { value: 'nothing', label: 'not arm work' },
  { value: 'press', label: 'counts as pressing elsewhere' },
  { value: 'pull', label: 'counts as pulling elsewhere' },
]

/** Coverage is head by head how much the list gives, at short, middle and long length. */
function Coverage({ view }: { view: PresentView }) {
  const most = Math.max(6, ...view.heads.map((h) => h.sets))
  return (
    <div className={css.coverage} role="table" aria-label="What the list covers">
      <div role="row" className={clsx(css.coverageRow, css.top)}>
        <span role="columnheader">head</span>
        <span role="columnheader">effective sets</span>
        <span role="columnheader">short · middle · long</span>
      </div>
      {view.heads.map((h) => (
        <div role="row" key={h.id} className={h.sets < 1 ? clsx(css.coverageRow, css.none) : css.coverageRow}>
          <span role="cell">
            {h.why ? (
              <details className={css.coverageWhy}>
                <summary>{h.name}</summary>
                {h.why}
              </details>
            ) : (
              h.name
            )}
          </span>
          <span role="cell" className={css.coverageBar}>
            <i style={{ width: `${(100 * h.sets) / most}%`, background: headColour[h.id] }} />
            <b>{decimals(h.sets, 1)}</b>
          </span>
          <span role="cell" className={css.coverageZones}>
            {[h.short, h.middle, h.long].map((z, i) => (
              <i key={i} title={['short', 'middle', 'long'][i]} className={z >= 2 ? css.covered : undefined}>
                {decimals(z, 1)}
              </i>
            ))}
          </span>
        </div>
      ))}
      <p className="caveat">
        A length counts as covered from 2 effective sets. Several-joint work is not split by length.
      </p>
    </div>
  )
}

const outcomes: Record<string, string> = { kept: 'kept', dropped: 'dropped', open: 'still open' }

/** TryOuts is what was tried and what the client said of it. */
function TryOuts({ client }: { client: string }) {
  const tried = useQuery(queries.tryOuts(client))
  return (
    <section className={leavesCss.leaf} aria-label="Tried out">
      <h2>Tried out</h2>
      {tried.data?.try_outs.length === 0 && (
        <p className="hint">
          Nothing tried yet. In the <Link to={`/fitting?client=${client}`}>Fitting</Link> a set-up’s comfort and where
          it was felt are kept.
        </p>
      )}
      {tried.data?.try_outs.map((t) => (
        <p key={t.id}>
          <b>{t.name}</b>, {t.on}: comfort {t.comfort} of 10, felt {t.felt || 'nowhere in particular'},{' '}
          <span className={t.outcome === 'dropped' ? 'warn' : undefined}>{outcomes[t.outcome]}</span>
          {t.note && `; ${t.note}`}
        </p>
      ))}
    </section>
  )
}

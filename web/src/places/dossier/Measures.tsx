import { putFresh, queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Segmented } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, got, type AnswerView, type KindView, type MeasuresView, type MeasuringView } from '../../api/client'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { CourseChart } from '../../figures/CourseChart'
import { lengthUnit, shownLength, type Units } from '../../ui/units'
import { useClient } from '../../ui/thread/Client'
import { DossierTabs } from './Dossier'
import { MeasureForm } from './MeasureForm'
import { Photos } from './Photos'
import { useDossier } from './useDossier'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './measures.module.css'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

/**
 * Measures is the tape: what really changed, what differs left and right, and a session taken with digits and Enter.
 */
export function Measures() {
  const client = useClient()
  const me = useMe()
  const cache = useQueryClient()
  const edit = useDossier(client.id)
  const measures = useQuery(queries.measures(client.id))
  const [kind, setKind] = useState('flexed')
  const keep = (v: MeasuresView) => {
    putFresh(cache, ['measures', client.id], v)
    touched(cache, ['measures'], ['measures', client.id])
  }
  const view = measures.data
  if (!view || !edit.query.data) {
    return (
      <>
        <DossierTabs client={client.id} />
        <Waiting query={measures} />
      </>
    )
  }
  const units = edit.query.data.dossier.units as Units
  const shown = view.kinds.find((k) => k.id === kind)!
  return (
    <>
      <DossierTabs client={client.id} />
      <div className={leavesCss.dossier}>
        <main className={leavesCss.dossierMain}>
          <section className={leavesCss.leaf} aria-label="What the tape can show">
            <div className={css.courseHead}>
              <h2>What the tape can show</h2>
              <Segmented
                size="small"
                aria-label="What was measured"
                value={kind}
                onChange={setKind}
                options={view.kinds.map((k) => ({ value: k.id, label: k.name }))}
              />
            </div>
            <Course kind={shown} units={units} />
            <p className="caveat">
              The band is ±{shownLength(shown.threshold, units)} {lengthUnit(units)} around the first reading: inside it
              nothing a tape can show has changed. {cap(shown.noise)}.
            </p>
          </section>
          <section className={leavesCss.leaf} aria-label="Measure now">
            <h2>Measure now</h2>
            {view.needs ? (
              <Needs needs={view.needs} hidden={view.hidden} client={client.id} />
            ) : (
              <MeasureForm
                client={client.id}
                kinds={view.kinds}
                units={units}
                today={me.data?.today ?? ''}
                keep={keep}
              />
            )}
            <p className="caveat">{view.how}</p>
          </section>
          {!view.needs && (
            <Photos
              client={client.id}
              view={view}
              keep={keep}
              today={me.data?.today ?? ''}
              mayDrop={!!me.data?.may_plan}
            />
          )}
          <Sessions view={view} client={client.id} keep={keep} mayWithdraw={!!me.data?.may_plan} units={units} />
        </main>
        <aside className="margin" aria-label="What the tool says">
          <h2>Left against right</h2>
          {view.kinds.map((k) => k.gap && <Answer key={k.id} answer={k.gap} />)}
          <h2>Real changes?</h2>
          {view.kinds
            .flatMap((k) => [k.left.change, k.right.change])
            .map((a) => a && <Answer key={a.words} answer={a} />)}
          {view.area.length > 0 && <h2>Area of muscle and bone</h2>}
          {view.area.map((a) => (
            <div key={a.site} className="finding">
              <b>{a.name}</b>: {a.points[a.points.length - 1]!.value.toFixed(1)} cm², {a.bone}.<p>{a.change?.words}</p>
            </div>
          ))}
          {view.sessions.length === 0 && (
            <p className="margin-line">
              Nothing measured yet. The usual error of a tape is used until six own repeats are there.
            </p>
          )}
          <p className="caveat">
            A girth never tells a head. {units === 'imperial' && 'The tool’s sentences speak in centimetres.'}
          </p>
        </aside>
      </div>
    </>
  )
}

/** Needs says what is missing before anything about the body is kept or shown, and what is hidden until then. */
function Needs({ needs, hidden, client }: { needs: string; hidden: number; client: string }) {
  return (
    <p className={clsx(leavesCss.said, 'stop')} role="status">
      {cap(needs)}.{' '}
      {hidden > 0 &&
        `What was kept by an earlier consent (${hidden === 1 ? '1 session or photo' : `${hidden} sessions and photos`}) is hidden until it is given again, or erased. `}
      <Link to={`/clients/${client}/dossier`}>To Consent, in the dossier</Link>
    </p>
  )
}

const cap = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)

function Course({ kind, units }: { kind: KindView; units: Units }) {
  const convert = (points: KindView['left']['points']) =>
    points.map((p) => ({ ...p, value: shownLength(p.value, units) }))
  return (
    <div className={css.courses}>
      {(['left', 'right'] as const).map((side) => (
        <figure key={side}>
          <figcaption>
            {side}
            <b>
              {kind[side].points.length > 0 &&
                ` ${shownLength(kind[side].points[kind[side].points.length - 1]!.value, units)} ${lengthUnit(units)}`}
            </b>
            {kind[side].change?.real ? <span className={css.real}> really changed</span> : ''}
          </figcaption>
          <CourseChart
            points={convert(kind[side].points)}
            band={units === 'imperial' ? kind.threshold / 2.54 : kind.threshold}
            name={`${kind.name}, ${side}`}
            unit={lengthUnit(units)}
            width={430}
            height={160}
          />
        </figure>
      ))}
    </div>
  )
}

function Answer({ answer }: { answer: AnswerView }) {
  return <div className={answer.real ? 'finding does' : 'finding quiet'}>{answer.words}</div>
}

function Sessions({
  view,
  client,
  keep,
  mayWithdraw,
  units,
}: {
  view: MeasuresView
  client: string
  keep: (v: MeasuresView) => void
  mayWithdraw: boolean
  units: Units
}) {
  const cache = useQueryClient()
  const [all, setAll] = useState(false)
  const [gone, setGone] = useState(false)
  const stale = () => touched(cache, ['measures'])
  const back = useWrite(async (s: MeasuringView, version: number) => {
    keep(
      await got(
        api.PUT('/clients/{client}/measures/{measuring}', {
          params: { path: { client, measuring: s.id } },
          body: { version, on: s.on, girths: s.girths, skinfold_mm: s.skinfold_mm, mass_kg: s.mass_kg, note: s.note },
        }),
      ),
    )
  }, stale)
  const away = useWrite(async (s: MeasuresView['sessions'][number]) => {
    const next = await got(
      api.DELETE('/clients/{client}/measures/{measuring}', {
        params: { path: { client, measuring: s.id }, query: { version: s.version } },
      }),
    )
    keep(next)
    const gone = next.gone.find((g) => g.id === s.id)
    message.open({
      key: s.id,
      duration: 10,
      content: (
        <>
          The session of {s.words} is taken away.{' '}
          <Button
            size="small"
            type="primary"
            onClick={() => {
              message.destroy(s.id)
              void back.run(s, gone?.version ?? s.version + 1)
            }}
          >
            Undo
          </Button>
        </>
      ),
    })
  }, stale)
  const why = away.why || back.why
  if (view.sessions.length + view.gone.length === 0) return null
  return (
    <section className={leavesCss.leaf} aria-label="Sessions">
      <h2>Measured so far</h2>
      {view.sessions.slice(0, all ? undefined : 4).map((s) => (
        <p key={s.id} className={css.measured}>
          <b>{s.words}</b>, by {s.by}: flexed {side(s.medians.flexed_left, units)} left,{' '}
          {side(s.medians.flexed_right, units)} right; relaxed {side(s.medians.relaxed_left, units)} and{' '}
          {side(s.medians.relaxed_right, units)}
          {s.mass_kg ? `; ${s.mass_kg} kg` : ''}
          {s.note && `; ${s.note}`}
          {s.another.length > 0 && <span className="warn"> Readings far apart: {s.another.join(', ')}.</span>}
          {mayWithdraw && (
            <button type="button" className="link away" onClick={() => void away.run(s)}>
              take away<span className="only-read"> the session of {s.words}</span>
            </button>
          )}
          {s.was.map((w) => (
            <span key={w.when + w.words} className={css.measuredWas}>
              before {w.by} kept {w.words}, {w.when}
            </span>
          ))}
        </p>
      ))}
      {why && <p className="fault">{why}</p>}
      {view.sessions.length > 4 && (
        <button type="button" className="link" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `All ${view.sessions.length}`}
        </button>
      )}
      {view.gone.length > 0 && (
        <button type="button" className={clsx('link', css.gone)} aria-expanded={gone} onClick={() => setGone(!gone)}>
          {gone ? 'Hide what was taken away' : `Taken away: ${view.gone.length}`}
        </button>
      )}
      {gone &&
        view.gone.map((s) => (
          <p key={s.id} className={css.measured}>
            <b>{s.words}</b>, taken away by {s.by}
            {s.was.map((w) => (
              <span key={w.when + w.words} className={css.measuredWas}>
                {w.by} kept {w.words}, {w.when}
              </span>
            ))}
            {mayWithdraw && (
              <button type="button" className="link away" onClick={() => void back.run(s, s.version)}>
                bring it back
              </button>
            )}
          </p>
        ))}
    </section>
  )
}

const side = (cm: number | undefined, units: Units) => (cm === undefined ? '–' : shownLength(cm, units).toFixed(1))

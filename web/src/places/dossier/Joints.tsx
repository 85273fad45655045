import { Button, Checkbox, Segmented, Select } from 'antd'
import { useState } from 'react'
import { api, got, Problem, type DossierView, type JointView } from '../../api/client'
import { useSending } from '../../api/sending'
import { Spark } from '../../figures/Spark'
import { Note } from './Fill'
import { Blank, number, trimmed } from '../../ui/Blank'
import { valueOf, type Edit } from './useDossier'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'
import { useWrite } from '../../api/useWrite'

/** Joints is the record of aches, a line a joint with both sides; a side is scored in place. */
export function Joints({
  view,
  locked,
  today,
  keep,
}: {
  view: DossierView
  locked: boolean
  today: string
  keep: (v: DossierView) => void
}) {
  const [scoring, setScoring] = useState<JointView | null>(null)
  const names = [...new Set(view.joints.map((j) => j.name))]
  return (
    <section className={leavesCss.leaf} aria-label="Joints">
      <h2>Joints</h2>
      <div className={css.joints}>
        <span />
        <b>left</b>
        <b>right</b>
        {names.map((name) => (
          <JointLine
            key={name}
            name={name}
            sides={view.joints.filter((j) => j.name === name)}
            score={(j) => setScoring(j)}
            here={scoring}
            locked={locked || !view.dossier.health_consent}
          />
        ))}
      </div>
      {scoring && (
        <Score
          key={scoring.joint + scoring.side}
          joint={scoring}
          client={view.id}
          today={today}
          done={(v) => {
            if (v) keep(v)
            setScoring(null)
          }}
        />
      )}
      <p className="caveat">
        0 nothing … 10 the worst. Over 3 outside training, twice in a row, or rising, asks for a clinician.
      </p>
    </section>
  )
}

function JointLine({
  name,
  sides,
  score,
  here,
  locked,
}: {
  name: string
  sides: JointView[]
  score: (j: JointView) => void
  here: JointView | null
  locked: boolean
}) {
  return (
    <>
      <span>{name}</span>
      {sides.map((j) => {
        const said = j.reports.length > 0 ? j.reports[j.reports.length - 1] : null
        return (
          <button
            key={j.side}
            data-joint={`${j.joint} ${j.side}`}
            type="button"
            disabled={locked}
            className={clsx(
              css.joint,
              j.sore === 'bad' ? css.bad : j.sore && css.sore,
              here?.joint === j.joint && here.side === j.side && css.here,
            )}
            onClick={() => score(j)}
            title={said ? `${said.words}${said.provokes ? `: ${said.provokes}` : ''}` : 'not scored yet'}
          >
            <span className="only-read">
              {name}, {j.side}:{' '}
            </span>
            <b>{j.score ?? '–'}</b>{' '}
            {j.reports.length > 1 && (
              <Spark
                values={j.reports.map((r) => r.score)}
                most={10}
                text={`from ${j.reports[0]!.words} to ${said!.words}: ${j.reports.map((r) => r.score).join(', ')}`}
              />
            )}
            {said?.provokes && <i>{said.provokes}</i>}
            <span className="only-read">. Score it</span>
          </button>
        )
      })}
    </>
  )
}

function Score({
  joint,
  client,
  today,
  done,
}: {
  joint: JointView
  client: string
  today: string
  done: (v: DossierView | null) => void
}) {
  const report = useSending()
  const [score, setScore] = useState<number | null>(null)
  const [provokes, setProvokes] = useState(joint.reports[joint.reports.length - 1]?.provokes ?? '')
  const [outside, setOutside] = useState(false)
  const {
    run: send,
    why,
    busy,
  } = useWrite(async () => {
    if (score === null) throw new Problem(422, 'Choose a score from 0 to 10.')
    const body = { on: today, joint: joint.joint, side: joint.side, score, provokes, outside }
    done(
      await got(
        api.POST('/clients/{client}/joints', {
          params: { path: { client } },
          body: { id: report.idOf(body), ...body },
        }),
      ),
    )
  })
  return (
    <div className={css.score}>
      <p>
        <b>
          {joint.name}, {joint.side}
        </b>{' '}
        today
      </p>
      <Segmented
        size="small"
        aria-label={`Score of ${joint.name}, ${joint.side}`}
        value={score ?? -1}
        onChange={(v) => setScore(v)}
        options={Array.from({ length: 11 }, (_, i) => ({ value: i, label: String(i) }))}
      />
      <p>
        provoked by{' '}
        <Blank
          label="Provoked by"
          shown={provokes}
          read={trimmed}
          save={(v) => setProvokes(v as string)}
          placeholder="what provokes it"
        />
      </p>
      <p>
        <Checkbox checked={outside} onChange={(e) => setOutside(e.target.checked)}>
          felt outside training too
        </Checkbox>
      </p>
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      <Button size="small" type="primary" loading={busy} disabled={busy} onClick={send}>
        Save the score
      </Button>{' '}
      <Button size="small" onClick={() => done(null)}>
        Leave it
      </Button>
    </div>
  )
}

interface Checks {
  one_weight: string
  two_weights: string
  dip_level: string
  clean_dips: number
  clean_pulls: number
}

const yesNo = [
  { value: '', label: 'not tried' },
  { value: 'yes', label: 'yes' },
  { value: 'no', label: 'no' },
]

/** MobilityChecks are two checks and the ladder of dips and pull-ups, with what they lead to. */
export function MobilityChecks({ edit, locked }: { edit: Edit; locked: boolean }) {
  const m: Checks = valueOf(edit, 'mobility')
  const put = (part: Partial<Checks>) => edit.change('mobility', { ...m, ...part })
  return (
    <section className={leavesCss.leaf} aria-label="Mobility">
      <h2>Mobility and the ladder</h2>
      <p className={leavesCss.prose}>
        Elbows stay forward overhead with one weight in two hands:{' '}
        <Segmented
          size="small"
          aria-label="With one weight"
          disabled={locked}
          value={m.one_weight}
          onChange={(v) => put({ one_weight: v })}
          options={yesNo}
        />{' '}
        with two weights:{' '}
        <Segmented
          size="small"
          aria-label="With two weights"
          disabled={locked}
          value={m.two_weights}
          onChange={(v) => put({ two_weights: v })}
          options={yesNo}
        />
      </p>
      <p className={leavesCss.prose}>
        Dips{' '}
        <Select
          variant="underlined"
          aria-label="Dip ladder"
          disabled={locked}
          value={m.dip_level}
          onChange={(v) => put({ dip_level: v })}
          options={[
            { value: '', label: 'not tried' },
            { value: 'assisted', label: 'assisted or close push-ups' },
            { value: 'bars', label: 'on the bars' },
            { value: 'loaded', label: 'loaded' },
          ]}
        />
        ,{' '}
        <Blank
          label="Clean reps"
          shown={String(m.clean_dips)}
          numeric
          disabled={locked}
          read={number()}
          save={(v) => put({ clean_dips: v as number })}
        />{' '}
        clean reps to a level upper arm. Pull-ups{' '}
        <Blank
          label="Clean pull-ups"
          shown={String(m.clean_pulls)}
          numeric
          disabled={locked}
          read={number()}
          save={(v) => put({ clean_pulls: v as number })}
        />{' '}
        clean reps. Load is added from 10 on.
      </p>
      <Note edit={edit} field="mobility" />
      {edit.query.data!.mobility_says.map((s) => (
        <p key={s} className={css.so}>
          {s}
        </p>
      ))}
    </section>
  )
}

import { DayField } from '../../ui/DayField'
import { Button, Segmented } from 'antd'
import { useState } from 'react'
import { api, got, type DossierView } from '../../api/client'
import { useSending } from '../../api/sending'
import { dayWords } from '../../ui/when'
import { Blank, trimmed } from '../../ui/Blank'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'
import { useWrite } from '../../api/useWrite'

interface Answer {
  yes?: boolean
  cleared_on?: string | null
  cleared_by?: string
  still_holds?: boolean
}

/** Screening is the last round of the questions, and the questions themselves when they are asked again. */
export function Screening({
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
  const [asking, setAsking] = useState(false)
  const asked = view.asked
  const yes = view.questions.filter((q) => asked?.answers[q.id]?.yes)
  return (
    <section className={leavesCss.leaf} aria-label="Screening">
      <h2>Screening</h2>
      {asking ? (
        <Questions
          view={view}
          today={today}
          done={(v) => {
            if (v) keep(v)
            setAsking(false)
          }}
        />
      ) : (
        <>
          {asked ? (
            <p>
              Asked on <b>{asked.when}</b> by {asked.by}: {yes.length === 0 ? 'no to every question.' : 'yes to'}
            </p>
          ) : view.answers_hidden ? (
            <p>What was answered is a coach’s to see; what it comes to stands above.</p>
          ) : (
            <p>Not asked yet. No sheet leaves before the questions are answered.</p>
          )}
          {yes.map((q) => {
            const a = asked.answers[q.id]
            return (
              <p key={q.id} className={clsx(leavesCss.said, a!.cleared_on ? 'clear' : q.level)}>
                {q.text}
                {a!.cleared_on
                  ? `, cleared on ${dayWords(a!.cleared_on)}${a!.cleared_by ? ` by ${a!.cleared_by}` : ''}`
                  : `. ${q.says}`}
              </p>
            )
          })}
          {view.hidden_rounds > 0 && (
            <p className={clsx(leavesCss.said, 'stop')}>
              {view.hidden_rounds === 1 ? 'A round of answers is' : `${view.hidden_rounds} rounds of answers are`} kept
              by a consent that was withdrawn: hidden, and counted as not asked.
            </p>
          )}
          {view.rounds.length > 1 && <p className="caveat">Earlier: {view.rounds.slice(1).join(', ')}.</p>}
          {!locked && (
            <Button
              type={asked ? 'default' : 'primary'}
              onClick={() => setAsking(true)}
              disabled={!view.dossier.health_consent}
            >
              {asked ? 'Ask again' : 'Ask the questions'}
            </Button>
          )}
          {!view.dossier.health_consent && (
            <p className="caveat">First the client’s consent to keep health notes, with its date (under Consent).</p>
          )}
        </>
      )}
      <p className="caveat">{view.no_diagnosis}</p>
    </section>
  )
}

function Questions({ view, today, done }: { view: DossierView; today: string; done: (v: DossierView | null) => void }) {
  const round = useSending()
  // Every question is asked anew; an old clearance is told, and asked whether it still holds.
  const [answers, setAnswers] = useState<Record<string, Answer>>(() =>
    Object.fromEntries(view.questions.map((q) => [q.id, {}])),
  )
  const clearance = (q: string) => {
    const a = view.asked?.answers[q]
    return a?.yes && a.cleared_on ? a : null
  }
  const put = (q: string, part: Partial<Answer>) => setAnswers((a) => ({ ...a, [q]: { ...a[q], ...part } }))
  const open = view.questions.filter((q) => answers[q.id]!.yes === undefined).length
  const {
    run: send,
    busy,
    problem,
  } = useWrite(async () => {
    const given: Record<string, { yes: boolean; cleared_on?: string; cleared_by?: string; still_holds?: boolean }> = {}
    for (const [q, a] of Object.entries(answers)) {
      if (a.yes === undefined) continue
      const was = clearance(q)
      if (!a.yes) given[q] = { yes: false }
      else if (a.still_holds === true && was?.cleared_on)
        given[q] = { yes: true, cleared_on: was.cleared_on, cleared_by: was.cleared_by, still_holds: true }
      else
        given[q] = { yes: true, ...(a.cleared_on ? { cleared_on: a.cleared_on, cleared_by: a.cleared_by ?? '' } : {}) }
    }
    const body = { on: today, answers: given }
    done(
      await got(
        api.POST('/clients/{client}/screenings', {
          params: { path: { client: view.id } },
          body: { id: round.idOf(body), ...body },
        }),
      ),
    )
  })
  const faults = problem?.faults ?? []
  const why = !problem || faults.length > 0 ? '' : `Not saved: ${problem.message} Your answers stay here.`
  return (
    <div className="questions">
      {view.questions.map((q) => {
        const a = answers[q.id]
        const was = a!.yes ? clearance(q.id) : null
        const clear = was && a!.still_holds ? was.cleared_on : a!.cleared_on
        const wrong = faults.filter((f) => f.field === `answers.${q.id}` || f.field.startsWith(`answers.${q.id}.`))
        return (
          <div key={q.id} className={clsx(css.question, a!.yes && [css.yes, clear ? 'clear' : q.level])}>
            <span>{q.text}</span>
            <Segmented
              size="small"
              aria-label={q.text}
              value={a!.yes === undefined ? '' : a!.yes ? 'yes' : 'no'}
              onChange={(v) => put(q.id, { yes: v === 'yes' })}
              options={[
                { value: 'no', label: 'no' },
                { value: 'yes', label: 'yes' },
              ]}
            />
            {a!.yes && (
              <span className={css.questionMore}>
                {q.says}
                {was && (
                  <span className={css.stillHolds}>
                    Cleared on {dayWords(was.cleared_on!)}
                    {was.cleared_by && ` by ${was.cleared_by}`}. Does that still hold, with nothing changed since?{' '}
                    <Segmented
                      size="small"
                      aria-label={`Does the clearance still hold: ${q.text}`}
                      value={a!.still_holds === undefined ? '' : a!.still_holds ? 'yes' : 'no'}
                      onChange={(v) => put(q.id, { still_holds: v === 'yes' })}
                      options={[
                        { value: 'yes', label: 'it still holds' },
                        { value: 'no', label: 'no longer' },
                      ]}
                    />
                  </span>
                )}
                {q.clears && (!was || a!.still_holds === false) && (
                  <>
                    {' '}
                    Cleared on{' '}
                    <DayField
                      label={`Cleared on: ${q.text}`}
                      max={today}
                      value={a!.cleared_on ?? null}
                      set={(cleared_on) => put(q.id, { cleared_on })}
                    />{' '}
                    by{' '}
                    <Blank
                      label={`Cleared by: ${q.text}`}
                      placeholder="her doctor"
                      shown={a!.cleared_by ?? ''}
                      read={trimmed}
                      save={(v) => put(q.id, { cleared_by: v as string })}
                    />
                  </>
                )}
              </span>
            )}
            {wrong.map((f) => (
              <span key={f.field} className="fault">
                {f.reason}
              </span>
            ))}
          </div>
        )
      })}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      <p className={css.questionsEnd}>
        <Button type="primary" onClick={send} loading={busy} disabled={busy}>
          Save these answers
        </Button>
        {open > 0 && (
          <Button
            onClick={() =>
              setAnswers((all) =>
                Object.fromEntries(Object.entries(all).map(([q, a]) => [q, { ...a, yes: a.yes ?? false }])),
              )
            }
          >
            No to the other {open}
          </Button>
        )}
        <Button onClick={() => done(null)}>Leave it</Button>
      </p>
    </div>
  )
}

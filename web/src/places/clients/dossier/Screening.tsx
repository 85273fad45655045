import { Button, Segmented } from 'antd'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, type DossierView, type FieldFault } from '../../../api/client'
import { Blank, day, trimmed } from './Fill'

interface Answer {
  yes?: boolean
  cleared_on?: string | null
  cleared_by?: string
}

/** Screening is the last round of the questions, and the questions themselves when they are asked again. */
export function Screening({ view, locked, today, keep }: { view: DossierView; locked: boolean; today: string; keep: (v: DossierView) => void }) {
  const [asking, setAsking] = useState(false)
  const asked = view.asked
  const yes = view.questions.filter((q) => asked?.answers[q.id]?.yes)
  return (
    <section className="leaf" aria-label="Screening">
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
          ) : (
            <p>Not asked yet. No sheet leaves before the questions are answered.</p>
          )}
          {yes.map((q) => {
            const a = asked!.answers[q.id]
            return (
              <p key={q.id} className={`said ${a.cleared_on ? 'clear' : q.level}`}>
                {q.text}
                {a.cleared_on ? `, cleared on ${a.cleared_on}${a.cleared_by ? ` by ${a.cleared_by}` : ''}` : `. ${q.says}`}
              </p>
            )
          })}
          {view.rounds.length > 1 && <p className="caveat">Earlier: {view.rounds.slice(1).join(', ')}.</p>}
          {!locked && (
            <Button type={asked ? 'default' : 'primary'} onClick={() => setAsking(true)} disabled={!view.dossier.health_consent}>
              {asked ? 'Ask again' : 'Ask the questions'}
            </Button>
          )}
          {!view.dossier.health_consent && <p className="caveat">First the client’s consent to keep health notes, with its date (under Consent).</p>}
        </>
      )}
      <p className="caveat">{view.no_diagnosis}</p>
    </section>
  )
}

function Questions({ view, today, done }: { view: DossierView; today: string; done: (v: DossierView | null) => void }) {
  const [id] = useState(() => uuidv7())
  const [answers, setAnswers] = useState<Record<string, Answer>>(() => {
    // A clearance stays known; the answers themselves are asked anew.
    const old: Record<string, Answer> = {}
    for (const q of view.questions) {
      const a = view.asked?.answers[q.id]
      old[q.id] = a?.cleared_on ? { cleared_on: a.cleared_on, cleared_by: a.cleared_by } : {}
    }
    return old
  })
  const [faults, setFaults] = useState<FieldFault[]>([])
  const [why, setWhy] = useState('')
  const [busy, setBusy] = useState(false)
  const put = (q: string, part: Partial<Answer>) => setAnswers((a) => ({ ...a, [q]: { ...a[q], ...part } }))
  const open = view.questions.filter((q) => answers[q.id].yes === undefined).length
  const send = async () => {
    setBusy(true)
    setWhy('')
    const body: Record<string, { yes: boolean; cleared_on?: string; cleared_by?: string }> = {}
    for (const [q, a] of Object.entries(answers)) {
      if (a.yes !== undefined) body[q] = { yes: a.yes, ...(a.yes && a.cleared_on ? { cleared_on: a.cleared_on, cleared_by: a.cleared_by ?? '' } : {}) }
    }
    try {
      done(await got(api.POST('/clients/{client}/screenings', { params: { path: { client: view.id } }, body: { id, on: today, answers: body } })))
    } catch (e) {
      const p = e instanceof Problem ? e : new Problem(0, String(e))
      setFaults(p.faults)
      setWhy(p.faults.length > 0 ? '' : `Not kept: ${p.message} Your answers stay here.`)
    }
    setBusy(false)
  }
  return (
    <div className="questions">
      {view.questions.map((q) => {
        const a = answers[q.id]
        const wrong = faults.filter((f) => f.field === `answers.${q.id}` || f.field.startsWith(`answers.${q.id}.`))
        return (
          <div key={q.id} className={a.yes ? `question yes ${a.cleared_on ? 'clear' : q.level}` : 'question'}>
            <span>{q.text}</span>
            <Segmented size="small" aria-label={q.text} value={a.yes === undefined ? '' : a.yes ? 'yes' : 'no'} onChange={(v) => put(q.id, { yes: v === 'yes' })} options={[{ value: 'no', label: 'no' }, { value: 'yes', label: 'yes' }]} />
            {a.yes && (
              <span className="question-more">
                {q.says}
                {q.clears && (
                  <>
                    {' '}
                    Cleared on <Blank label={`Cleared on: ${q.text}`} type="date" max={today} width={128} shown={a.cleared_on ?? ''} read={day} save={(v) => put(q.id, { cleared_on: v as string | null })} /> by{' '}
                    <Blank label={`Cleared by: ${q.text}`} placeholder="her doctor" shown={a.cleared_by ?? ''} read={trimmed} save={(v) => put(q.id, { cleared_by: v as string })} />
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
      <p className="questions-end">
        <Button type="primary" onClick={send} loading={busy} disabled={busy}>
          Keep these answers
        </Button>
        {open > 0 && (
          <Button onClick={() => setAnswers((all) => Object.fromEntries(Object.entries(all).map(([q, a]) => [q, { ...a, yes: a.yes ?? false }])))}>
            No to the other {open}
          </Button>
        )}
        <Button onClick={() => done(null)}>Leave it</Button>
      </p>
    </div>
  )
}

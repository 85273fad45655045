import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { useState } from 'react'
import { api, got, type CourseShown, type TrialView } from '../../api/client'
import { queries, touched } from '../../api/queries'
import { useSending } from '../../api/sending'
import { useWrite } from '../../api/useWrite'
import { dayWords } from '../../ui/when'
import { message } from '../../ui/tell'
import { Arm, type Side } from './Arm'
import css from './trend.module.css'

/** Trials are a client's pair trials: the one that runs, with what is not alike, and what earlier ones answered. */
export function Trials({ client, mayPlan }: { client: string; mayPlan: boolean }) {
  const trials = useQuery(queries.trials(client))
  if (!trials.data || trials.data.trials.length === 0) return null
  return (
    <section aria-label="Pair trials">
      {trials.data.trials.map((t) => (
        <Trial key={t.id} client={client} trial={t} mayPlan={mayPlan} />
      ))}
    </section>
  )
}

function Trial({ client, trial: t, mayPlan }: { client: string; trial: TrialView; mayPlan: boolean }) {
  const cache = useQueryClient()
  const stop = useWrite(async (keep: 'left' | 'right') => {
    const { words } = await got(
      api.POST('/clients/{client}/trials/{trial}/stop', { params: { path: { client, trial: t.id } }, body: { keep } }),
    )
    message.success(words)
    touched(cache, ['plan', 'decisions'])
  })
  return (
    <article className={css.trial}>
      <h2>
        Pair trial
        <span
          className={css.state}
          data-state={t.verdict === 'cannot_tell' || t.verdict === 'not_yet' ? 'unknown' : 'rising'}
        >
          {t.stopped ? 'over' : `week ${Math.min(t.week, t.weeks)} of ${t.weeks}`}
        </span>
      </h2>
      <p className={css.arms}>
        <span data-better={t.verdict === 'left' || undefined}>
          <b>Left</b> {t.left.name}
        </span>
        <span data-better={t.verdict === 'right' || undefined}>
          <b>Right</b> {t.right.name}
        </span>
      </p>
      <p className={css.says}>
        <b>{t.words}</b> {t.found.join(' ')}
      </p>
      {t.differs.length > 0 && <div className={css.watching}>Not alike beside the set-up: {t.differs.join(' ')}</div>}
      {mayPlan && !t.stopped && (
        <p className={css.says}>
          End it, both arms with{' '}
          <button type="button" className="link" disabled={stop.busy} onClick={() => void stop.run('left')}>
            what the left does
          </button>{' '}
          or{' '}
          <button type="button" className="link" disabled={stop.busy} onClick={() => void stop.run('right')}>
            what the right does
          </button>
          {stop.why && <span className="fault"> Not ended: {stop.why}</span>}
        </p>
      )}
      <p className="caveat">
        Since {dayWords(t.started)}. {t.caveat}
      </p>
    </article>
  )
}

/** BeginTrial begins one from a course that is done arm by arm: what the other arm does, which arm, how long. */
export function BeginTrial({ client, course }: { client: string; course: CourseShown }) {
  const cache = useQueryClient()
  const [open, setOpen] = useState(false)
  const own = { movement: course.movement ?? '', settings: course.settings }
  const partners = useQuery(queries.partners(client, open ? JSON.stringify(own) : null))
  const trials = useQuery(queries.trials(client))
  const [at, setAt] = useState(0)
  const [arm, setArm] = useState<Side>('left')
  const [weeks, setWeeks] = useState(8)
  const fresh = useSending()
  const begin = useWrite(async () => {
    const other = partners.data!.partners[at]!
    const pair = {
      left: arm === 'left' ? other : own,
      right: arm === 'left' ? own : other,
      weeks,
    }
    const ask = { ...pair, left: bare(pair.left), right: bare(pair.right) }
    const { words } = await got(
      api.POST('/clients/{client}/trials', { params: { path: { client } }, body: { id: fresh.idOf(ask), ...ask } }),
    )
    message.success(words)
    setOpen(false)
    touched(cache, ['plan', 'decisions'])
  })
  if (trials.data?.trials.some((t) => !t.stopped)) return null
  if (!open)
    return (
      <button type="button" className="link" onClick={() => setOpen(true)}>
        Try another set-up on one arm
      </button>
    )
  return (
    <form
      className={css.leading}
      onSubmit={(e) => {
        e.preventDefault()
        void begin.run()
      }}
    >
      <p>
        A pair trial: for some weeks one arm does another set-up, with the same sets and effort; which arm begins
        changes from session to session. Measure both arms first. Usually it cannot tell, and says how small a
        difference it would have seen.
      </p>
      {partners.data?.why && <p>{partners.data.why}</p>}
      <Select
        aria-label="The other set-up"
        size="small"
        popupMatchSelectWidth={false}
        value={at}
        onChange={setAt}
        options={(partners.data?.partners ?? []).map((p, i) => ({ value: i, label: p.name }))}
      />{' '}
      for the <Arm label="Which arm does it" value={arm} set={setArm} /> for{' '}
      <Select
        aria-label="How many weeks"
        size="small"
        value={weeks}
        onChange={setWeeks}
        options={[6, 7, 8, 9, 10, 11, 12].map((n) => ({ value: n, label: `${n} weeks` }))}
      />{' '}
      <Button size="small" type="primary" htmlType="submit" disabled={begin.busy || !partners.data?.partners[at]}>
        Begin
      </Button>{' '}
      <Button size="small" type="text" onClick={() => setOpen(false)}>
        Leave it
      </Button>
      {begin.why && (
        <p className="fault" role="alert">
          Not begun: {begin.why}
        </p>
      )}
    </form>
  )
}

const bare = ({ movement, settings }: { movement: string; settings?: CourseShown['settings'] }) => ({
  movement,
  settings,
})

import { Button, Input, Segmented } from 'antd'
import { useState } from 'react'
import { api, got, type PrioritiesView } from '../../api/client'
import { useSending } from '../../api/sending'
import { poseWords } from '../../ui/poses'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './priorities.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  view: PrioritiesView
  client: string
  locked: boolean
  today: string
  keep: (v: PrioritiesView) => void
}

/** PoseRating is the checklist: what was looked at, how each head looks against the rest, how sure. */
export function PoseRating({ view, client, locked, today, keep }: Props) {
  const last = view.rating
  const [open, setOpen] = useState(false)
  const rating = useSending()
  const [views, setViews] = useState<string[]>([])
  const [heads, setHeads] = useState<Record<string, number>>({})
  const [confidence, setConfidence] = useState(2)
  const [note, setNote] = useState('')
  const { run: send, problem } = useWrite(async () => {
    const body = { on: today, heads, confidence, views, note }
    keep(
      await got(
        api.POST('/clients/{client}/ratings', {
          params: { path: { client } },
          body: { id: rating.idOf(body), ...body },
        }),
      ),
    )
    rating.kept()
    setOpen(false)
  })
  const faults = problem?.faults ?? []
  const why = faults.length > 0 ? '' : (problem?.message ?? '')
  const said = (field: string) =>
    faults
      .filter((f) => f.field === field)
      .map((f) => (
        <span key={f.reason} className="fault">
          {f.reason}
        </span>
      ))
  return (
    <section className={leavesCss.leaf} aria-label="Pose rating">
      <h2>By eye</h2>
      {!open && (
        <>
          <p>
            {last ? (
              <>
                Rated on <b>{last.words}</b>, {['', 'a guess', 'fairly sure', 'sure'][last.confidence]}, from{' '}
                {(last.views ?? []).length} of 6 views.{last.note && ` “${last.note}”`}
              </>
            ) : (
              'Never rated yet. Front, side and back, straight and bent: how does each head look against the rest?'
            )}
          </p>
          {!locked && <Button onClick={() => setOpen(true)}>{last ? 'Rate again' : 'Rate the poses'}</Button>}
        </>
      )}
      {open && (
        <div className="rating">
          <p>
            Looked at{' '}
            <span className={leavesCss.chips} role="group" aria-label="Views looked at">
              {view.views.map((v) => {
                const on = views.includes(v)
                return (
                  <button
                    key={v}
                    type="button"
                    className={on ? clsx(leavesCss.chip, leavesCss.on) : leavesCss.chip}
                    aria-pressed={on}
                    onClick={() => setViews(on ? views.filter((x) => x !== v) : [...views, v])}
                  >
                    {poseWords[v]}
                  </button>
                )
              })}
            </span>{' '}
            <button type="button" className="link" onClick={() => setViews(view.views)}>
              all six
            </button>
            {said('views')}
          </p>
          {view.heads.map((h) => (
            <p key={h.id} className={css.ratingHead}>
              <span>{h.name}</span>
              <Segmented
                size="small"
                aria-label={`How the ${h.name} looks`}
                value={heads[h.id] ?? 0}
                onChange={(v) => setHeads({ ...heads, [h.id]: v })}
                options={[
                  { value: -2, label: 'far behind' },
                  { value: -1, label: 'behind' },
                  { value: 0, label: 'in line' },
                  { value: 1, label: 'ahead' },
                  { value: 2, label: 'far ahead' },
                ]}
              />
            </p>
          ))}
          {said('heads')}
          <p>
            I am{' '}
            <Segmented
              size="small"
              aria-label="How sure"
              value={confidence}
              onChange={(v) => setConfidence(v)}
              options={[
                { value: 1, label: 'guessing' },
                { value: 2, label: 'fairly sure' },
                { value: 3, label: 'sure' },
              ]}
            />
          </p>
          <Input
            aria-label="Note on the rating"
            placeholder="what was seen"
            value={note}
            onChange={(e) => setNote(e.target.value)}
          />
          {why && (
            <p className="fault" role="alert">
              Not saved: {why}
            </p>
          )}
          <p>
            <Button type="primary" onClick={() => void send()} disabled={Object.keys(heads).length === 0}>
              Save the rating
            </Button>{' '}
            <Button onClick={() => setOpen(false)}>Leave it</Button>
          </p>
        </div>
      )}
      <p className="caveat">A head is rated by eye and never guessed from a girth. A rating speaks for four months.</p>
    </section>
  )
}

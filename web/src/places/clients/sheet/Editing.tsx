import { queries, touched } from '../../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { type Load, type SessionView, type SheetView } from '../../../api/client'
import { useKeys } from '../../../app/keys'
import { restOf, withRest } from '../../../prescription/combos'
import { doseOf as read, toFind, withDose, type Dose } from '../../../prescription/rows'
import { CueReason } from '../week/CueReason'
import { Efforts } from '../week/Efforts'
import { readTempo } from '../week/Prescription'
import { SaveNote, UndoRedo } from '../../../ui/SaveNote'
import { useDraft } from '../week/useDraft'
import { usePreview } from '../week/usePreview'
import { Inline, NumberBox } from './Inline'
import type { Parts } from './parts'

interface Props {
  client: string
  session: SessionView
  children: (sheet: SheetView | null, parts: Parts, saved: boolean) => ReactNode
}

const mostCues = 3
const longestCue = 60

/** Editing lets a sheet be changed where it is read: dose, load, cues, name and warm-up; what it reads like comes from the core at once, saving follows. */
export function Editing({ client, session, children }: Props) {
  const { draft, doc, edit, undo, redo, canUndo, canRedo, settle, itIsSo } = useDraft(client, session)
  const { session: seen, faults } = usePreview(client, session, draft, null, '')
  const cache = useQueryClient()
  const saved = doc.is === 'saved'
  const sheet = useQuery(queries.reading(client, session.id, draft))
  const version = session.version
  useEffect(() => {
    if (saved) touched(cache, ['issues'])
  }, [saved, version, cache])
  useKeys({ 'Ctrl+z': { does: 'undo', run: undo }, 'Ctrl+Shift+z': { does: 'redo', run: redo } })

  const fault = (i: number, ...fields: string[]) =>
    faults.find((f) =>
      fields.some(
        (x) =>
          f.field === `slots[${i}].${x}` || (f.field.startsWith(`slots[${i}].rows[`) && f.field.split('.')[2] === x),
      ),
    )?.reason
  const doseOf = (i: number) => read(draft.slots[i]?.rows.length ? draft.slots[i].rows : (seen.slots[i]?.rows ?? []))
  const setDose = (i: number, field: string, part: Partial<Dose>) => {
    const id = draft.slots[i].id
    edit(`sheet ${id} ${field}`, (d) => ({
      ...d,
      slots: d.slots.map((s) => {
        if (s.id !== id) return s
        return withDose(s.rows.length > 0 ? s : { ...s, rows: seen.slots[i]?.rows ?? [] }, { ...doseOf(i)!, ...part })
      }),
    }))
  }
  const setCues = (i: number, cues: string[]) => {
    const id = draft.slots[i].id
    edit('', (d) => ({ ...d, slots: d.slots.map((s) => (s.id === id ? { ...s, cues, cue_reason: undefined } : s)) }))
  }
  const setReason = (i: number, reason: string) => {
    const id = draft.slots[i].id
    edit('', (d) => ({
      ...d,
      slots: d.slots.map((s) => (s.id === id ? { ...s, cue_reason: reason || undefined } : s)),
    }))
  }
  const asksReason = (i: number) => faults.some((f) => f.field === `slots[${i}].cues` && f.asks)
  /** held is what may not be changed here: locked, or not there yet */
  const held = (i: number) => !doseOf(i) || !!draft.locked || !!draft.slots[i].locked
  const inline = (
    i: number,
    label: string,
    words: string,
    fields: string[],
    editor: (dose: Dose, done: () => void) => ReactNode,
  ) =>
    held(i) ? (
      words
    ) : (
      <Inline
        label={`${label} of slot ${i + 1}`}
        fault={fault(i, ...fields)}
        editor={(done) => editor(doseOf(i)!, done)}
      >
        {words}
      </Inline>
    )

  const parts: Parts = {
    session: (words) =>
      draft.locked ? (
        words
      ) : (
        <Inline
          label="the name"
          fault={faults.find((f) => f.field === 'name')?.reason}
          editor={() => (
            <input
              className="inline-box wide"
              aria-label="Name of the session"
              autoFocus
              maxLength={60}
              defaultValue={draft.name}
              onChange={(e) => e.target.value.trim() && edit('name', (d) => ({ ...d, name: e.target.value }))}
            />
          )}
        >
          {words}
        </Inline>
      ),
    warmUp: (words) =>
      draft.locked ? (
        words
      ) : (
        <Inline
          label="the warm-up"
          fault={faults.find((f) => f.field === 'warm_up_min')?.reason}
          editor={() => (
            <>
              <NumberBox
                focus
                label="General warm-up, minutes"
                value={draft.warm_up_min}
                set={(v) => edit('warm-up', (d) => ({ ...d, warm_up_min: v }))}
              />{' '}
              min easy warm-up
            </>
          )}
        >
          {words}
        </Inline>
      ),
    sets: (i, words) =>
      inline(i, 'sets and reps', words, ['sets', 'reps_low', 'reps_high', 'method'], (d) => (
        <>
          <NumberBox focus label="Sets" value={d.sets} set={(sets) => setDose(i, 'sets', { sets: Math.round(sets) })} />{' '}
          ×{' '}
          <NumberBox
            label="Fewest reps"
            value={d.reps_low}
            set={(v) => setDose(i, 'reps_low', { reps_low: Math.round(v) })}
          />{' '}
          –{' '}
          <NumberBox
            label="Most reps"
            value={d.reps_high}
            set={(v) => setDose(i, 'reps_high', { reps_high: Math.round(v) })}
          />
        </>
      )),
    load: (i, words) =>
      inline(i, 'the load', words, ['load'], (d, done) => (
        <select
          aria-label="Load"
          autoFocus
          value={JSON.stringify(d.load)}
          onChange={(e) => {
            setDose(i, 'load', { load: JSON.parse(e.target.value) as Load })
            done()
          }}
        >
          <option value={JSON.stringify(toFind)}>find it</option>
          {(seen.slots[i]?.steps ?? []).map((s) => (
            <option key={s.words} value={JSON.stringify(s.load)}>
              {s.words}
            </option>
          ))}
        </select>
      )),
    effort: (i, words) =>
      inline(i, 'the effort', words, ['reserve'], (d, done) =>
        d.reserves?.length ? (
          <>
            left, set by set{' '}
            <Efforts
              focus
              dose={d}
              minReserve={seen.min_reserve}
              canFail={seen.slots[i]?.can_fail_alone ?? false}
              set={(part) => setDose(i, 'reserves', part)}
            />
          </>
        ) : (
          <select
            aria-label="Reps left in reserve"
            autoFocus
            value={d.reserve}
            onChange={(e) => {
              setDose(i, 'reserve', { reserve: Number(e.target.value) })
              done()
            }}
          >
            {[0, 1, 2, 3, 4, 5].map((r) => (
              <option key={r} value={r} disabled={r < seen.min_reserve || (r === 0 && !seen.slots[i]?.can_fail_alone)}>
                {r === 0 ? 'to the limit' : `${r} left`}
              </option>
            ))}
          </select>
        ),
      ),
    rest: (i, words) =>
      inline(i, 'the rest', words, ['rest_s'], (d) => (
        <>
          rest{' '}
          <NumberBox
            focus
            label="Rest in seconds"
            value={restOf(draft, i) ?? d.rest_s}
            set={(v) =>
              restOf(draft, i) === undefined
                ? setDose(i, 'rest', { rest_s: Math.round(v) })
                : edit(`rest ${i}`, (x) => withRest(x, i, Math.round(v)))
            }
          />{' '}
          s
        </>
      )),
    tempo: (i, words) =>
      inline(i, 'the tempo', words, ['tempo'], (d) => (
        <TempoBox
          tempo={d.tempo ?? []}
          set={(tempo) => setDose(i, 'tempo', { tempo: tempo.some((t) => t > 0) ? tempo : undefined })}
        />
      )),
    cues: (i, cues) =>
      held(i) ? (
        <ul className="sheet-cues">
          {cues.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      ) : (
        <>
          <Cues
            key={draft.slots[i].id}
            slot={i}
            cues={draft.slots[i].cues}
            set={(next) => setCues(i, next)}
            fault={fault(i, 'cues')}
          />
          {(asksReason(i) || draft.slots[i].cue_reason) && (
            <CueReason
              reason={draft.slots[i].cue_reason ?? ''}
              readOnly={false}
              set={(reason) => setReason(i, reason)}
            />
          )}
        </>
      ),
  }
  return (
    <>
      <p className="sheet-editing">
        <span>
          {draft.locked
            ? 'This session is locked: unlock it to change it, in'
            : 'Click what you want to change; movements and settings are changed in'}{' '}
          <Link to={`/clients/${client}/week/${session.id}`}>the week</Link>.
        </span>
        <SaveNote doc={doc} what="this session" settle={settle} itIsSo={itIsSo} mayPlan />
        <UndoRedo undo={undo} redo={redo} canUndo={canUndo} canRedo={canRedo} />
      </p>
      {children(sheet.data && sheet.data.slots.length === draft.slots.length ? sheet.data : null, parts, saved)}
    </>
  )
}

function TempoBox({ tempo, set }: { tempo: number[]; set: (tempo: number[]) => void }) {
  const [typed, setTyped] = useState(tempo.some((t) => t > 0) ? tempo.join('-') : '')
  const wrong = readTempo(typed) === null
  return (
    <>
      <input
        className={wrong ? 'inline-box wide bad' : 'inline-box wide'}
        autoFocus
        aria-label="Tempo: down, hold, up, hold, in seconds"
        placeholder="controlled, or 3-1-1-0"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value)
          const next = readTempo(e.target.value)
          if (next) set(next)
        }}
      />
      {wrong && <span className="fault">four numbers: down-hold-up-hold, like 3-1-1-0</span>}
    </>
  )
}

/** Cues are edited line by line; an emptied one goes, and there are at most three. */
function Cues({
  slot,
  cues,
  set,
  fault,
}: {
  slot: number
  cues: string[]
  set: (cues: string[]) => void
  fault?: string
}) {
  const [adding, setAdding] = useState('')
  const add = () => {
    const cue = adding.trim()
    if (cue && cues.length < mostCues && !cues.includes(cue)) set([...cues, cue])
    setAdding('')
  }
  return (
    <ul className="sheet-cues">
      {cues.map((c, n) => (
        <li key={n}>
          <Inline
            label={`cue ${n + 1} of slot ${slot + 1}`}
            editor={() => (
              <input
                className="inline-box cue"
                aria-label="Cue"
                autoFocus
                maxLength={longestCue}
                defaultValue={c}
                onBlur={(e) => {
                  const next = e.target.value.trim()
                  if (next !== c)
                    set(next === '' ? cues.filter((_, k) => k !== n) : cues.map((x, k) => (k === n ? next : x)))
                }}
                onKeyDown={(e) => {
                  if (e.key === 'Enter') e.currentTarget.blur()
                }}
              />
            )}
          >
            {c}
          </Inline>
        </li>
      ))}
      {cues.length < mostCues && (
        <li className="sheet-cue-add">
          <input
            className="inline-box cue"
            aria-label={`Another cue for slot ${slot + 1}`}
            placeholder="+ another cue"
            maxLength={longestCue}
            value={adding}
            onChange={(e) => setAdding(e.target.value)}
            onBlur={add}
            onKeyDown={(e) => e.key === 'Enter' && add()}
          />
        </li>
      )}
      {fault && (
        <li>
          <span className="fault" role="alert">
            {fault}
          </span>
        </li>
      )}
    </ul>
  )
}

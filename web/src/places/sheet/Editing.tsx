import { CueReason } from '../../prescription/CueReason'
import { faultOf, restOf, rowsOf, withRest, withRow } from '../../prescription/session'
import { useDraft } from '../../prescription/useDraft'
import { usePreview } from '../../prescription/usePreview'
import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { Row, SessionView, SheetView } from '../../api/client'
import { useKeys } from '../../app/keys'
import { useCatalogue } from '../../app/me'
import { SaveNote, UndoRedo } from '../../ui/SaveNote'
import { Inline, NumberBox } from './Inline'
import type { Parts } from '../../ui/sheet/parts'
import { Lines, LoadOf, ReserveOf, SetsOf, TempoOf } from './rowEditors'
import { clsx } from 'clsx'
import css from './editing.module.css'
import sheetCss from '../../ui/sheet/sheet.module.css'

interface Props {
  client: string
  session: SessionView
  children: (sheet: SheetView | null, parts: Parts, saved: boolean) => ReactNode
}

/**
 * Editing lets a sheet be changed where it is read: dose, load, cues, name and warm-up; what it reads like comes from
 * the core at once, saving follows.
 */
export function Editing({ client, session, children }: Props) {
  const { draft, doc, edit, undo, redo, canUndo, canRedo, settle, itIsSo } = useDraft(client, session)
  const { session: seen, faults } = usePreview(client, session, draft, null, '')
  const cache = useQueryClient()
  const { limits } = useCatalogue()
  const saved = doc.is === 'saved'
  const sheet = useQuery(queries.reading(client, session.id, draft))
  const version = session.version
  useEffect(() => {
    if (saved) touched(cache, ['issues'])
  }, [saved, version, cache])
  useKeys({ 'Ctrl+z': { does: 'undo', run: undo }, 'Ctrl+Shift+z': { does: 'redo', run: redo } })

  const fault = (i: number, ...fields: string[]) => {
    const own = faults
      .filter((f) => f.field.startsWith(`slots[${i}].`))
      .map((f) => ({ ...f, field: f.field.replace(/^slots\[\d+\]\./, '') }))
    return fields.map((x) => own.find((f) => f.field === x)?.reason ?? faultOf(own, x)).find((f) => f)
  }
  const slotAt = (i: number) => draft.slots[i]
  const rowsAt = (i: number) => {
    const slot = slotAt(i)
    return slot ? rowsOf(slot, seen.slots[i]) : []
  }
  const setRow = (i: number, row: number, field: string, part: Partial<Row>) => {
    const id = slotAt(i)?.id
    edit(`sheet ${id} ${row} ${field}`, (d) => ({
      ...d,
      slots: d.slots.map((s) => (s.id === id ? withRow(s, seen.slots[i], row, part) : s)),
    }))
  }
  const setCues = (i: number, cues: string[]) => {
    const id = slotAt(i)?.id
    edit('', (d) => ({ ...d, slots: d.slots.map((s) => (s.id === id ? { ...s, cues, cue_reason: undefined } : s)) }))
  }
  const setReason = (i: number, reason: string) => {
    const id = slotAt(i)?.id
    edit('', (d) => ({
      ...d,
      slots: d.slots.map((s) => (s.id === id ? { ...s, cue_reason: reason || undefined } : s)),
    }))
  }
  const asksReason = (i: number) => faults.some((f) => f.field === `slots[${i}].cues` && f.asks)
  /** held is what may not be changed here: locked, or not there yet */
  const held = (i: number) => rowsAt(i).length === 0 || !!draft.locked || !!slotAt(i)?.locked
  /** inline opens an editor for each row of a slot; where there is one, a choice closes it. */
  const inline = (i: number, label: string, words: string, fields: string[], Editor: typeof SetsOf, choice = false) =>
    held(i) ? (
      words
    ) : (
      <Inline
        label={`${label} of slot ${i + 1}`}
        fault={fault(i, ...fields)}
        editor={(done) => (
          <Lines
            rows={rowsAt(i)}
            line={(row, at, name) => (
              <Editor
                row={row}
                at={at}
                name={name}
                view={seen.slots[i]}
                set={(part) => {
                  setRow(i, at, Object.keys(part).join(), part)
                  if (choice && rowsAt(i).length === 1) done()
                }}
              />
            )}
          />
        )}
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
              className={clsx(css.inlineBox, css.wide)}
              aria-label="Name of the session"
              autoFocus
              maxLength={limits.name}
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
      inline(
        i,
        'sets and reps',
        words,
        ['sets', 'reps_low', 'reps_high', 'seconds_low', 'seconds_high', 'method', 'rows'],
        SetsOf,
      ),
    load: (i, words) => inline(i, 'the load', words, ['load'], LoadOf, true),
    effort: (i, words) => inline(i, 'the effort', words, ['reserve'], ReserveOf, true),
    rest: (i, words) =>
      held(i) ? (
        words
      ) : (
        <Inline
          label={`the rest of slot ${i + 1}`}
          fault={fault(i, 'rest_s')}
          editor={() => (
            <Lines
              rows={seen.slots[i]?.rest_in ? rowsAt(i).slice(0, 1) : rowsAt(i)}
              line={(row, at, name) => (
                <>
                  rest{' '}
                  <NumberBox
                    focus={at === 0}
                    label={`Rest in seconds${name}`}
                    value={restOf(draft, seen.slots[i], row)}
                    set={(v) =>
                      edit(`rest ${i} ${at}`, (x) => withRest(x, slotAt(i)!.id, seen.slots[i], at, Math.round(v)))
                    }
                  />{' '}
                  s
                </>
              )}
            />
          )}
        >
          {words}
        </Inline>
      ),
    tempo: (i, words) => inline(i, 'the tempo', words, ['tempo'], TempoOf),
    cues: (i, cues) =>
      held(i) ? (
        <ul className={sheetCss.cues}>
          {cues.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      ) : (
        <>
          <Cues
            key={slotAt(i)?.id}
            slot={i}
            cues={slotAt(i)?.cues ?? []}
            set={(next) => setCues(i, next)}
            fault={fault(i, 'cues')}
          />
          {(asksReason(i) || slotAt(i)?.cue_reason) && (
            <CueReason reason={slotAt(i)?.cue_reason ?? ''} readOnly={false} set={(reason) => setReason(i, reason)} />
          )}
        </>
      ),
  }
  return (
    <>
      <section className={css.sheetEditing} aria-label="Changing the sheet">
        <span>
          {draft.locked
            ? 'This session is locked: unlock it to change it, in'
            : 'Click what you want to change; movements and settings are changed in'}{' '}
          <Link to={`/clients/${client}/week/${session.id}`}>the week</Link>.
        </span>
        <SaveNote doc={doc} what="this session" settle={settle} itIsSo={itIsSo} mayPlan />
        <UndoRedo undo={undo} redo={redo} canUndo={canUndo} canRedo={canRedo} />
      </section>
      {children(sheet.data && sheet.data.slots.length === draft.slots.length ? sheet.data : null, parts, saved)}
    </>
  )
}

/** Cues are edited line by line; an emptied one goes. */
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
  const { limits } = useCatalogue()
  const [adding, setAdding] = useState('')
  const add = () => {
    const cue = adding.trim()
    if (cue && cues.length < limits.cues && !cues.includes(cue)) set([...cues, cue])
    setAdding('')
  }
  return (
    <ul className={sheetCss.cues}>
      {cues.map((c, n) => (
        <li key={n}>
          <Inline
            label={`cue ${n + 1} of slot ${slot + 1}`}
            editor={() => (
              <input
                className={clsx(css.inlineBox, css.cue)}
                aria-label="Cue"
                autoFocus
                maxLength={limits.cue}
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
      {cues.length < limits.cues && (
        <li className={css.sheetCueAdd}>
          <input
            className={clsx(css.inlineBox, css.cue)}
            aria-label={`Another cue for slot ${slot + 1}`}
            placeholder="+ another cue"
            maxLength={limits.cue}
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

import { DayField } from '../../ui/DayField'
import { Input, InputNumber } from 'antd'
import { useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import type { MovementView, SessionView } from '../../api/client'
import { useKeys } from '../../app/keys'
import { Prescription } from '../../prescription/Prescription'
import { withRest, withRow } from '../../prescription/session'
import { useArrange } from '../../prescription/useArrange'
import { useDraft, type Draft } from '../../prescription/useDraft'
import { usePreview } from '../../prescription/usePreview'
import { Lock } from '../../ui/Lock'
import { SaveNote, UndoRedo } from '../../ui/SaveNote'
import { useFigures } from '../../figures/Small'
import { Margin } from './Margin'
import { Picker } from '../../ui/stage/Picker'
import { SlotList } from './SlotList'
import { Stage } from '../../ui/stage/Stage'
import css from './builder.module.css'
import { message } from '../../ui/tell'

interface Props {
  client: string
  session: SessionView
  mayPlan: boolean
}

/**
 * Builder is one session under the hand: slots on the left, the active set-up in the middle, what it comes to in the
 * margin.
 */
export function Builder({ client, session, mayPlan }: Props) {
  const { draft, doc, edit, undo, redo, canUndo, canRedo, settle, itIsSo } = useDraft(client, session)
  const arrange = useArrange(client, draft, edit)
  const figure = useFigures(
    draft.slots.map(({ movement, settings }) => ({ movement, settings })),
    client,
  )
  const navigate = useNavigate()
  const asked = (useLocation().state as { slot?: string } | null)?.slot
  const [activeId, setActiveId] = useState<string | null>(
    draft.slots.some((s) => s.id === asked) ? asked! : (draft.slots[0]?.id ?? null),
  )
  const [picking, setPicking] = useState(draft.slots.length === 0 && mayPlan)
  const [turning, setTurning] = useState('')
  const index = Math.max(
    0,
    draft.slots.findIndex((s) => s.id === activeId),
  )
  const active = draft.slots[index]
  const preview = usePreview(client, session, draft, active?.id ?? null, turning)
  const shown = preview.session
  const refused = doc.is === 'refused' ? doc.faults : []
  const faults = [...preview.faults, ...refused.map((f) => ({ ...f, asks: false }))]

  const change = (label: string, id: string, f: (s: Draft['slots'][number]) => Draft['slots'][number]) =>
    edit(label, (d) => ({ ...d, slots: d.slots.map((s) => (s.id === id ? f(s) : s)) }))

  const mayChange = mayPlan && !active?.locked && !draft.locked // what is locked is unlocked first
  const turn = (key: string, value: number | string, grabbing = false) => {
    if (!active || !mayChange) return
    setTurning(key)
    change(`turn ${active.id} ${key} ${grabbing ? 'grab' : ''}`, active.id, (s) => ({
      ...s,
      settings: { ...s.settings, [key]: value },
    }))
  }

  const add = (m: MovementView) => {
    const slot = { id: uuidv7(), movement: m.id, settings: m.settings, rows: [], cues: [] }
    edit('', (d) => ({ ...d, slots: [...d.slots, slot] }))
    setActiveId(slot.id)
    setPicking(false)
  }

  const remove = (id: string) => {
    const at = draft.slots.findIndex((s) => s.id === id)
    const title = shown.slots.find((s) => s.id === id)?.title ?? 'The slot'
    edit('', (d) => ({ ...d, slots: d.slots.filter((s) => s.id !== id) }))
    if (id === active?.id) setActiveId(draft.slots[at + 1]?.id ?? draft.slots[at - 1]?.id ?? null)
    message.open({
      key: 'removed',
      content: <span>{title} taken out. Undo brings it back (Ctrl+Z).</span>,
      duration: 4,
    })
  }

  const move = (id: string, by: number) =>
    edit('', (d) => {
      const from = d.slots.findIndex((s) => s.id === id)
      const to = from + by
      if (from < 0 || to < 0 || to >= d.slots.length) return d
      const slots = [...d.slots]
      slots.splice(to, 0, ...slots.splice(from, 1))
      return { ...d, slots }
    })

  const joinNext = (id: string) => {
    const at = draft.slots.findIndex((s) => s.id === id)
    const joined = !!draft.slots[at]?.combo && draft.slots[at + 1]?.combo === draft.slots[at]?.combo
    arrange({ do: joined ? 'part' : 'join', slot: id })
  }

  const go = (by: number) => {
    const next = draft.slots[Math.min(draft.slots.length - 1, Math.max(0, index + by))]
    if (next) setActiveId(next.id)
  }

  useKeys({
    '/': { does: 'find a movement to add', run: () => mayPlan && setPicking(true) },
    Escape: { does: 'back out', run: () => setPicking(false) },
    '[': { does: 'slot before', run: () => go(-1) },
    ']': { does: 'next slot', run: () => go(1) },
    j: {
      does: 'in turns with the next slot, or apart again',
      run: () => mayChange && active && index + 1 < draft.slots.length && joinNext(active.id),
    },
    'Ctrl+z': { does: 'undo', run: undo },
    'Ctrl+Shift+z': { does: 'redo', run: redo },
  })

  const slotView = shown.slots.find((s) => s.id === active?.id)
  return (
    <div className={css.builder}>
      <section className={css.builderSlots} aria-label="Slots">
        <div className={css.head}>
          <Input
            className={css.name}
            variant="borderless"
            aria-label="Name of the session"
            value={draft.name}
            maxLength={60}
            readOnly={!mayPlan}
            status={faults.some((f) => f.field === 'name') ? 'error' : undefined}
            onChange={(e) => edit('name', (d) => ({ ...d, name: e.target.value }))}
          />
          <div className={css.when}>
            <DayField
              label="Day of the session"
              needed
              value={draft.planned_on}
              disabled={!mayPlan}
              wrong={faults.some((f) => f.field === 'planned_on')}
              set={(day) => day && edit('day', (d) => ({ ...d, planned_on: day }))}
            />
            <label>
              warm-up{' '}
              <InputNumber
                size="small"
                aria-label="General warm-up, minutes"
                value={draft.warm_up_min}
                readOnly={!mayPlan}
                controls={false}
                onChange={(v) => v !== null && edit('warm-up', (d) => ({ ...d, warm_up_min: v }))}
              />{' '}
              min
            </label>
            {mayPlan && (
              <Lock
                what={draft.name}
                locked={draft.locked ?? false}
                set={(locked) => edit('', (d) => ({ ...d, locked }))}
              />
            )}
          </div>
          {shown.ramp && <p className={css.ramp}>then {shown.ramp}</p>}
        </div>
        <SlotList
          draft={draft.slots}
          views={shown.slots}
          activeId={active?.id ?? null}
          figure={figure}
          mayPlan={mayPlan}
          faulty={(i) => faults.some((f) => f.field.startsWith(`slots[${i}]`))}
          choose={(id) => {
            setActiveId(id)
            setPicking(false)
          }}
          remove={remove}
          move={move}
          join={joinNext}
          lock={(id, locked) => change('', id, (s) => ({ ...s, locked }))}
          sessionLocked={draft.locked ?? false}
        />
        {mayPlan && (
          <button type="button" className={css.slotAdd} onClick={() => setPicking(true)}>
            + movement <kbd>/</kbd>
          </button>
        )}
      </section>

      <main className={css.stage}>
        {picking ? (
          <Picker add={add} close={() => setPicking(false)} />
        ) : active && preview.active ? (
          <Stage
            view={preview.active}
            worn={{ movement: active.movement, settings: active.settings, client }}
            turn={mayChange ? turn : undefined}
            ask={(head) => navigate(`/library?${new URLSearchParams({ client, head })}`)}
            aside={
              <Link
                className={css.stageOpen}
                to={`/fitting?${new URLSearchParams({ client, at: session.id, movement: active.movement, settings: JSON.stringify(active.settings) })}`}
              >
                Open in the Fitting
              </Link>
            }
          >
            {slotView && (
              <Prescription
                key={active.id}
                client={client}
                session={draft}
                slot={active}
                view={slotView}
                faults={faults
                  .filter((f) => f.field.startsWith(`slots[${index}].`))
                  .map((f) => ({ ...f, field: f.field.replace(/^slots\[\d+\]\./, '') }))}
                mayPlan={mayChange}
                held={mayPlan && !mayChange}
                setRow={(label, row, part) =>
                  change(`row ${active.id} ${row} ${label}`, active.id, (s) => withRow(s, slotView, row, part))
                }
                setRest={(row, seconds) =>
                  edit(`rest ${active.id} ${row}`, (d) => withRest(d, active.id, slotView, row, seconds))
                }
                setSlot={(part) => change('', active.id, (s) => ({ ...s, ...part }))}
                // A reason was given for the cues as they were.
                setCues={(cues) =>
                  change(`cues ${active.id}`, active.id, (s) => ({ ...s, cues, cue_reason: undefined }))
                }
                arrange={arrange}
              />
            )}
          </Stage>
        ) : active ? (
          <div className="skeleton" />
        ) : (
          <p className="hint">Nothing planned yet. Press / and find a movement.</p>
        )}
      </main>

      <Margin
        session={shown}
        view={picking ? null : preview.active}
        problem={preview.problem}
        head={
          <div className={css.saving}>
            <SaveNote doc={doc} settle={settle} itIsSo={itIsSo} what="this session" mayPlan={mayPlan} />
            {mayPlan && <UndoRedo undo={undo} redo={redo} canUndo={canUndo} canRedo={canRedo} />}
          </div>
        }
        show={(i) => {
          setActiveId(draft.slots[i]?.id ?? null)
          setPicking(false)
        }}
      />
    </div>
  )
}

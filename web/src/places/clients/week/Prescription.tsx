import { AutoComplete, Input, InputNumber, Select } from 'antd'
import { useId, useState, type ReactNode } from 'react'
import type { FieldFault, Load, SlotDraft, SlotView } from '../../../api/client'
import { useCatalogue } from '../../../app/me'
import { CueReason } from './CueReason'
import { alike, sameLoad, toFind, type Dose } from '../../../prescription/rows'
import { Efforts } from './Efforts'
import { Grips } from './Grips'
import { Proposed } from './Proposed'
import './prescription.css'

interface Props {
  slot: SlotDraft
  view: SlotView
  /** undefined where the rows differ in more than effort and hand: they are shown and kept */
  dose: Dose | undefined
  /** the rest after its sets where its combo says it */
  rest?: number
  setRest?: (seconds: number) => void
  /** asks: a reason answers it */
  faults: (FieldFault & { asks?: boolean })[]
  minReserve: number
  mayPlan: boolean
  /** it may be planned, but is locked */
  held?: boolean
  client: string
  setDose: (field: string, dose: Dose) => void
  setCues: (cues: string[]) => void
  setSlot: (part: Partial<SlotDraft>) => void
}

const mostCues = 3

/** Prescription is the slot's dose and cues, edited in place; a fault stands at its field and what was typed stays. */
export function Prescription({
  client,
  slot,
  view,
  dose,
  rest,
  setRest,
  faults,
  minReserve,
  mayPlan,
  held,
  setDose,
  setCues,
  setSlot,
}: Props) {
  const [each, setEach] = useState(false) // what is left is asked set by set, though it does not differ yet
  const fault = (field: string) => faults.find((f) => new RegExp(`^rows\\[\\d+\\]\\.${field}\\b`).test(f.field))?.reason
  const cueFault = faults.find((f) => f.field === 'cues')
  const cues = (
    <>
      <Cues
        key={slot.id}
        movement={slot.movement}
        cues={slot.cues}
        mayPlan={mayPlan}
        set={setCues}
        fault={cueFault?.reason}
      />
      {(cueFault?.asks || slot.cue_reason) && (
        <CueReason
          reason={slot.cue_reason ?? ''}
          readOnly={!mayPlan}
          set={(cue_reason) => setSlot({ cue_reason: cue_reason || undefined })}
        />
      )}
    </>
  )
  if (!dose) {
    return (
      <section className="dose" aria-label="Dose and cues">
        <Rows view={view} faults={faults} alike={mayPlan ? () => setSlot({ rows: alike(slot.rows) }) : undefined} />
        {cues}
      </section>
    )
  }
  const number = (field: 'sets' | 'reps_low' | 'reps_high', label: string) => (
    <InputNumber
      aria-label={label}
      value={dose[field]}
      precision={0}
      controls={false}
      changeOnWheel={false}
      readOnly={!mayPlan}
      status={fault(field) ? 'error' : undefined}
      onChange={(v) => v !== null && setDose(field, { ...dose, [field]: v })}
    />
  )
  const method = view.methods.find((m) => m.id === dose.method?.id)
  return (
    <section className="dose" aria-label="Dose and cues">
      {held && <p className="caveat">Locked: unlock it in the list to change it.</p>}
      <div className="dose-fields">
        <Field label="Sets" fault={fault('sets')}>
          {number('sets', 'Sets')}
        </Field>
        <Field label="Reps" fault={fault('reps_low') ?? fault('reps_high')}>
          <span className="dose-pair">
            {number('reps_low', 'Fewest reps')} – {number('reps_high', 'Most reps')}
          </span>
        </Field>
        <Field label="Left in reserve" fault={fault('reserve')}>
          {each || dose.reserves ? (
            <Efforts
              dose={dose}
              minReserve={minReserve}
              canFail={view.can_fail_alone}
              disabled={!mayPlan}
              set={(part) => setDose('reserves', { ...dose, ...part })}
            />
          ) : (
            <Select
              aria-label="Reps left in reserve"
              value={dose.reserve}
              disabled={!mayPlan}
              status={fault('reserve') ? 'error' : undefined}
              options={[0, 1, 2, 3, 4, 5].map((r) => ({
                value: r,
                label: r === 0 ? 'to the limit' : String(r),
                disabled: r < minReserve || (r === 0 && !view.can_fail_alone),
              }))}
              onChange={(reserve) => setDose('reserve', { ...dose, reserve })}
            />
          )}
          {mayPlan && dose.sets > 1 && (
            <button
              type="button"
              className="link effort-each"
              onClick={() => {
                if (dose.reserves) setDose('', { ...dose, reserves: undefined })
                setEach(!(each || dose.reserves))
              }}
            >
              {each || dose.reserves ? 'all sets alike' : 'set by set'}
            </button>
          )}
        </Field>
        <Field label="Rest, s" fault={fault('rest_s')}>
          <InputNumber
            aria-label="Rest in seconds"
            value={rest ?? dose.rest_s}
            precision={0}
            controls={false}
            changeOnWheel={false}
            readOnly={!mayPlan}
            status={fault('rest_s') ? 'error' : undefined}
            onChange={(v) =>
              v !== null && (rest === undefined ? setDose('rest_s', { ...dose, rest_s: v }) : setRest?.(v))
            }
          />
        </Field>
        <Field label="Tempo, s" fault={fault('tempo')}>
          <Tempo
            dose={dose}
            readOnly={!mayPlan}
            set={(tempo) => setDose('tempo', { ...dose, tempo: tempo.some((t) => t > 0) ? tempo : undefined })}
          />
        </Field>
        <Field label="Method" fault={fault('method')} wide>
          <Select
            aria-label="Method"
            value={dose.method?.id || 'straight'}
            disabled={!mayPlan}
            status={fault('method') ? 'error' : undefined}
            popupMatchSelectWidth={360}
            options={view.methods.map((m) => ({
              value: m.id,
              label: m.name,
              disabled: m.refused !== '',
              title: m.refused || m.load,
            }))}
            optionRender={(o) => {
              const m = view.methods.find((x) => x.id === o.value)!
              return (
                <span className="cue-offer">
                  <b>{m.name}</b>
                  <span>{m.refused ? `Not here: ${m.refused}` : m.load}</span>
                </span>
              )
            }}
            onChange={(id: string) => setDose('method', { ...dose, method: id === 'straight' ? undefined : { id } })}
          />
          {method?.of && (
            <span className="dose-pair">
              <InputNumber
                aria-label={method.of}
                value={dose.method?.n ?? method.usual}
                min={method.least}
                max={method.most}
                precision={0}
                controls={false}
                changeOnWheel={false}
                readOnly={!mayPlan}
                onChange={(n) => n !== null && setDose('method_n', { ...dose, method: { ...dose.method, n } })}
              />{' '}
              {method.of}
            </span>
          )}
        </Field>
        <Field label="Load" fault={fault('load')} wide>
          <Select
            aria-label="Load"
            value={JSON.stringify(dose.load)}
            disabled={!mayPlan}
            status={fault('load') ? 'error' : undefined}
            options={[
              { value: JSON.stringify(toFind), label: 'find it' },
              ...view.steps.map((s) => ({ value: JSON.stringify(s.load), label: s.words })),
            ]}
            labelRender={() => (sameLoad(dose.load, toFind) ? 'find it' : view.load_words)}
            onChange={(v) => setDose('load', { ...dose, load: JSON.parse(v) as Load })}
          />
        </Field>
        <Field label="A word for the client at these sets" fault={fault('word')} wide>
          <Input
            aria-label="A word for the client at these sets"
            value={dose.word ?? ''}
            maxLength={60}
            readOnly={!mayPlan}
            status={fault('word') ? 'error' : undefined}
            onChange={(e) => setDose('word', { ...dose, word: e.target.value || undefined })}
          />
        </Field>
      </div>
      <Grips
        client={client}
        slot={slot}
        dose={dose}
        mayPlan={mayPlan}
        fault={fault('(movement|settings)') ?? faults.find((f) => f.field === 'starts')?.reason}
        setSlot={setSlot}
        setDose={setDose}
      />
      {mayPlan && <Proposed client={client} slot={slot} dose={dose} setDose={setDose} setCues={setCues} />}
      {cues}
    </section>
  )
}

/** Rows shows rows that differ in more than can be changed here; they stay as they are. */
function Rows({ view, faults, alike }: { view: SlotView; faults: FieldFault[]; alike?: () => void }) {
  return (
    <>
      <ol className="dose-rows" aria-label="Rows">
        {view.row_words.map((r, k) => (
          <li key={r.id}>
            <b>{r.done}</b> · {r.load}
            {r.set_up && ` · ${r.set_up}`}
            {faults
              .filter((f) => f.field.startsWith(`rows[${k}].`))
              .map((f) => (
                <span key={f.field} className="fault" role="alert">
                  {f.reason}
                </span>
              ))}
          </li>
        ))}
      </ol>
      <p className="caveat">
        These rows differ in more than effort and grip: they are kept as they are.{' '}
        {alike && (
          <button type="button" className="link" onClick={alike}>
            Make all sets like the first
          </button>
        )}
      </p>
    </>
  )
}

function Field({
  label,
  fault,
  wide,
  children,
}: {
  label: string
  fault?: string
  wide?: boolean
  children: ReactNode
}) {
  return (
    <div className={wide ? 'field wide' : 'field'}>
      <span className="field-label">{label}</span>
      {children}
      {fault && (
        <span className="fault" role="alert">
          {fault}
        </span>
      )}
    </div>
  )
}

/** readTempo reads "3-1-1-0"; null when it is none. */
export function readTempo(text: string): number[] | null {
  if (text.trim() === '') return [0, 0, 0, 0]
  const parts = text.trim().split(/[-–/\s]+/)
  const numbers = parts.map((p) => Number(p.replace(',', '.')))
  return parts.length === 4 && numbers.every((n) => Number.isFinite(n)) ? numbers : null
}

const tempoWords = (tempo: number[]) => (tempo.some((t) => t > 0) ? tempo.join('-') : '')

function Tempo({ dose, readOnly, set }: { dose: Dose; readOnly: boolean; set: (tempo: number[]) => void }) {
  const [typed, setTyped] = useState<string | null>(null)
  const wrong = typed !== null && readTempo(typed) === null
  return (
    <>
      <Input
        aria-label="Tempo: down, hold, up, hold, in seconds"
        placeholder="controlled"
        value={typed ?? tempoWords(dose.tempo ?? [])}
        readOnly={readOnly}
        status={wrong ? 'error' : undefined}
        onChange={(e) => {
          setTyped(e.target.value)
          const tempo = readTempo(e.target.value)
          if (tempo) set(tempo)
        }}
        onBlur={() => !wrong && setTyped(null)}
      />
      {wrong && <span className="fault">four numbers: down-hold-up-hold, like 3-1-1-0</span>}
    </>
  )
}

function Cues({
  movement,
  cues,
  mayPlan,
  set,
  fault,
}: {
  movement: string
  cues: string[]
  mayPlan: boolean
  set: (cues: string[]) => void
  fault?: string
}) {
  const { movements } = useCatalogue()
  const id = useId()
  const [typed, setTyped] = useState('')
  const offered = (movements.find((m) => m.id === movement)?.cues ?? []).filter((c) => !cues.includes(c.cue))
  const add = (cue: string) => {
    const text = cue.trim()
    if (text && cues.length < mostCues) set([...cues, text])
    setTyped('')
  }
  return (
    <div className="cues">
      <span className="field-label" id={id}>
        Cues for the client, at most three
      </span>
      <ul aria-labelledby={id}>
        {cues.map((cue, i) => (
          <li key={i}>
            “{cue}”
            {mayPlan && (
              <button type="button" aria-label={`Take out: ${cue}`} onClick={() => set(cues.filter((_, k) => k !== i))}>
                ×
              </button>
            )}
          </li>
        ))}
        {mayPlan && cues.length < mostCues && (
          <li className="cue-add">
            <AutoComplete
              aria-label="Add a cue"
              value={typed}
              onChange={(v: string) => setTyped(v)}
              onSelect={(v: string) => add(v)}
              options={offered.map((c) => ({
                value: c.cue,
                label: (
                  <span className="cue-offer">
                    <b>{c.cue}</b>
                    <span>
                      when {c.seen} ({c.view})
                    </span>
                  </span>
                ),
              }))}
              showSearch={{
                filterOption: (input, option) => String(option?.value).toLowerCase().includes(input.toLowerCase()),
              }}
              popupMatchSelectWidth={420}
            >
              <Input placeholder="Pick or type one" maxLength={60} onPressEnter={() => add(typed)} />
            </AutoComplete>
          </li>
        )}
      </ul>
      {fault && <span className="fault">{fault}</span>}
    </div>
  )
}

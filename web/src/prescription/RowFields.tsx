import { Input, InputNumber, Select } from 'antd'
import type { ReactNode } from 'react'
import type { Proposal, Row, SlotView } from '../api/client'
import { useCatalogue } from '../app/me'
import { loadOf, loadsOf, loadValue } from './session'
import { Tempo } from './Tempo'
import { clsx } from 'clsx'
import css from './prescription.module.css'

interface Props {
  row: Row
  /** which of the slot's rows it is */
  at: number
  view: SlotView
  rest: number
  /** the ways to hold the same weight, where there are several */
  grips: Proposal['grips']
  fault: (field: string) => string | undefined
  mayPlan: boolean
  set: (label: string, part: Partial<Row>) => void
  setRest: (seconds: number) => void
}

/** gripKey tells one way to hold from another, as the server writes them. */
const gripKey = (g: { movement?: string; settings?: object }) => JSON.stringify([g.movement ?? '', g.settings ?? {}])

/** RowFields are the numbers of one row, edited in place; a fault stands at its field and what was typed stays. */
export function RowFields({ row, at, view, rest, grips, fault, mayPlan, set, setRest }: Props) {
  const { limits } = useCatalogue()
  const number = (field: 'sets' | 'reps_low' | 'reps_high' | 'seconds_low' | 'seconds_high', label: string) => (
    <InputNumber
      aria-label={label}
      value={row[field]}
      precision={0}
      controls={false}
      changeOnWheel={false}
      readOnly={!mayPlan}
      status={fault(field) ? 'error' : undefined}
      onChange={(v) => v !== null && set(field, { [field]: v })}
    />
  )
  const held = !!row.seconds_low || !!row.seconds_high
  const method = view.methods.find((m) => m.id === row.method?.id)
  return (
    <div className={css.doseFields}>
      <Field label="Sets" fault={fault('sets')}>
        {number('sets', 'Sets')}
      </Field>
      {held ? (
        <Field label="Held, s" fault={fault('seconds_low') ?? fault('seconds_high')}>
          <span className="dose-pair">
            {number('seconds_low', 'Least seconds')} – {number('seconds_high', 'Most seconds')}
          </span>
        </Field>
      ) : (
        <Field label="Reps" fault={fault('reps_low') ?? fault('reps_high')}>
          <span className="dose-pair">
            {number('reps_low', 'Fewest reps')} – {number('reps_high', 'Most reps')}
          </span>
        </Field>
      )}
      <Field label="Left in reserve" fault={fault('reserve')}>
        <Select
          aria-label="Reps left in reserve"
          value={row.reserve}
          disabled={!mayPlan}
          status={fault('reserve') ? 'error' : undefined}
          options={view.reserves.map((r) => ({
            value: r.value,
            label: r.words,
            disabled: r.refused !== '',
            title: r.refused,
          }))}
          onChange={(reserve) => set('reserve', { reserve })}
        />
      </Field>
      <Field label="Rest, s" fault={fault('rest_s')}>
        <InputNumber
          aria-label="Rest in seconds"
          value={rest}
          precision={0}
          controls={false}
          changeOnWheel={false}
          readOnly={!mayPlan}
          status={fault('rest_s') ? 'error' : undefined}
          onChange={(v) => v !== null && setRest(v)}
        />
      </Field>
      <Field label="Tempo, s" fault={fault('tempo')}>
        <Tempo tempo={row.tempo} readOnly={!mayPlan} set={(tempo) => set('tempo', { tempo })} />
      </Field>
      <Field label="Method" fault={fault('method')} wide>
        <Select
          aria-label="Method"
          value={row.method?.id || 'straight'}
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
              <span className={css.cueOffer}>
                <b>{m.name}</b>
                <span>{m.refused ? `Not here: ${m.refused}` : m.load}</span>
              </span>
            )
          }}
          onChange={(id: string) => set('method', { method: id === 'straight' ? undefined : { id } })}
        />
        {method?.of && (
          <span className="dose-pair">
            <InputNumber
              aria-label={method.of}
              value={row.method?.n ?? method.usual}
              min={method.least}
              max={method.most}
              precision={0}
              controls={false}
              changeOnWheel={false}
              readOnly={!mayPlan}
              onChange={(n) => n !== null && set('method_n', { method: { ...row.method, n } })}
            />{' '}
            {method.of}
          </span>
        )}
      </Field>
      <Field label="Load" fault={fault('load')} wide>
        <Select
          aria-label="Load"
          value={loadValue(row, at)}
          disabled={!mayPlan}
          status={fault('load') ? 'error' : undefined}
          options={loadsOf(view, at)}
          labelRender={() => view.row_words[at]?.load ?? ''}
          onChange={(v) => set('load', { load: loadOf(v) })}
        />
      </Field>
      {grips.length > 1 && (view.rows.length > 1 || row.movement || row.settings) && (
        <Field label="How it is held" fault={fault('(movement|settings)')} wide>
          <Select
            aria-label="How it is held"
            value={gripKey(row)}
            disabled={!mayPlan}
            options={grips.map((g) => ({
              value: gripKey(g),
              label: `${g.words}, ${g.part.toFixed(2)} of the strongest`,
            }))}
            labelRender={() => grips.find((g) => gripKey(g) === gripKey(row))?.words ?? 'as it is'}
            onChange={(key) => {
              const g = grips.find((x) => gripKey(x) === key)
              if (g) set('hand', { movement: g.movement || undefined, settings: g.settings })
            }}
          />
        </Field>
      )}
      <Field label="A word for the client at these sets" fault={fault('word')} wide>
        <Input
          aria-label="A word for the client at these sets"
          value={row.word ?? ''}
          maxLength={limits.word}
          readOnly={!mayPlan}
          status={fault('word') ? 'error' : undefined}
          onChange={(e) => set('word', { word: e.target.value || undefined })}
        />
      </Field>
    </div>
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
    <div className={wide ? clsx(css.field, css.wide) : css.field}>
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

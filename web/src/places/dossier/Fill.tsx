import { DayField } from '../../ui/DayField'
import { Button } from 'antd'
import { Blank, type BlankProps } from '../../ui/Blank'
import { valueOf, type Edit, type Field } from './useDossier'
import { clsx } from 'clsx'
import css from './dossier.module.css'

interface Fill extends Omit<BlankProps, 'shown' | 'save'> {
  edit: Edit
  field: Field
  show?: (value: never) => string
}

/** Fill is a blank that is one field of the dossier. */
export function Fill({ edit, field, show, ...rest }: Fill) {
  const value = valueOf(edit, field) as never
  return (
    <>
      <Blank {...rest} shown={show ? show(value) : String(value ?? '')} save={(v) => edit.change(field, v)} />
      <Note edit={edit} field={field} />
    </>
  )
}

interface DayFill {
  edit: Edit
  field: Field
  label: string
  max?: string
  disabled?: boolean
}

/** DayFill is a day that is one field of the dossier. */
export function DayFill({ edit, field, label, max, disabled }: DayFill) {
  return (
    <>
      <DayField
        label={label}
        value={valueOf(edit, field) as string | null}
        max={max}
        disabled={disabled}
        set={(day) => edit.change(field, day)}
      />
      <Note edit={edit} field={field} />
    </>
  )
}

/** Note says what has not been saved of a field, and why; a clash is the coach's to settle. */
export function Note({ edit, field }: { edit: Edit; field: Field }) {
  const doc = edit.fields[field]
  if (!doc || doc.is === 'saved' || doc.is === 'dirty' || doc.is === 'saving') return null
  if (doc.is === 'stale')
    return (
      <span className={clsx('fault', css.clash)} role="alert">
        {doc.theirs?.by || 'Somebody'} wrote {words(doc.theirs?.value)} meanwhile; you wrote {words(doc.value)}. Nothing
        is overwritten until you choose.
        <Button size="small" onClick={() => edit.settle(field, 'theirs')}>
          Use theirs
        </Button>
        <Button size="small" type="primary" onClick={() => edit.settle(field, 'mine')}>
          Keep mine
        </Button>
      </span>
    )
  const why =
    doc.is === 'away'
      ? `Not saved yet: ${doc.why} It is kept here and sent as soon as it is back.`
      : doc.faults.map((f) => f.reason).join('; ') || doc.why
  return (
    <span className="fault" role="alert">
      {why}
    </span>
  )
}

function words(value: unknown): string {
  if (value === null || value === undefined || value === '' || value === 0) return 'nothing'
  if (Array.isArray(value))
    return value.length === 0
      ? 'nothing'
      : `“${value.map((v: unknown) => (typeof v === 'object' && v !== null ? Object.values(v).flat().join(' ') : String(v))).join('; ')}”`
  return `“${typeof value === 'object' ? Object.values(value).join(' ') : JSON.stringify(value).replace(/^"|"$/g, '')}”`
}

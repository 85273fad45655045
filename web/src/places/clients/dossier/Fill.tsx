import { DayField } from '../../../ui/DayField'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { valueOf, type Edit, type Field } from './useDossier'

interface Blank {
  label: string
  /** what is kept, as text */
  shown: string
  /** reads what was typed; throws an Error with words where it cannot */
  read: (text: string) => unknown
  save: (value: unknown) => void
  placeholder?: string
  width?: number
  disabled?: boolean
  numeric?: boolean
}

/** Blank is a gap in a sentence that is filled in: Enter or leaving saves, Escape takes back. */
export function Blank({ label, shown, read, save, placeholder = '…', width, disabled, numeric }: Blank) {
  const [typed, setTyped] = useState<string | null>(null)
  const [wrong, setWrong] = useState('')
  const text = typed ?? shown
  const commit = () => {
    if (typed === null) return
    try {
      const value = read(typed)
      setWrong('')
      setTyped(null)
      if (typed !== shown) save(value)
    } catch (e) {
      setWrong((e as Error).message) // what was typed stays
    }
  }
  return (
    <span className="blank">
      <Input
        variant="underlined"
        aria-label={label}
        value={text}
        inputMode={numeric ? 'decimal' : undefined}
        placeholder={placeholder}
        disabled={disabled}
        status={wrong ? 'error' : undefined}
        style={{ width: width ?? `calc(${Math.max(text.length, placeholder.length, 3) + 1}ch + 4px)` }}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit()
          if (e.key === 'Escape') {
            setTyped(null)
            setWrong('')
          }
        }}
      />
      {wrong && <span className="fault">{wrong}</span>}
    </span>
  )
}

interface Fill extends Omit<Blank, 'shown' | 'save'> {
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
      <span className="fault clash" role="alert">
        {doc.theirs?.by || 'Somebody'} wrote {words(doc.theirs?.value)} meanwhile; you wrote {words(doc.value)}. Nothing
        is overwritten until you choose.
        <Button size="small" onClick={() => edit.settle(field, 'theirs')}>
          Take theirs
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
      : `“${value.map((v) => (typeof v === 'object' && v !== null ? Object.values(v).flat().join(' ') : String(v))).join('; ')}”`
  return `“${typeof value === 'object' ? Object.values(value).join(' ') : String(value)}”`
}

/** number reads a number; empty is 0, which is "not said". */
export function number(keep: (x: number) => number = (x) => x) {
  return (text: string) => {
    const t = text.trim().replace(',', '.')
    if (t === '') return 0
    const x = Number(t)
    if (Number.isNaN(x)) throw new Error(`“${text}” is no number`)
    return keep(x)
  }
}

export const trimmed = (text: string) => text.trim()

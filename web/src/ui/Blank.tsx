import { Input } from 'antd'
import { useState } from 'react'
import css from './leaves.module.css'

export interface BlankProps {
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
export function Blank({ label, shown, read, save, placeholder = '…', width, disabled, numeric }: BlankProps) {
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
    <span className={css.blank}>
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

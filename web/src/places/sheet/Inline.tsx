import { useState, type ReactNode } from 'react'
import { clsx } from 'clsx'
import css from './editing.module.css'

interface Props {
  /** what it is, for who cannot see where it stands */
  label: string
  children: ReactNode
  fault?: string
  /** the editor while it is open; done closes it */
  editor: (done: () => void) => ReactNode
}

/**
 * Inline is text that is read as it stands and turns into its editor where it stands; what is wrong with it is told
 * right there.
 */
export function Inline({ label, children, fault, editor }: Props) {
  const [open, setOpen] = useState(false)
  return (
    <span className="inline">
      {open ? (
        <span
          className={css.inlineOpen}
          onKeyDown={(e) => {
            if (e.key === 'Escape' || e.key === 'Enter') {
              e.stopPropagation()
              e.preventDefault()
              setOpen(false)
            }
          }}
          onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && setOpen(false)}
        >
          {editor(() => setOpen(false))}
        </span>
      ) : (
        <button type="button" className={css.inlineText} data-change={label} onClick={() => setOpen(true)}>
          {children}
          <span className="only-read">, change {label}</span>
        </button>
      )}
      {fault && (
        <span className="fault" role="alert">
          {fault}
        </span>
      )}
    </span>
  )
}

/** NumberBox is a whole number typed in place; what is no number changes nothing. */
export function NumberBox({
  label,
  value,
  set,
  focus,
  width = 44,
}: {
  label: string
  value: number
  set: (v: number) => void
  focus?: boolean
  width?: number
}) {
  const [typed, setTyped] = useState(String(value))
  const wrong = typed.trim() === '' || !/^\d+([.,]\d+)?$/.test(typed.trim())
  return (
    <input
      className={wrong ? clsx(css.inlineBox, css.bad) : css.inlineBox}
      style={{ width }}
      inputMode="decimal"
      aria-label={label}
      aria-invalid={wrong}
      autoFocus={focus}
      value={typed}
      onFocus={(e) => e.target.select()}
      onChange={(e) => {
        setTyped(e.target.value)
        const x = Number(e.target.value.replace(',', '.'))
        if (e.target.value.trim() !== '' && Number.isFinite(x)) set(x)
      }}
    />
  )
}

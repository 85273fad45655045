import { Input } from 'antd'
import { useState } from 'react'
import css from './prescription.module.css'

/** CueReason is why a cue stays that asks for what a cap of the client forbids; it is kept when the field is left. */
export function CueReason({
  reason,
  set,
  readOnly,
}: {
  reason: string
  set: (reason: string) => void
  readOnly: boolean
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const commit = () => {
    if (typed !== null && typed.trim() !== reason) set(typed.trim())
    setTyped(null)
  }
  return (
    <label className={css.cueReason}>
      <span className="field-label">Why it stays all the same</span>
      <Input
        size="small"
        aria-label="Why the cue stays"
        placeholder="agreed with her doctor on …"
        maxLength={200}
        readOnly={readOnly}
        value={typed ?? reason}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
    </label>
  )
}

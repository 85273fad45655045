import { Input } from 'antd'
import { useState } from 'react'

/** readTempo reads "3-1-1-0"; null when it is none. */
export function readTempo(text: string): number[] | null {
  if (text.trim() === '') return [0, 0, 0, 0]
  const parts = text.trim().split(/[-–/\s]+/)
  const numbers = parts.map((p) => Number(p.replace(',', '.')))
  return parts.length === 4 && numbers.every((n) => Number.isFinite(n)) ? numbers : null
}

const words = (tempo?: number[]) => (tempo?.some((t) => t > 0) ? tempo.join('-') : '')

interface Props {
  tempo?: number[]
  readOnly?: boolean
  focus?: boolean
  set: (tempo: number[] | undefined) => void
}

/** Tempo is four numbers in one field; what is none of that stays to be put right. */
export function Tempo({ tempo, readOnly, focus, set }: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const wrong = typed !== null && readTempo(typed) === null
  return (
    <>
      <Input
        aria-label="Tempo: down, hold, up, hold, in seconds"
        placeholder="controlled"
        autoFocus={focus}
        value={typed ?? words(tempo)}
        readOnly={readOnly}
        status={wrong ? 'error' : undefined}
        onChange={(e) => {
          setTyped(e.target.value)
          const next = readTempo(e.target.value)
          if (next) set(next.some((t) => t > 0) ? next : undefined)
        }}
        onBlur={() => !wrong && setTyped(null)}
      />
      {wrong && <span className="fault">four numbers: down-hold-up-hold, like 3-1-1-0</span>}
    </>
  )
}

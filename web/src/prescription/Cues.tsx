import { AutoComplete, Input } from 'antd'
import { useId, useState } from 'react'
import { useCatalogue } from '../app/me'
import css from './prescription.module.css'

interface Props {
  movement: string
  cues: string[]
  mayPlan: boolean
  set: (cues: string[]) => void
  fault?: string
}

/** Cues are those for the client: picked from the movement's faults, or typed. */
export function Cues({ movement, cues, mayPlan, set, fault }: Props) {
  const { movements, limits } = useCatalogue()
  const id = useId()
  const [typed, setTyped] = useState('')
  const offered = (movements.find((m) => m.id === movement)?.cues ?? []).filter((c) => !cues.includes(c.cue))
  const add = (cue: string) => {
    const text = cue.trim()
    if (text && cues.length < limits.cues) set([...cues, text])
    setTyped('')
  }
  return (
    <div className={css.cues}>
      <span className="field-label" id={id}>
        Cues for the client, at most {limits.cues}
      </span>
      <ul aria-labelledby={id}>
        {cues.map((cue, i) => (
          <li key={i}>
            “{cue}”
            {mayPlan && (
              <button type="button" aria-label={`Remove: ${cue}`} onClick={() => set(cues.filter((_, k) => k !== i))}>
                ×
              </button>
            )}
          </li>
        ))}
        {mayPlan && cues.length < limits.cues && (
          <li className={css.cueAdd}>
            <AutoComplete
              aria-label="Add a cue"
              value={typed}
              onChange={(v: string) => setTyped(v)}
              onSelect={(v: string) => add(v)}
              options={offered.map((c) => ({
                value: c.cue,
                label: (
                  <span className={css.cueOffer}>
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
              <Input placeholder="Pick or type one" maxLength={limits.cue} onPressEnter={() => add(typed)} />
            </AutoComplete>
          </li>
        )}
      </ul>
      {fault && <span className="fault">{fault}</span>}
    </div>
  )
}

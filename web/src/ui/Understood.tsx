import { Select } from 'antd'
import { useQueryClient } from '@tanstack/react-query'
import { api, got, type Found } from '../api/client'
import { useWrite } from '../api/useWrite'
import { useCatalogue, useMe } from '../app/me'

const held: [string, string][] = [
  ['bar_straight', 'a straight bar'],
  ['bar_cambered', 'a cambered bar'],
  ['bar_v', 'a V-shaped bar'],
  ['bar_parallel', 'a parallel-grip bar'],
  ['bar_rail', 'a guided-rail bar'],
  ['dumbbell', 'dumbbells'],
  ['rope', 'the rope'],
  ['handle', 'a handle'],
  ['band', 'a band'],
  ['machine', 'a machine'],
]

/** Understood tells what was read out of plain words, and asks for what is open. */
export function Understood({ found }: { found: Found }) {
  return (
    <div className="ask" role="status">
      {found.parts.map((p, i) => (
        <p key={i}>
          {p.movement ? (
            <>
              <b>{found.found.find((f) => f.movement === p.movement)?.name}</b>, from {quoted(p.matched ?? [])}
            </>
          ) : p.ask ? (
            <>
              {(p.matched ?? []).length > 0 && <>Read: {quoted(p.matched ?? [])}. </>}
              {p.unknown ? `What is “${p.unknown}”?` : sentence(p.ask)}
            </>
          ) : (
            quoted(p.matched ?? [])
          )}
          {found.understood[i] && ` — ${found.understood[i]}`}
          {(p.left ?? []).length > 0 && <> · says nothing here: {quoted(p.left ?? [])}</>}
          {p.unknown && <Remember word={p.unknown} choices={p.choices ?? []} />}
        </p>
      ))}
    </div>
  )
}

/** Remember takes in what a word nobody knows means: asked once, kept as the studio's own. */
export function Remember({ word, choices }: { word: string; choices: string[] }) {
  const me = useMe()
  const { movements } = useCatalogue()
  const cache = useQueryClient()
  const { run, busy, why } = useWrite(async (kind: string, value: string) => {
    await got(
      api.PUT('/own/words/{word}', {
        params: { path: { word } },
        body: kind === 'held' ? { implement: value } : { movement: value },
      }),
    )
    await cache.invalidateQueries()
  })
  if (!me.data?.may_plan) return null
  const first = movements.filter((m) => choices.includes(m.id))
  const rest = movements.filter((m) => !choices.includes(m.id))
  return (
    <>
      {' '}
      <Select
        size="small"
        showSearch={{ optionFilterProp: 'label' }}
        aria-label={`What ${word} is`}
        placeholder="it is …"
        value={null}
        loading={busy}
        style={{ minWidth: 190 }}
        onChange={(v: string | null) => {
          const [kind, value] = (v ?? '').split(':')
          if (value) void run(kind!, value)
        }}
        options={[
          { label: 'something held', options: held.map(([v, label]) => ({ value: `held:${v}`, label })) },
          {
            label: 'a movement',
            options: [...first, ...rest].map((m) => ({ value: `movement:${m.id}`, label: m.name })),
          },
        ]}
      />
      <small> is remembered as a word of ours (Library, Ours).</small>
      {why && <span className="fault"> {why}</span>}
    </>
  )
}

const quoted = (words: string[]) => words.map((w) => `“${w}”`).join(', ')

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1) + (text.endsWith('?') ? '' : '?')

import { Input } from 'antd'
import { useState } from 'react'
import type { MovementView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { meant, plainText } from '../../app/words'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import css from './stage.module.css'

const ours = (m: MovementView) => m.own || m.key !== m.id

const groups: [string, (m: MovementView) => boolean][] = [
  ['Ours', ours],
  ['Bending the elbow', (m) => !ours(m) && m.action === 'flexion'],
  ['Straightening the elbow', (m) => !ours(m) && m.action === 'extension'],
  ['Several joints', (m) => !ours(m) && !m.computed],
]

/** Picker finds a movement by its name or what it trains; Enter takes the first. */
export function Picker({ add, close }: { add: (movement: MovementView) => void; close: () => void }) {
  const { movements, right, words } = useCatalogue()
  const [typed, setTyped] = useState('')
  const hits = meant(words, typed)
  const ids = hits.flatMap((h) => h.movements)
  const named = (m: MovementView) => plainText(`${m.name} ${m.id}`, typed)
  const rank = (m: MovementView) => (named(m) ? 0 : 1000) + (ids.includes(m.id) ? ids.indexOf(m.id) : ids.length)
  const found = movements.filter((m) => ids.includes(m.id) || named(m)).sort((a, b) => rank(a) - rank(b))
  return (
    <section className={css.picker} aria-label="Find a movement">
      <Input
        autoFocus
        size="large"
        aria-label="Find a movement"
        placeholder="Find a movement: reclined, rope, overhead …"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onPressEnter={() => found[0] && add(found[0])}
        onKeyDown={(e) => e.key === 'Escape' && close()}
      />
      {hits
        .filter((h) => h.ask)
        .map((h) => (
          <p key={h.words[0]} className="ask" role="status">
            “{h.words[0]}” can mean several things. Which: {h.ask}?
          </p>
        ))}
      {found.length === 0 && hits.length === 0 && (
        <p className="hint">No movement is called that. Try a part of the word, or the implement.</p>
      )}
      {groups.map(([title, belongs]) => {
        const list = found.filter(belongs)
        return (
          list.length > 0 && (
            <div key={title}>
              <h3>{title}</h3>
              <div className={css.pickerList}>
                {list.map((m) => (
                  <button key={m.key} type="button" className={css.pick} onClick={() => add(m)}>
                    <Slice geometry={right} view={m.glyph.slice} size={34} />
                    <span className={css.pickText}>
                      <span>{m.name}</span>
                      {m.glyph.ribbon ? (
                        <Ribbon geometry={m.glyph.ribbon} width={90} height={12} />
                      ) : (
                        <span className="graded">graded, not computed</span>
                      )}
                    </span>
                  </button>
                ))}
              </div>
            </div>
          )
        )
      })}
    </section>
  )
}

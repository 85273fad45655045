import { Input } from 'antd'
import { useEffect, useRef, useState } from 'react'
import type { MovementView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { Understood } from '../Understood'
import { rankOf, useFoundNow } from '../useFound'
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
  const { movements, right } = useCatalogue()
  const [typed, setTyped] = useState('')
  const { found: heard, ready } = useFoundNow(typed)
  const entered = useRef(false) // before the answer was there
  // What words turn goes with the movement; a set-up that was kept stays as it was kept.
  const turned = (m: MovementView) =>
    m.key === m.id ? { ...m, settings: heard?.found.find((f) => f.movement === m.id)?.settings ?? m.settings } : m
  const found = heard
    ? movements
        .filter(
          (m) => rankOf(heard, m.id) >= 0 || (ours(m) && m.name.toLowerCase().includes(typed.trim().toLowerCase())),
        )
        .sort((a, b) => rankOf(heard, a.id) - rankOf(heard, b.id))
        .map(turned)
    : movements
  const first = found[0]
  useEffect(() => {
    if (!entered.current || !ready) return
    entered.current = false
    if (first) add(first)
  }, [ready, first, add])
  return (
    <section className={css.picker} aria-label="Find a movement">
      <Input
        autoFocus
        size="large"
        aria-label="Find a movement"
        placeholder="Find a movement in your own words: seated hammer curl, rope push-down …"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value)
          entered.current = false
        }}
        onPressEnter={() => {
          if (!ready) entered.current = true
          else if (found[0]) add(found[0])
        }}
        onKeyDown={(e) => e.key === 'Escape' && close()}
      />
      {heard && <Understood found={heard} />}
      {heard && found.length === 0 && (
        <p className="hint">Nothing is found by this. Try the implement, or where the arm is.</p>
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

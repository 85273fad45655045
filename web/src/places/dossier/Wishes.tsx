import { Segmented } from 'antd'
import { headColour } from '../../figures/heads'
import type { HeadView } from '../../api/client'
import { DayFill, Note } from './Fill'
import { Blank, trimmed } from '../../ui/Blank'
import { valueOf, type Edit } from './useDossier'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'

interface Wish {
  text: string
  heads: string[]
}

const modes = [
  { value: 'size', label: 'size' },
  { value: 'strength', label: 'pressing strength' },
  { value: 'tolerance', label: 'tissue tolerance' },
  { value: 'date', label: 'a date' },
]

/** Wishes are what the client wants in her words, each with the heads it comes to. */
export function Wishes({ edit, heads, locked }: { edit: Edit; heads: HeadView[]; locked: boolean }) {
  const view = edit.query.data!
  const list = valueOf(edit, 'wishes') as Wish[]
  const mode = valueOf(edit, 'mode')
  const put = (i: number, part: Partial<Wish>) =>
    edit.change(
      'wishes',
      list.map((w, k) => (k === i ? { ...w, ...part } : w)),
    )
  /** kind finds what the server read of a wish's words. */
  const kind = (i: number) => (view.dossier.wishes[i]?.text === list[i]!.text ? view.wishes[i] : undefined)
  return (
    <section className={leavesCss.leaf} aria-label="Wishes">
      <h2>Wishes</h2>
      {list.length === 0 && (
        <p className="hint">Nothing wished yet. In the client’s own words: what should be seen, or done?</p>
      )}
      <ol className={css.wishes}>
        {list.map((w, i) => {
          const read = kind(i)
          const differs = read && JSON.stringify([...read.heads].sort()) !== JSON.stringify([...w.heads].sort())
          return (
            <li key={i}>
              <Blank
                label={`Wish ${i + 1}`}
                shown={w.text}
                read={trimmed}
                width={300}
                disabled={locked}
                save={(text) =>
                  text === ''
                    ? edit.change(
                        'wishes',
                        list.filter((_, k) => k !== i),
                      )
                    : put(i, { text: text as string })
                }
              />
              <span className={css.headChips} role="group" aria-label={`Heads of wish ${i + 1}`}>
                {heads.map((h) => {
                  const on = w.heads.includes(h.id)
                  return (
                    <button
                      key={h.id}
                      type="button"
                      title={h.name}
                      aria-label={`${h.code}, ${h.name}`}
                      aria-pressed={on}
                      disabled={locked}
                      className={on ? clsx(css.headChip, css.on) : css.headChip}
                      style={{ '--head': headColour[h.id] } as React.CSSProperties}
                      onClick={() =>
                        put(i, {
                          heads: heads.map((x) => x.id).filter((id) => (id === h.id ? !on : w.heads.includes(id))),
                        })
                      }
                    >
                      {h.code}
                    </button>
                  )
                })}
              </span>
              {differs && !locked && (
                <button type="button" className="link" onClick={() => put(i, { heads: read.heads })}>
                  {read.heads.length > 0 ? `As the words say: ${read.says}` : 'As the words say: no head by itself'}
                </button>
              )}
            </li>
          )
        })}
      </ol>
      {!locked && (
        <p className="add-wish">
          <Blank
            label="Another wish"
            shown=""
            placeholder="another wish …"
            width={300}
            read={trimmed}
            save={(text) => {
              const known = view.wish_kinds.find((k) => k.says === text)
              edit.change('wishes', [...list, { text: text as string, heads: known?.heads ?? [] }])
            }}
          />
          <select
            className={css.plainSelect}
            aria-label="A common wish"
            value=""
            onChange={(e) => {
              const k = view.wish_kinds.find((x) => x.says === e.target.value)
              if (k) edit.change('wishes', [...list, { text: k.says, heads: k.heads }])
            }}
          >
            <option value="">or a common one</option>
            {view.wish_kinds.map((k) => (
              <option key={k.says}>{k.says}</option>
            ))}
          </select>
        </p>
      )}
      <Note edit={edit} field="wishes" />
      <p className={clsx(leavesCss.prose, 'mode')}>
        The work is for{' '}
        <Segmented
          size="small"
          aria-label="Mode"
          disabled={locked}
          value={mode}
          onChange={(v) => edit.change('mode', v)}
          options={modes}
        />
        {mode === 'date' && (
          <>
            {' '}
            ready on <DayFill edit={edit} field="ready_on" label="Ready on" disabled={locked} />
          </>
        )}
      </p>
      <Note edit={edit} field="mode" />
    </section>
  )
}

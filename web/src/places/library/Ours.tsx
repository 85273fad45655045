import { queries } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button } from 'antd'
import { Link } from 'react-router'
import { api, got, type OwnSetUpView, type OwnWordView } from '../../api/client'
import { useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import css from './library.module.css'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

/** Ours is what the studio added: set-ups under its own names and movements of its own. */
export function Ours() {
  const me = useMe()
  const cache = useQueryClient()
  const own = useQuery(queries.own())
  const { run: drop } = useWrite(
    async (s: OwnSetUpView) => {
      await got(api.DELETE('/own/set-ups/{set_up}', { params: { path: { set_up: s.id } } }))
      await cache.invalidateQueries()
      message.open({
        content: (
          <span>
            “{s.name}” is forgotten.{' '}
            <button
              type="button"
              className="link"
              onClick={async () => {
                await got(
                  api.PUT('/own/set-ups/{set_up}', {
                    params: { path: { set_up: s.id } },
                    body: { name: s.name, movement: s.movement, settings: s.settings },
                  }),
                )
                await cache.invalidateQueries()
                message.destroy()
              }}
            >
              Undo
            </button>
          </span>
        ),
        duration: 8,
      })
    },
    (p) => message.error(p.words),
  )
  if (!own.data) return <Waiting query={own} />
  const { movements, set_ups } = own.data
  return (
    <div className={css.ours}>
      <main className={css.oursMain}>
        <h1>Ours</h1>
        <h2>Set-ups under our own names</h2>
        {set_ups.length === 0 && (
          <p className="hint">None yet. In the Fitting, turn a movement until it is right and press Keep.</p>
        )}
        {set_ups.map((s) => (
          <div key={s.id} className={css.oursRow}>
            <p>
              <Link
                to={`/fitting?${new URLSearchParams({ movement: s.movement, settings: JSON.stringify(s.settings) })}`}
              >
                <b>{s.name}</b>
              </Link>{' '}
              {s.says}
              {s.broken && <span className="fault"> cannot be worn any more: {s.broken}</span>}
            </p>
            {me.data?.may_plan && (
              <Button size="small" onClick={() => void drop(s)}>
                Forget
              </Button>
            )}
          </div>
        ))}
        <h2>Words of our own</h2>
        <Words may={!!me.data?.may_plan} />
        <h2>Movements of our own</h2>
        {movements.length === 0 && (
          <p className="hint">
            None yet. A movement of our own starts from one that is there: wear it in the Fitting, press Keep, give it a
            name and “Make it a movement of ours”.
          </p>
        )}
        {movements.map((m) => (
          <div key={m.id} className={css.oursRow}>
            <p>
              <Link to={`/library/ours/${m.id}`}>
                <b>{m.name}</b>
              </Link>{' '}
              {m.retired && 'retired: no longer offered, what was planned with it still reads'}
              {m.faults.map((f) => (
                <span key={f.line + f.field} className="fault">
                  {' '}
                  line {f.line}: {f.field} {f.reason}
                </span>
              ))}
            </p>
          </div>
        ))}
      </main>
      <aside className="margin" aria-label="What the tool says">
        <h2>What may be added</h2>
        <div className="finding">
          <p>
            A set-up is a movement with its settings as you like them, under a name your team uses. Its series in the
            log is that of its settings, so the name may change.
          </p>
        </div>
        <div className="finding">
          <p>
            A movement of our own has limits, faults, joints and needs like the others. It is checked as it is typed;
            nothing else in the catalogue can be broken by it.
          </p>
        </div>
      </aside>
    </div>
  )
}

/** Words are what nobody knew until it was asked: shown, and undone. */
function Words({ may }: { may: boolean }) {
  const cache = useQueryClient()
  const words = useQuery(queries.ownWords())
  const { run: drop, why } = useWrite(async (w: OwnWordView) => {
    await got(api.DELETE('/own/words/{word}', { params: { path: { word: w.word } } }))
    await cache.invalidateQueries()
  })
  if (!words.data) return <Waiting query={words} />
  if (words.data.words.length === 0)
    return (
      <p className="hint">
        None yet. A word that nobody knows is asked once where it is read (Library, a client’s present list) and then
        stands here.
      </p>
    )
  return (
    <>
      {words.data.words.map((w) => (
        <div key={w.word} className={css.oursRow}>
          <p>
            <b>“{w.word}”</b> is {w.says}
          </p>
          {may && (
            <Button size="small" aria-label={`Forget the word ${w.word}`} onClick={() => void drop(w)}>
              Forget
            </Button>
          )}
        </div>
      ))}
      {why && <p className="fault">{why}</p>}
    </>
  )
}

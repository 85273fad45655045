import { useWearer, Wearer } from '../../ui/Wearer'
import { Button } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { type SetUpView, type Worn } from '../../api/client'
import { useKeys } from '../../app/keys'
import { useCatalogue } from '../../app/me'
import { ClientThread } from '../../ui/thread/Client'
import { Picker } from '../../ui/stage/Picker'
import { SetUpSays } from '../../ui/stage/SetUpSays'
import { Stage } from '../../ui/stage/Stage'
import { Faults } from './Faults'
import { Hints } from './Hints'
import { Keep } from './Keep'
import { Lengths } from './Lengths'
import { Near } from '../../ui/stage/Near'
import { Pinned } from './Pinned'
import { Send } from './Send'
import { Tune } from './Tune'
import { Record } from './TryOuts'
import { useFit } from './useFit'
import { Verdict } from '../../ui/stage/Verdict'
import { clsx } from 'clsx'
import css from './fitting.module.css'

const mostPins = 3

/** Fitting tries a movement on as a tailor would: pick, turn, see, tune, pin, send. */
export function Fitting() {
  const { movements } = useCatalogue()
  const w = useWearer()
  const navigate = useNavigate()
  const [picking, setPicking] = useState(false)
  const [look, setLook] = useState(false)
  const [turning, setTurning] = useState('')
  const [pins, setPins] = useState<SetUpView[]>([])
  const movement = movements.some((m) => m.id === w.params.get('movement'))
    ? w.params.get('movement')!
    : 'curl_reclined'
  const settings = readSettings(w.params.get('settings'))
  const worn: Worn = { movement, settings, client: w.client, stance: w.stance }
  const { view, problem, again } = useFit(worn, turning)

  const wear = (id: string, next: Record<string, number | string>) =>
    w.setParams(
      (p) => {
        p.set('movement', id)
        p.set('settings', JSON.stringify(next))
        return p
      },
      { replace: true },
    )
  useKeys({
    '/': { does: 'find a movement', run: () => setPicking(true) },
    Escape: { does: 'back out', run: () => setPicking(false) },
    p: { does: 'pin this set-up', run: () => pin() },
  })
  const pin = () => view && setPins((old) => [...old.filter((v) => v.name !== view.name), view].slice(-mostPins))

  return (
    <>
      {w.client && <ClientThread client={w.client} />}
      <div className={w.client ? clsx(css.fitting, css.threaded) : css.fitting}>
        <main className={css.main}>
          {!w.client && <h1 className="only-read">Fitting</h1>}
          {picking ? (
            <Picker
              add={(m) => {
                wear(m.id, m.settings)
                setPicking(false)
              }}
              close={() => setPicking(false)}
            />
          ) : view ? (
            <Stage
              view={view}
              worn={worn}
              ask={(head) =>
                navigate(
                  `/library?${new URLSearchParams({ ...(w.client ? { client: w.client } : {}), ...(w.stance ? { stance: w.stance } : {}), head })}`,
                )
              }
              turn={(key, value) => {
                setTurning(key)
                wear(movement, { ...settings, [key]: value })
              }}
            >
              <div className={css.tools}>
                <Button onClick={() => setPicking(true)}>Another movement</Button>
                <Button onClick={() => wear(movement, {})} disabled={Object.keys(settings).length === 0}>
                  Back to its defaults
                </Button>
                <Button onClick={pin} disabled={pins.some((v) => v.name === view.name)}>
                  Pin
                </Button>
                <Keep worn={worn} refused={!!view.refused} />
                <Send worn={worn} refused={!!view.refused} at={w.params.get('at')} />
              </div>
            </Stage>
          ) : (
            <div className="skeleton" />
          )}
          {view && !picking && (
            <section className={css.look}>
              <button type="button" className="link" aria-expanded={look} onClick={() => setLook(!look)}>
                {look ? 'Hide lengths and plain words' : 'Lengths and plain words'}
              </button>
              {look && <Lengths worn={worn} view={view} />}
            </section>
          )}
          {problem && !problem.away && <p className="fault">{problem.message}</p>}
          {pins.length > 0 && view && !picking && (
            <Pinned
              pins={pins}
              now={view}
              client={w.client || undefined}
              wear={(v) => wear(v.movement, v.settings)}
              drop={(v) => setPins(pins.filter((x) => x !== v))}
            />
          )}
        </main>
        <aside className="margin" aria-label="What the tool says">
          <Wearer w={w} />
          {view && !picking && (
            <>
              {w.client && view.verdict && view.verdict.ruling !== 'allowed' && (
                <Verdict
                  verdict={view.verdict}
                  movement={movement}
                  client={w.client}
                  wear={(s) => wear(movement, s)}
                  again={again}
                />
              )}
              <SetUpSays view={view} />
              {w.client && <Record client={w.client} worn={worn} view={view} />}
              <Hints worn={worn} turn={(t) => wear(movement, { ...settings, ...t })} />
              {view.computed && <Tune worn={worn} view={view} wear={(s) => wear(movement, s)} />}
              <Near worn={worn} wear={wear} />
              <Faults worn={worn} />
            </>
          )}
        </aside>
      </div>
    </>
  )
}

/** readSettings reads the settings out of the address; junk counts as none. */
export function readSettings(text: string | null): Record<string, number | string> {
  try {
    const v = JSON.parse(text ?? '{}') as unknown
    return typeof v === 'object' && v !== null && !Array.isArray(v) ? (v as Record<string, number | string>) : {}
  } catch {
    return {}
  }
}

import { Button, Select } from 'antd'
import { useState } from 'react'
import { api, got, type SetUpView, type TunedView, type Worn } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { decimals } from '../../figures/heads'
import { Slice } from '../../figures/Slice'
import { clsx } from 'clsx'
import css from './fitting.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  worn: Worn
  view: SetUpView
  wear: (settings: Record<string, number | string>) => void
}

/** Tune searches the movement's settings for a head and a length, and says what each change is worth. */
export function Tune({ worn, view, wear }: Props) {
  const { right } = useCatalogue()
  const heads = view.bias.filter((b) => b.agonist)
  const [head, setHead] = useState('')
  const [zone, setZone] = useState<'' | 'short' | 'middle' | 'long'>('long')
  const [keep, setKeep] = useState(true)
  const [found, setFound] = useState<{ for: string; now: number; list: TunedView[] } | null>(null)
  const chosen = heads.some((h) => h.id === head) ? head : (heads[0]?.id ?? '')
  const asked = JSON.stringify([worn.movement, chosen, zone, keep, worn.client, worn.stance])
  const {
    run: go,
    why: fault,
    busy,
  } = useWrite(async () => {
    const answer = await got(
      api.POST('/tune', { body: { ...worn, head: chosen, zone: zone || undefined, keep_range: keep } }),
    )
    setFound({ for: asked, now: answer.now, list: answer.found })
  })
  return (
    <section aria-label="Tune">
      <h2>Tune for</h2>
      <div className={css.tuneAsk}>
        <Select
          aria-label="Head to tune for"
          value={chosen}
          onChange={setHead}
          options={heads.map((h) => ({ value: h.id, label: h.name }))}
        />
        <Select
          aria-label="Length to tune for"
          value={zone}
          onChange={setZone}
          options={[
            { value: 'long', label: 'at long length' },
            { value: 'middle', label: 'at middle length' },
            { value: 'short', label: 'at short length' },
            { value: '', label: 'at any length' },
          ]}
        />
        <label className="near-room">
          <input type="checkbox" checked={keep} onChange={(e) => setKeep(e.target.checked)} /> keep the range
        </label>
        <Button type="primary" loading={busy} onClick={() => void go()}>
          Tune
        </Button>
      </div>
      {fault && <p className="fault">{fault}</p>}
      {found?.for === asked && (
        <>
          <p className="margin-line">
            Now {decimals(found.now)}: bias × tension at that length × what is not idle.
            {found.list.length === 0 && ' Nothing in this movement’s settings, or in this room, does it.'}
          </p>
          {found.list.map((f) => (
            <div key={f.name} className={clsx('finding', css.tuned)}>
              <Slice geometry={right} view={f.glyph.slice} size={40} />
              <div>
                <b>{decimals(f.score)}</b> {f.name}
                {f.worth.map((x) => (
                  <p key={x.label}>
                    {x.label} {x.from} → {x.to}: {x.score >= 0 ? '+' : '−'}
                    {decimals(Math.abs(x.score))}
                  </p>
                ))}
                <button type="button" className="link" onClick={() => wear(f.settings)}>
                  Wear this
                </button>
              </div>
            </div>
          ))}
        </>
      )}
    </section>
  )
}

import type { SetUpView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { Code } from '../../figures/BiasBars'
import { decimals } from '../../figures/heads'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import { clsx } from 'clsx'
import type { ReactNode } from 'react'
import { Alive } from '../../figures/Alive'
import { useStills } from '../../ui/stage/Play'
import css from './fitting.module.css'

interface Props {
  pins: SetUpView[]
  now: SetUpView
  client: string | undefined
  wear: (view: SetUpView) => void
  drop: (view: SetUpView) => void
}

/** Pinned shows up to three variants side by side with what is worn, their differences spelt out. */
export function Pinned({ pins, now, client, wear, drop }: Props) {
  const { right } = useCatalogue()
  return (
    <section className={css.pins} aria-label="Pinned set-ups">
      {pins.map((p) => (
        <div key={p.name} className={p.name === now.name ? clsx(css.pinCard, css.here) : css.pinCard}>
          <Pin pin={p} client={client} picture={<Slice geometry={right} view={p.slice} size={64} />} />
          <div>
            <b>{p.name}</b>
            {p.ribbon && <Ribbon geometry={p.ribbon} width={120} height={14} />}
            <p className={css.pinDiff}>{p.name === now.name ? 'worn now' : differences(p, now)}</p>
            <button type="button" className="link" onClick={() => wear(p)}>
              Wear
            </button>{' '}
            <button type="button" className="link" onClick={() => drop(p)}>
              Unpin
            </button>
          </div>
        </div>
      ))}
    </section>
  )
}

/** Pin is one variant's picture: its slice, or its arm in step with what is worn while that plays. */
function Pin({ pin, client, picture }: { pin: SetUpView; client: string | undefined; picture: ReactNode }) {
  const stills = useStills({ movement: pin.movement, settings: pin.settings, client })
  return stills ? <Alive stills={stills} className={css.pinArm} /> : picture
}

/** differences lists the heads whose bars differ from what is worn now. */
function differences(p: SetUpView, now: SetUpView) {
  const apart = p.bias
    .map((b, i) => ({ b, was: now.bias[i]!.value }))
    .filter(({ b, was }) => decimals(b.value) !== decimals(was))
  if (apart.length === 0) return 'every head gets the same as now'
  return apart.map(({ b, was }) => (
    <span key={b.id} className={css.pinHead}>
      <Code id={b.id} code={b.code} /> {decimals(b.value)} <i>now {decimals(was)}</i>
    </span>
  ))
}

import { Button } from 'antd'
import { clsx } from 'clsx'
import { useState } from 'react'
import type { DraftedDay, DraftedHead, DraftedSlot, DraftedWeek, DraftPrices } from '../../../api/client'
import { useCatalogue } from '../../../app/me'
import { tenths } from '../../../figures/heads'
import { Slice } from '../../../figures/Slice'
import { TargetBar } from '../../../figures/TargetBar'
import css from './drafts.module.css'

interface Props {
  week: DraftedWeek
  free: string[]
  looking: boolean
  prices: DraftPrices['prices']
  kept: (slot: DraftedSlot) => boolean
  keep: (slot: DraftedSlot) => void
  forbid: (slot: DraftedSlot) => void
  exchange: (slot: DraftedSlot) => void
  takeAll: () => void
  take: (day: DraftedDay, slot: DraftedSlot) => void
}

/** told is how many things given up are told at once. */
const told = 3

/** Column is one drafted week: what each head gets, what is given up, then its days as strips. */
export function Column({ week, free, looking, prices, kept, keep, forbid, exchange, takeAll, take }: Props) {
  const { right } = useCatalogue()
  const most = Math.max(14, ...week.heads.map((h) => Math.max(h.total, h.target_high)))
  const [open, setOpen] = useState('')
  const [all, setAll] = useState(false)
  return (
    <section className={css.column} aria-label={week.title}>
      <header className={css.title}>
        <Slice geometry={right} view={week.slice} size={76} places={1} unit="effective sets a week" />
        <div>
          <h3>{week.title}</h3>
          <p>{week.says}</p>
          <Button type="primary" size="small" onClick={takeAll} disabled={week.sessions.length === 0}>
            {week.sessions.length === 0 ? 'It is on the board' : 'Lay it on the board'}
          </Button>{' '}
          <b>{week.minutes}</b> min
        </div>
      </header>
      <div className={css.heads}>
        {week.heads.map((h) => (
          <Head key={h.id} head={h} most={most} />
        ))}
      </div>
      <p className={css.gives}>
        <b>Gives up</b> {week.gives_up.length === 0 && 'nothing it is asked for.'}
        {week.gives_up.slice(0, all ? undefined : told).join('; ')}
        {week.gives_up.length > told && (
          <>
            {' '}
            <button type="button" className={css.more} aria-expanded={all} onClick={() => setAll(!all)}>
              {all ? 'only the gravest' : `and ${week.gives_up.length - told} more`}
            </button>
          </>
        )}
      </p>
      {week.days.map((day) => (
        <div key={day.session} className={css.day}>
          <h4>
            {day.name}
            <span className={css.minutes}>
              {prices
                .filter((p) => p.on === day.on)
                .map((p) => (
                  <span key={p.words} className={css.tag}>
                    {p.words}
                  </span>
                ))}
              {day.minutes} min
            </span>
          </h4>
          <ul>
            {day.slots.map((slot) => {
              const id = `${day.session} ${slot.id} ${slot.key}`
              const here = `${day.on} ${slot.key}`
              return (
                <li key={id} className={clsx(css.slot, (slot.state === 'same' || slot.state === 'locked') && css.pale)}>
                  <button
                    type="button"
                    className={css.line}
                    aria-expanded={open === here}
                    onClick={() => setOpen(open === here ? '' : here)}
                  >
                    <Slice geometry={right} view={slot.glyph.slice} size={24} />
                    <span className={css.name}>
                      {slot.short}
                      {slot.turns && <i> · {slot.turns}</i>}
                    </span>
                    {(slot.state === 'locked' || kept(slot)) && <span className={css.stays}>stays</span>}
                    <b>{slot.sets}</b>
                  </button>
                  {open === here && (
                    <div className={css.why}>
                      <p>
                        {slot.title}
                        {slot.details && `, ${slot.details}`}. {slot.dose}; {slot.load}.
                      </p>
                      <p>
                        {slot.carries && `Carries ${slot.carries}.`}
                        {slot.also.length > 0 && ` Also ${slot.also.join('; ')}.`}
                        {slot.state === 'locked' && 'It stays as it is.'}
                      </p>
                      {slot.keep && (
                        <p className={css.acts}>
                          <Button size="small" onClick={() => keep(slot)} aria-pressed={kept(slot)}>
                            {kept(slot) ? 'It need not stay' : 'It stays'}
                          </Button>
                          <Button size="small" onClick={() => exchange(slot)} disabled={looking}>
                            Something else here
                          </Button>
                          <Button size="small" onClick={() => forbid(slot)}>
                            Never this
                          </Button>
                          {slot.state !== 'same' && (
                            <Button size="small" onClick={() => take(day, slot)}>
                              Lay only this
                            </Button>
                          )}
                        </p>
                      )}
                    </div>
                  )}
                </li>
              )
            })}
          </ul>
          {day.gone.length > 0 && (
            <p className={css.gone}>
              Gone: <s>{day.gone.join('; ')}</s>
            </p>
          )}
        </div>
      ))}
      {free.length > 0 && <p className={css.free}>Free: {free.join(', ')}.</p>}
    </section>
  )
}

function Head({ head, most }: { head: DraftedHead; most: number }) {
  return (
    <div className={clsx(css.headLine, head.short && css.short)}>
      <span>{head.code}</span>
      <TargetBar {...head} most={most} />
      <b>{head.total.toFixed(1)}</b>
      <span className="only-read">
        {' '}
        effective sets of {tenths(head.target_low)} to {tenths(head.target_high)}: {head.name}, {head.level};{' '}
        {head.low.toFixed(1)} to {head.high.toFixed(1)} over all stances
      </span>
    </div>
  )
}

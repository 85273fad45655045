import { useQuery } from '@tanstack/react-query'
import { Button } from 'antd'
import { useEffect, useRef, useSyncExternalStore } from 'react'
import type { Stills, Worn } from '../../api/client'
import { queries } from '../../api/queries'
import { useKeys } from '../../app/keys'
import { useClock } from '../../figures/Alive'
import { clock, follow } from '../../figures/clock'
import { last } from '../../figures/tempo'
import css from './stage.module.css'

/** still says whether who looks wants nothing to move: the repetition is shown in five pictures then. */
const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** useStills is the repetition of what is worn, asked for once somebody plays it. */
export function useStills(worn: Worn | undefined): Stills | undefined {
  const { open } = useClock()
  const fault = useSyncExternalStore(clock.watch, clock.fault)
  const rep = useQuery(queries.rep(worn && open ? JSON.stringify({ ...worn, fault: fault || undefined }) : null))
  return open ? rep.data : undefined
}

/** Play plays the repetition at its tempo: a button, space, and the range to be scrubbed, each instant in words. */
export function Play({ stills }: { stills: Stills | undefined }) {
  const { open, running } = useClock()
  const words = useRef<HTMLParagraphElement>(null)
  const range = useRef<HTMLInputElement>(null)
  const thumb = useRef<HTMLSpanElement>(null)
  useEffect(() => () => clock.close(), []) // it ends with the page that it was begun on
  useEffect(() => (thumb.current ? follow(thumb.current) : undefined), [open])
  useEffect(
    () =>
      clock.hear((place, runs) => {
        const says = stills?.words[Math.round(place)] ?? ''
        if (words.current && words.current.textContent !== says) words.current.textContent = says
        if (runs || !range.current) return
        range.current.value = String(place)
        range.current.setAttribute('aria-valuetext', says)
      }),
    [stills, open],
  )
  /** before it is moved the slider is where the repetition is */
  const catchUp = () => {
    if (clock.isRunning() && range.current) range.current.value = String(Math.round(clock.place()))
  }
  // it may have begun before its tempo was known
  useEffect(() => {
    if (stills && clock.isRunning()) clock.start(stills.tempo)
  }, [stills])
  const toggle = () => {
    if (still()) clock.seek(!open || clock.place() >= last ? 0 : (Math.floor(clock.place() / 10) + 1) * 10)
    else if (clock.isRunning()) clock.stop()
    else clock.start(stills?.tempo ?? [2, 0.4, 1.6, 0.4])
  }
  useKeys({
    ' ': {
      does: 'play the repetition',
      run: (e) =>
        e.target instanceof HTMLElement && e.target.closest('button, a, [role=button]') ? e.target.click() : toggle(),
    },
  })
  return (
    <div className={css.play}>
      <Button size="small" aria-pressed={running} onClick={toggle}>
        {running ? 'Pause' : 'Play'}
      </Button>
      {open && (
        <>
          <div className={css.scrub}>
            <input
              ref={range}
              type="range"
              min={0}
              max={last}
              step={1}
              defaultValue={0}
              aria-label="Where in the repetition"
              onKeyDown={catchUp}
              onPointerDown={catchUp}
              onInput={(e) => clock.seek(Number(e.currentTarget.value))}
            />
            <span className={css.track} aria-hidden>
              <span ref={thumb} className={css.thumb} />
            </span>
          </div>
          <Button size="small" type="text" onClick={() => clock.close()}>
            Back to its settings
          </Button>
          {stills?.says && <p className={css.fault}>{stills.says}</p>}
          <p ref={words} className={css.instant} aria-live={running ? 'off' : 'polite'} />
        </>
      )}
    </div>
  )
}

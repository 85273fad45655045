import { useEffect, useRef, useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import type { Card, Drawn } from '../api/client'
import { queries } from '../api/queries'
import { clsx } from 'clsx'
import { Shapes } from './Shapes'
import css from './pose.module.css'

/** FigureOf finds a set-up's figure; while it is on its way, that of the same movement as it was set up before. */
export type FigureOf = (movement: string, settings: Drawn['settings']) => Card | undefined

/** useFigures are the figures of set-ups. They come after the page that they are on, and when nobody turns anything any more. */
export function useFigures(setUps: Drawn[], client?: string, stance?: string): FigureOf {
  const wanted = setUps.length > 0 ? JSON.stringify({ set_ups: setUps, client, stance }) : null
  const [body, setBody] = useState<string | null>(null)
  useEffect(() => {
    const later = setTimeout(() => setBody(wanted), body === null ? 0 : 300)
    return () => clearTimeout(later)
  }, [wanted, body])
  const { data } = useQuery(queries.figures(body))
  return (movement, settings) => data?.get(JSON.stringify({ movement, settings })) ?? data?.get(movement)
}

/** Small is a set-up as small as on a card; it is not drawn before it is nearly in sight, since there are many. */
export function Small({ of, className }: { of: Card | undefined; className?: string }) {
  const place = useRef<HTMLDivElement>(null)
  const [near, setNear] = useState(false)
  useEffect(() => {
    if (near || !place.current) return
    const watch = new IntersectionObserver((seen) => seen.some((s) => s.isIntersecting) && setNear(true), {
      rootMargin: '300px',
    })
    watch.observe(place.current)
    return () => watch.disconnect()
  }, [near])
  return (
    <div ref={place} className={clsx(css.small, className)}>
      {near && of && (
        <svg viewBox={of.box.join(' ')} className={css.pose} role="img" aria-label={of.text}>
          <Shapes of={of.shapes} />
        </svg>
      )}
    </div>
  )
}

import { clsx } from 'clsx'
import type { ComponentProps } from 'react'
import { CloseUp } from './CloseUp'
import { PoseFigure } from './PoseFigure'
import css from './pose.module.css'

/** Figure is a set-up as it is seen: the person, and the arm by itself beside it. */
export function Figure({
  hatch,
  className,
  ...of
}: ComponentProps<typeof PoseFigure> & {
  /** how each head is hatched, by its id; absent: not at all */
  hatch?: Map<string, number>
}) {
  return (
    <div className={clsx(css.pair, className)}>
      <PoseFigure {...of} />
      {of.pose.close && <CloseUp of={of.pose.close} hatch={hatch} />}
    </div>
  )
}

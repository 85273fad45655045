import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { queries } from '../../api/queries'
import { BiasBars } from '../../figures/BiasBars'
import { Figure } from '../../figures/Figure'
import { hatchOf } from '../../figures/Hatches'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import css from './signin.module.css'

/** Door is the page of whoever is not signed in: what the product is, in one set-up, and beside it what to do. */
export function Door({ title, children }: { title: string; children: ReactNode }) {
  const front = useQuery({ ...queries.front(), retry: 0 })
  const view = front.data?.view
  return (
    <div className={css.door}>
      <main className={css.card}>
        <p className={css.name}>Musculus</p>
        <h1>{title}</h1>
        {children}
      </main>
      <section className={css.shows} aria-label="What it does">
        {view && (
          <>
            <div className={css.figure}>
              <Figure pose={view.pose} hatch={hatchOf(front.data!.right)} />
            </div>
            <div className={css.says}>
              <Slice geometry={front.data!.right} view={view.slice} size={148} />
              <div>
                <p className={css.lead}>What a set-up does to each head of the arm, and what follows for a session.</p>
                <p className={css.what}>
                  {view.title}: {view.does[0]}
                </p>
              </div>
            </div>
            {view.ribbon && <Ribbon geometry={view.ribbon} width={430} height={34} full />}
            <BiasBars bias={view.bias} graded={!view.computed} />
          </>
        )}
      </section>
    </div>
  )
}

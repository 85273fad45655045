import type { StripView } from '../../../api/client'
import { useCatalogue } from '../../../app/me'
import { Slice } from '../../../figures/Slice'

/** NotYet is what a turn that is not made yet will give, as the block has it now. */
export function NotYet({ turn }: { turn: StripView['turns'][number] }) {
  const { right } = useCatalogue()
  return (
    <section aria-label="What it will come to">
      <Slice geometry={right} view={turn.slice} size={220} places={1} unit="effective sets" />
      <p>
        <b>{turn.sets}</b> sets, {turn.effort}. Nothing of it is in the plan yet.
      </p>
    </section>
  )
}

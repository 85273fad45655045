import { tone } from './heads'

const steps = 25

/** tintsOf are a head's colours from not filled to quite, as the theme has them now: what paints without a style sheet takes them ready mixed. */
export function tintsOf(head: string): string[] {
  const probe = document.createElement('i')
  document.body.append(probe)
  const all = Array.from({ length: steps + 1 }, (_, k) => {
    probe.style.color = tone(head, k / steps)
    return getComputedStyle(probe).color
  })
  probe.remove()
  return all
}

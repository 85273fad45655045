import { act, render, screen } from '@testing-library/react'
import { afterEach, expect, test, vi } from 'vitest'
import { RestBand } from './RestBand'
import { useClock } from './senses'

afterEach(() => vi.useRealTimers())

const senses = { left: false, sound: false, shake: false, pace: 'off' as const }

function Band({ from }: { from: number }) {
  return (
    <RestBand restS={90} from={from} at={useClock(Date.now)} long={1.25} senses={senses}>
      <i />
    </RestBand>
  )
}

test('after a minute asleep the band has the true time as soon as it is seen', () => {
  vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'] })
  const from = Date.now()
  render(<Band from={from} />)
  expect(screen.getByText('1:30')).toBeInTheDocument()
  vi.setSystemTime(from + 60_000) // no timer ran meanwhile
  act(() => void document.dispatchEvent(new Event('visibilitychange')))
  expect(screen.getByText('0:30')).toBeInTheDocument()
  vi.setSystemTime(from + 91_000)
  act(() => void document.dispatchEvent(new Event('visibilitychange')))
  expect(screen.getByText('rest over')).toBeInTheDocument()
  expect(screen.getByText('The rest is over.')).toBeInTheDocument()
  vi.setSystemTime(from + 115_000)
  act(() => void document.dispatchEvent(new Event('visibilitychange')))
  expect(screen.getByText('over, +0:25')).toBeInTheDocument()
})

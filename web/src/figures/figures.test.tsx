import { fireEvent, render, screen } from '@testing-library/react'
import { expect, test, vi } from 'vitest'
import type { BiasView, Pose, Ribbon as RibbonGeometry, Slice as SliceGeometry, SliceView } from '../api/client'
import { BiasBars } from './BiasBars'
import { decimals, tenths } from './heads'
import { along, nearest, PoseFigure } from './PoseFigure'
import { Ribbon } from './Ribbon'
import { Slice } from './Slice'

const geometry: SliceGeometry = {
  outline: 'M0 0L1 0L1 1Z',
  bone: { x: 0.5, y: 0.5 },
  bone_r: 0.06,
  regions: [
    {
      head: 'biceps_long',
      code: 'BL',
      name: 'biceps, long head',
      path: 'M0 0L1 0Z',
      label: { x: 0.7, y: 0.2 },
      hatch: 45,
      pitch: 0.06,
    },
    {
      head: 'biceps_short',
      code: 'BS',
      name: 'biceps, short head',
      path: 'M0 0L0 1Z',
      label: { x: 0.3, y: 0.2 },
      hatch: 135,
      pitch: 0.06,
    },
  ],
}
const view: SliceView = {
  text: 'Bias: biceps, long head 1.05; biceps, short head 0.90',
  heads: [
    {
      id: 'biceps_long',
      code: 'BL',
      name: 'biceps, long head',
      value: 1.05,
      low: 1.05,
      high: 1.05,
      level: 0.7,
      leading: true,
    },
    {
      id: 'biceps_short',
      code: 'BS',
      name: 'biceps, short head',
      value: 0.9,
      low: 0.9,
      high: 0.9,
      level: 0,
      leading: false,
    },
  ],
}

test('a slice is read by its text, shaded by level and outlined where it leads', () => {
  const { container } = render(<Slice geometry={geometry} view={view} size={160} />)
  expect(screen.getByRole('img', { name: /long head 1.05/ })).toBeInTheDocument()
  const regions = container.querySelectorAll<SVGPathElement>('.slice_region')
  expect(Number(regions[0]!.style.fillOpacity)).toBeGreaterThan(0.5)
  expect(regions[1]!.style.fillOpacity).toBe('0')
  expect(container.querySelector('.slice_leading')?.getAttribute('d')).toBe('M0 0L1 0Z')
  expect(screen.getByText('1.05')).toBeInTheDocument()
  fireEvent.pointerEnter(regions[1]!.parentElement!)
  expect(screen.getByRole('status')).toHaveTextContent('biceps, short head 0.90')
})

test('a glyph has no letters but keeps the outline', () => {
  const { container } = render(<Slice geometry={geometry} view={view} size={30} />)
  expect(container.querySelector('text')).toBeNull()
  expect(container.querySelector('pattern')).toBeNull()
  expect(container.querySelector('.slice_leading')).not.toBeNull()
})

const ribbon: RibbonGeometry = {
  solid: ['M0 0Z'],
  hollow: ['M0.5 0Z'],
  tick: 0.2,
  marks: [{ x: 0, elbow: 10 }],
  reads: [
    { x: 0, elbow: 10, demand: 0.3 },
    { x: 1, elbow: 140, demand: 0.7 },
  ],
  text: 'hardest at 30°, idle from 100° to 140°',
}

test('a full ribbon tells its reading under the pointer', () => {
  const { container } = render(<Ribbon geometry={ribbon} width={100} height={20} full />)
  expect(container.querySelectorAll('.ribbon_hollow')).toHaveLength(1)
  const svg = screen.getByRole('img', { name: /idle from 100°/ })
  svg.getBoundingClientRect = () => new DOMRect(0, 0, 100, 20)
  fireEvent(svg, new MouseEvent('pointermove', { clientX: 95, bubbles: true }))
  expect(screen.getByText(/140°: 0.70/)).toBeInTheDocument()
})

const handle = {
  key: 'bench',
  label: 'Bench',
  at: { x: 1, y: 0 },
  track: [45, 50, 55, 60, 65].map((value, i) => ({ value, at: { x: i, y: 0 } })),
}
const pose: Pose = {
  box: [0, 0, 4, 1],
  shapes: [{ class: 'arm', path: 'M0 0L1 1', width: 0.1 }],
  path: 'M0 0',
  handles: [handle],
  text: 'Reclined on a bench',
}

test('dragging takes the nearest step, keys the next one, Shift three', () => {
  expect(nearest(handle, 3.4, 5)).toBe(60)
  expect(along(handle, 50, 3)).toBe(65)
  expect(along(handle, 50, -3)).toBe(45)
  const turn = vi.fn()
  render(<PoseFigure pose={pose} onTurn={turn} words={() => '50°'} />)
  const slider = screen.getByRole('slider', { name: 'Bench' })
  expect(slider).toHaveAttribute('aria-valuenow', '50')
  expect(slider).toHaveAttribute('aria-valuetext', '50°')
  fireEvent.keyDown(slider, { key: 'ArrowRight' })
  fireEvent.keyDown(slider, { key: 'ArrowRight', shiftKey: true })
  fireEvent.keyDown(slider, { key: 'x' })
  expect(turn.mock.calls).toEqual([
    ['bench', 55, false],
    ['bench', 65, false],
  ])
})

test('a figure that is only looked at has no handles and reads as a picture', () => {
  render(<PoseFigure pose={pose} />)
  expect(screen.getByRole('img', { name: 'Reclined on a bench' })).toBeInTheDocument()
  expect(screen.queryByRole('slider')).toBeNull()
})

test('bars leave out heads that get nothing and name them', () => {
  const bias = view.heads.map((h) => ({
    ...h,
    agonist: true,
    share: 1,
    plain: 1,
    stretch: 1,
    squeeze: 1,
    mean_length: 0.9,
    zone: 'long',
    credit: 1,
  })) as BiasView[]
  bias[1] = { ...bias[1]!, value: 0, agonist: false, zone: null, mean_length: null }
  const { container } = render(<BiasBars bias={bias} graded={false} />)
  expect(container.querySelectorAll('.bars_barRow')).toHaveLength(1)
  expect(screen.getByText('nothing for BS')).toBeInTheDocument()
  expect(screen.getByText('long length')).toBeInTheDocument()
})

test('numbers have no sign where they round to nothing', () => {
  expect(decimals(-0.004)).toBe('0.00')
  expect(decimals(-0.04, 0)).toBe('0')
  expect(decimals(-0.05)).toBe('-0.05')
  expect(tenths(-0.04)).toBe('0')
})

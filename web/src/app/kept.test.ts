import { beforeEach, expect, test, vi } from 'vitest'
import { forgetAll, keep, openFor, readKept, unsent, whenLeft } from './kept'

beforeEach(() => {
  localStorage.clear()
  sessionStorage.clear()
  openFor('wren')
})

test('what one account typed is not there for the next, and is for the first again', () => {
  keep(localStorage, 'draft s', { name: 'Arms' })
  openFor('jory')
  expect(readKept(localStorage, 'draft s')).toBeNull()
  expect(unsent()).toBe(false)
  openFor('wren')
  expect(readKept(localStorage, 'draft s')).toEqual({ name: 'Arms' })
})

test('signing out forgets both stores, and nobody else’s', () => {
  keep(localStorage, 'draft s', 1)
  keep(sessionStorage, 'dossier c', 2)
  openFor('jory')
  keep(localStorage, 'draft s', 3)
  openFor('wren')
  expect(unsent()).toBe(true)
  forgetAll()
  expect(unsent()).toBe(false)
  openFor('jory')
  expect(readKept(localStorage, 'draft s')).toBe(3)
})

test('other tabs of the account hear of it, tabs of others do not', () => {
  const run = vi.fn()
  const stop = whenLeft(run)
  for (const newValue of ['jory 1', 'wren 2'])
    window.dispatchEvent(new StorageEvent('storage', { key: 'musculus left', newValue }))
  stop()
  window.dispatchEvent(new StorageEvent('storage', { key: 'musculus left', newValue: 'wren 3' }))
  expect(run).toHaveBeenCalledOnce()
})

test('junk in the store counts as nothing', () => {
  localStorage.setItem('musculus wren draft s', '{')
  expect(readKept(localStorage, 'draft s')).toBeNull()
})

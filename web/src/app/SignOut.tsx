import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api, got, problemOf } from '../api/client'
import { useSaving } from '../saving/useDoc'
import { forgetAll, startAfresh, unsent } from './kept'
import css from './shell.module.css'
import { message, modal } from '../ui/tell'

/**
 * SignOut waits for the server, then forgets what this browser kept for the account and starts afresh; a failure is
 * told and nothing is forgotten.
 */
export function SignOut() {
  const queries = useQueryClient()
  const { outbox } = useSaving()
  const [busy, setBusy] = useState(false)
  const going = useRef(false)
  const go = async () => {
    if (going.current) return
    going.current = true
    setBusy(true)
    try {
      await got(api.POST('/sign-out'))
    } catch (e) {
      const p = problemOf(e)
      if (p.status !== 401) {
        message.error(`You are still signed in: ${p.message} Press Sign out again before you leave this device.`, 10)
        going.current = false
        return setBusy(false)
      }
    }
    outbox.end()
    forgetAll()
    queries.clear()
    queries.setQueryData(['me'], null)
    startAfresh()
  }
  const press = () => {
    if (!unsent()) return void go()
    modal.confirm({
      title: 'Something you typed is not saved yet.',
      content: 'Signing out takes it off this device. Stay until it is saved, or sign out and lose it.',
      okText: 'Sign out and lose it',
      cancelText: 'Stay',
      onOk: go,
    })
  }
  return (
    <button type="button" className={css.barOut} disabled={busy} onClick={press}>
      {busy ? 'Signing out …' : 'Sign out'}
    </button>
  )
}

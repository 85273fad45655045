import { useQueryClient } from '@tanstack/react-query'
import { api, got, problemOf } from '../api/client'
import { useSaving } from '../saving/useDoc'
import { forgetFloor } from '../floor/forget'
import { accountNow, forgetAll, startAfresh, unsent } from './kept'
import css from './shell.module.css'
import { message, modal } from '../ui/tell'
import { useWrite } from '../api/useWrite'

/**
 * SignOut waits for the server, then forgets what this browser kept for the account and starts afresh; a failure is
 * told and nothing is forgotten.
 */
export function SignOut() {
  const queries = useQueryClient()
  const { outbox } = useSaving()
  const { run: go, busy } = useWrite(
    async () => {
      try {
        await got(api.POST('/sign-out'))
      } catch (e) {
        if (problemOf(e).status !== 401) throw e // it is over there already
      }
      outbox.end()
      await forgetFloor(accountNow())
      forgetAll()
      queries.clear()
      queries.setQueryData(['me'], null)
      startAfresh()
    },
    (p) =>
      message.error(`You are still signed in: ${p.message} Press Sign out again before you leave this device.`, 10),
  )
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

import { useCallback, useEffect, useRef } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, problemOf, type ArrangeCommand } from '../api/client'
import type { Session } from './session'
import { message } from '../ui/tell'

const mostTries = 3
const mostNew = 20 // ids a command may need

export type Arrange = (command: Omit<ArrangeCommand, 'ids'>) => void

/**
 * useArrange lays a session out: what becomes of slots and rows is the core's to say. Commands are done one after the
 * other; one that was typed over meanwhile is done again on what is there then.
 */
export function useArrange<S extends Session>(
  client: string,
  session: S,
  edit: (label: string, change: (s: S) => S) => void,
): Arrange {
  const latest = useRef(session)
  useEffect(() => {
    latest.current = session
  })
  const queue = useRef(Promise.resolve())
  return useCallback(
    (command) => {
      const run = async () => {
        for (let n = 0; n < mostTries; n++) {
          const { slots, combos } = latest.current
          const next = await got(
            api.POST('/clients/{client}/arrange', {
              params: { path: { client } },
              body: { ...command, ids: Array.from({ length: mostNew }, () => uuidv7()), slots, combos },
            }),
          )
          let done = false
          edit('', (s) => {
            if (s.slots !== slots || s.combos !== combos) return s
            done = true
            latest.current = { ...s, slots: next.slots, combos: next.combos }
            return latest.current
          })
          if (done) return
        }
        throw new Problem(409, 'Not done: it was being changed all the while. Press it again.')
      }
      queue.current = queue.current.then(run).catch((e: unknown) => {
        message.error(problemOf(e).words)
      })
    },
    [client, edit],
  )
}

import { useMutation } from '@tanstack/react-query'
import { useRef } from 'react'
import { Problem } from './client'

/**
 * useWrite is one write of a screen. run sends it, once however often it is pressed, and says whether it was kept; busy:
 * it is under way; problem and why: what kept it from being kept, the last time, told nowhere else unless failed tells
 * it, which may send it again, as with the answer to what was asked. What is no problem of the server's is an error of ours and goes to the page's boundary.
 */
export function useWrite<A extends unknown[]>(
  errand: (...args: A) => Promise<void>,
  failed?: (p: Problem, again: (...args: A) => Promise<boolean>) => void,
) {
  const flying = useRef(false)
  const { mutateAsync, isPending, error } = useMutation<void, Error, A>({
    mutationFn: (args) => errand(...args),
    throwOnError: (e) => !(e instanceof Problem),
  })
  const run = async (...args: A): Promise<boolean> => {
    if (flying.current) return false
    flying.current = true
    try {
      await mutateAsync(args)
      return true
    } catch (e) {
      if (e instanceof Problem) failed?.(e, run)
      return false
    } finally {
      flying.current = false
    }
  }
  const problem = error instanceof Problem ? error : null
  return { run, busy: isPending, problem, why: problem?.words ?? '' }
}

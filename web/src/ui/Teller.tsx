import { useEffect, useState, useSyncExternalStore, type ComponentType, type ReactNode } from 'react'
import { forTeller } from './tell'

/** How long after the first view the voice is fetched, so that it is there when the network goes. */
const fetchAfterMs = 4000
const plainForMs = 8000

/**
 * Teller mounts what tells: the component library's voice, fetched when there is something to tell and otherwise in a
 * quiet moment; where it cannot be fetched, plain words in the page.
 */
export function Teller() {
  const wanted = useSyncExternalStore(forTeller.watch, forTeller.wanted)
  const [Voice, setVoice] = useState<ComponentType>()
  useEffect(() => {
    const timer = setTimeout(
      () => {
        import('./Voice').then(
          (m) => setVoice(() => m.Voice),
          () => wanted && setVoice(() => Plain),
        )
      },
      wanted ? 0 : fetchAfterMs,
    )
    return () => clearTimeout(timer)
  }, [wanted])
  return Voice ? <Voice /> : null
}

/** Plain says, or asks, the last thing told. */
function Plain() {
  const [told, setTold] = useState<ReactNode>(null)
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>
    forTeller.here({
      say: ({ content }) => {
        clearTimeout(timer)
        setTold(content)
        timer = setTimeout(() => setTold(null), plainForMs)
      },
      hush: () => setTold(null),
      ask: (q) => {
        clearTimeout(timer)
        const answer = (yes: boolean) => () => {
          setTold(null)
          if (yes) void q.onOk?.()
        }
        setTold(
          <>
            <b>{q.title}</b> {q.content}{' '}
            <button type="button" onClick={answer(true)}>
              {q.okText}
            </button>{' '}
            <button type="button" onClick={answer(false)}>
              {q.cancelText}
            </button>
          </>,
        )
      },
    })
    return () => {
      clearTimeout(timer)
      forTeller.here(null)
    }
  }, [])
  return (
    <div className="told" role="alert">
      {told}
    </div>
  )
}

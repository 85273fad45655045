// What is told in passing, and asked before something that cannot be taken back. The component library's notices are
// fetched when there is the first thing to tell: no first view waits for them.
import type { ArgsProps } from 'antd/es/message/interface'
import type { ModalFuncProps } from 'antd/es/modal/interface'
import type { ReactNode } from 'react'

type Told = Omit<ArgsProps, 'type'>

/** Voice is what speaks, once it is there. */
export interface Voice {
  say: (told: ArgsProps) => void
  hush: (key?: string) => void
  ask: (question: ModalFuncProps) => void
}

let voice: Voice | null = null
let waiting: ((v: Voice) => void)[] = []
let wanted = false
const watchers = new Set<() => void>()

function speak(what: (v: Voice) => void) {
  if (voice) return what(voice)
  waiting.push(what)
  if (wanted) return
  wanted = true
  watchers.forEach((w) => w())
}

const say = (type: ArgsProps['type']) => (content: ReactNode, duration?: number) =>
  speak((v) => v.say({ type, content, duration }))

export const message = {
  success: say('success'),
  warning: say('warning'),
  error: say('error'),
  /** open tells something with a key, so that it can be taken away, and with what to do about it. */
  open: (told: Told) => speak((v) => v.say(told)),
  destroy: (key?: string) => voice?.hush(key),
}

export const modal = { confirm: (question: ModalFuncProps) => speak((v) => v.ask(question)) }

/** forTeller is what the page that mounts the voice watches, and the voice itself says that it is there. */
export const forTeller = {
  watch: (changed: () => void) => {
    watchers.add(changed)
    return () => void watchers.delete(changed)
  },
  wanted: () => wanted,
  here: (v: Voice | null) => {
    voice = v
    if (!v) return
    const said = waiting
    waiting = []
    said.forEach((what) => what(v))
  },
}

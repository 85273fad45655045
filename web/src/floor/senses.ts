import { useEffect, useState } from 'react'

/** Senses are how this device says that a rest is over, and which hand holds it. */
export interface Senses {
  left: boolean // held in the left hand
  sound: boolean
  shake: boolean
  pace: 'off' | 'sound' | 'shake' | 'light' // of a slow lowering
}

const name = 'musculus-floor-senses'
const plain: Senses = { left: false, sound: false, shake: true, pace: 'off' }

export function useSenses(): [Senses, (s: Senses) => void] {
  const [senses, set] = useState<Senses>(() => {
    try {
      return { ...plain, ...(JSON.parse(localStorage.getItem(name) ?? '{}') as Partial<Senses>) }
    } catch {
      return plain
    }
  })
  return [
    senses,
    (s) => {
      set(s)
      try {
        localStorage.setItem(name, JSON.stringify(s))
      } catch {
        // it holds for this page
      }
    },
  ]
}

let audio: AudioContext | null = null

/** tone is a short, low tone. */
export function tone(hertz: number, seconds: number) {
  try {
    audio ??= new AudioContext()
    const [o, g] = [audio.createOscillator(), audio.createGain()]
    o.frequency.value = hertz
    g.gain.setValueAtTime(0.2, audio.currentTime)
    g.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + seconds)
    o.connect(g).connect(audio.destination)
    o.start()
    o.stop(audio.currentTime + seconds)
  } catch {
    // no sound here
  }
}

/** call says that a rest is over. */
export function call(s: Senses) {
  if (s.sound) tone(440, 0.5)
  if (s.shake) navigator.vibrate?.([120, 80, 120])
}

/** useAwake keeps the screen awake where the browser allows it. */
export function useAwake() {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null
    let gone = false
    const hold = () => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return
      navigator.wakeLock.request('screen').then(
        (l) => {
          if (gone) void l.release()
          else lock = l
        },
        () => undefined,
      )
    }
    hold()
    document.addEventListener('visibilitychange', hold)
    return () => {
      gone = true
      document.removeEventListener('visibilitychange', hold)
      void lock?.release()
    }
  }, [])
}

/** useClock is now by the server's clock, four times a second, and at once when the page is seen again. */
export function useClock(clock: () => number): number {
  const [at, set] = useState(clock)
  useEffect(() => {
    const tick = () => set(clock())
    const timer = setInterval(tick, 250)
    document.addEventListener('visibilitychange', tick)
    return () => {
      clearInterval(timer)
      document.removeEventListener('visibilitychange', tick)
    }
  }, [clock])
  return at
}

import { useEffect, useRef, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { components } from '../api/schema'
import css from './link.module.css'

type View = components['schemas']['CheckInView']

const at = (token: string) => `/api/links/${encodeURIComponent(token)}/check-in`

/** CheckIn is what she did the last time, what changed since, one question, and her own words back. */
export function CheckIn({ token }: { token: string }) {
  const [view, setView] = useState<View | null>(null)
  const [asks, setAsks] = useState('')
  const [why, setWhy] = useState('')
  const [busy, setBusy] = useState(false)
  const ids = useRef<Record<string, string>>({}) // the same words sent again are the same answer
  useEffect(() => {
    let gone = false
    void fetch(at(token))
      .then(async (r) => (r.ok ? ((await r.json()) as View) : null))
      .catch(() => null)
      .then((v) => !gone && setView(v))
    return () => {
      gone = true
    }
  }, [token])
  if (!view?.title) return null
  const tell = async (key: string, answer: string, words: string) => {
    if (busy) return
    setBusy(true)
    setWhy('')
    const id = (ids.current[`${key} ${answer} ${words}`] ??= uuidv7())
    try {
      const r = await fetch(at(token), {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ id, key, answer, asks: words }),
      })
      const said = (await r.json()) as View & { detail?: string }
      if (r.ok) {
        setView(said)
        if (words) setAsks('')
      } else setWhy(said.detail ?? 'It was not kept. Try again.')
    } catch {
      setWhy('The server cannot be reached: what you wrote is still here. Try again in a moment.')
    } finally {
      setBusy(false)
    }
  }
  const q = view.question
  return (
    <section className={css.checkIn} aria-label="Your last session">
      {q && (
        <div className={css.question}>
          <h2>{q.says}</h2>
          <div className={css.options} role="group" aria-label={q.says}>
            {(q.kind === 'scale' ? Array.from({ length: 11 }, (_, n) => String(n)) : q.options).map((o) => (
              <button key={o} type="button" disabled={busy} onClick={() => void tell(q.key, o, '')}>
                {o}
              </button>
            ))}
          </div>
          {q.kind === 'scale' && <p>0 nothing · 10 the worst</p>}
        </div>
      )}
      {view.changed.length > 0 && (
        <>
          <h2>What changed</h2>
          <ul>
            {view.changed.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </>
      )}
      {view.answered.map((a) => (
        <div key={a.words} className={css.said}>
          <p>{a.words}</p>
          {a.reply && (
            <p>
              <b>{a.by}:</b> {a.reply}
            </p>
          )}
        </div>
      ))}
      <details>
        <summary>
          What you did {view.when} {view.next && <>· next: {view.next}</>}
        </summary>
        <ul>
          {view.done.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
        <form
          onSubmit={(e) => {
            e.preventDefault()
            if (asks.trim()) void tell('', '', asks.trim())
          }}
        >
          <label>
            A question to your coach
            <input value={asks} maxLength={300} onChange={(e) => setAsks(e.target.value)} />
          </label>
          <button type="submit" disabled={busy || !asks.trim()}>
            Ask
          </button>
        </form>
      </details>
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
    </section>
  )
}

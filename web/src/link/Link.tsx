import { lazy, Suspense, useEffect, useState } from 'react'
import type { OpenSheet, Slice } from '../api/client'
import { CheckIn } from './CheckIn'
import { SheetPage } from '../ui/sheet/SheetPage'
import { clsx } from 'clsx'
import sheetCss from '../ui/sheet/sheet.module.css'
import css from './link.module.css'

interface Opened {
  client: string
  may_log: boolean
  sheets: OpenSheet[]
  right: Slice
}

type State = { is: 'waiting' } | { is: 'away' } | { is: 'refused'; words: string } | { is: 'open'; what: Opened }

const againMs = 2000

const Floor = lazy(async () => ({ default: (await import('../floor/Floor')).FloorByLink }))

/** Link is what a client sees of her link: the next sheet first, nothing else of the studio. */
export function Link({ token }: { token: string }) {
  const [state, setState] = useState<State>(ahead)
  const [at, setAt] = useState(0)
  const [floor, setFloor] = useState(() => location.hash.slice(1))
  useEffect(() => {
    const turn = () => setFloor(location.hash.slice(1))
    window.addEventListener('hashchange', turn)
    return () => window.removeEventListener('hashchange', turn)
  }, [])
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>
    let gone = false
    const read = async () => {
      const next = await open(token)
      if (gone) return
      setState((was) => (next.is === 'away' && was.is === 'open' ? was : next)) // what is read stays
      if (next.is === 'away') timer = setTimeout(() => void read(), againMs)
    }
    void read()
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [token])
  // The floor stands by itself: what it needs is on the device, so it does not wait for the sheets.
  if (floor)
    return (
      <Suspense fallback={<div className="waiting" aria-busy="true" />}>
        <Floor token={token} client="" session={floor} near={alone} leave={() => history.back()} />
      </Suspense>
    )
  if (state.is === 'refused')
    return (
      <main className="soon">
        <h1>This link does not open</h1>
        <p role="alert">{state.words}</p>
      </main>
    )
  if (state.is !== 'open')
    return (
      <div className="waiting" aria-busy="true">
        {state.is === 'away' && <p role="status">The server cannot be reached. Trying again …</p>}
      </div>
    )
  const { sheets, client, right } = state.what
  const here = sheets[at]
  return (
    <div className={sheetCss.byLink}>
      <nav aria-label="Sessions">
        {sheets.map((s, i) => (
          <button
            key={s.session}
            type="button"
            className={i === at ? clsx(css.chip, css.on) : css.chip}
            aria-pressed={i === at}
            onClick={() => setAt(i)}
          >
            {s.sheet.session}, {s.when}
          </button>
        ))}
        {here && state.what.may_log && !here.sheet.blocked && (
          <a className={clsx(css.chip, css.on)} href={`#${here.session}`}>
            Start
          </a>
        )}
        {here && !here.sheet.blocked && (
          <a className={css.chip} href={`/api/links/${encodeURIComponent(token)}/${here.session}/sheet.pdf`}>
            On paper
          </a>
        )}
      </nav>
      <CheckIn token={token} />
      {here ? (
        <SheetPage sheet={here.sheet} right={right} alone />
      ) : (
        <main className="soon">
          <h1>{client}</h1>
          <p>No sheet has been sent for these days yet.</p>
        </main>
      )}
    </div>
  )
}

const alone = { account: '', may_plan: false, right: { regions: [] } as never, sessions: [] }

/** ahead is what came in the page itself; it is asked for once more, as anybody may have looked at the address. */
function ahead(): State {
  const came = document.getElementById('opened')?.textContent
  return came ? { is: 'open', what: JSON.parse(came) as Opened } : { is: 'waiting' }
}

/** open reads what a link shows; away is tried again, what the server says of it is told in its words. */
async function open(token: string): Promise<State> {
  try {
    const answer = await fetch(`/api/links/${encodeURIComponent(token)}`)
    if (answer.ok) return { is: 'open', what: (await answer.json()) as Opened }
    if (answer.status >= 502) return { is: 'away' }
    const problem = (await answer.json().catch(() => ({}))) as { detail?: string }
    return { is: 'refused', words: problem.detail ?? 'Something went wrong.' }
  } catch {
    return { is: 'away' }
  }
}

import { Button } from 'antd'
import type { SaveState } from './useDraft'

const clock = (at: string) => new Date(at).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })

interface Steps {
  undo: () => void
  redo: () => void
  canUndo: boolean
  canRedo: boolean
}

/** Steps back and forth through what was changed. */
export function UndoRedo({ undo, redo, canUndo, canRedo }: Steps) {
  return (
    <span>
      <Button size="small" disabled={!canUndo} onClick={undo}>
        Undo
      </Button>{' '}
      <Button size="small" disabled={!canRedo} onClick={redo}>
        Redo
      </Button>
    </span>
  )
}

/** SaveNote says whether what is on screen is saved, and if not, what was kept and what to do. */
export function SaveNote({
  state,
  settle,
  itIsSo,
  mayPlan,
}: {
  state: SaveState
  settle: (which: 'mine' | 'theirs') => void
  itIsSo: () => void
  mayPlan: boolean
}) {
  if (!mayPlan) return <span className="save-note">You may run sessions, not change plans.</span>
  switch (state.is) {
    case 'saved':
      return (
        <span className="save-note" role="status">
          saved {clock(state.at)}
        </span>
      )
    case 'unsaved':
    case 'saving':
      return (
        <span className="save-note" role="status">
          saving …
        </span>
      )
    case 'away':
      return (
        <span className="save-note bad" role="alert">
          Not saved: {state.why} Your edits are kept here and saved as soon as it is back.
        </span>
      )
    case 'refused':
      return (
        <span className="save-note bad" role="alert">
          Not saved: {state.why}. What you typed stays here.
        </span>
      )
    case 'asked':
      return (
        <span className="save-note bad" role="alert">
          Not saved yet: {state.question}
          <span className="save-choose">
            <Button size="small" onClick={itIsSo}>
              Yes, save it so
            </Button>
          </span>
        </span>
      )
    case 'stale':
      return (
        <span className="save-note bad" role="alert">
          {state.theirs.saved_by} saved this session at {clock(state.theirs.saved_at)}, while you were editing:{' '}
          {state.theirs.name}, {state.theirs.slots.map((s) => `${s.title} ${s.dose_words}`).join('; ') || 'no slots'}.
          Nothing is overwritten until you choose.
          <span className="save-choose">
            <Button size="small" onClick={() => settle('theirs')}>
              Take theirs
            </Button>
            <Button size="small" type="primary" onClick={() => settle('mine')}>
              Keep mine
            </Button>
          </span>
        </span>
      )
  }
}

import { clockWords } from './when'
import { Button } from 'antd'
import type { Doc } from '../saving/doc'
import { clsx } from 'clsx'
import css from './saving.module.css'

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

interface Props<T, B> {
  doc: Doc<T, B>
  settle: (which: 'mine' | 'theirs') => void
  itIsSo: () => void
  /** takes back what is asked about */
  undo?: () => void
  /** what somebody else changed: "this session" */
  what?: string
  mayPlan?: boolean
}

/** SaveNote says whether what is on screen is saved, and if not, what was kept and what to do. */
export function SaveNote<T, B>({ doc, settle, itIsSo, undo, what = 'it', mayPlan = true }: Props<T, B>) {
  if (!mayPlan) return <span className={css.saveNote}>You may run sessions, not change plans.</span>
  switch (doc.is) {
    case 'saved':
      return (
        <span className={css.saveNote} role="status">
          {doc.there.at ? `saved ${clockWords(doc.there.at)}` : doc.past.length + doc.future.length > 0 && 'saved'}
        </span>
      )
    case 'dirty':
    case 'saving':
      return (
        <span className={css.saveNote} role="status">
          saving …
        </span>
      )
    case 'away':
      return (
        <span className={clsx(css.saveNote, css.bad)} role="alert">
          Not saved: {doc.why} Your edits are kept here and saved as soon as it is back.
        </span>
      )
    case 'refused':
      return (
        <span className={clsx(css.saveNote, css.bad)} role="alert">
          Not saved: {ended(doc.why)} What you typed stays here.
          {undo && doc.past.length > 0 && (
            <span className={css.saveChoose}>
              <Button size="small" onClick={undo}>
                Undo it
              </Button>
            </span>
          )}
        </span>
      )
    case 'asked':
      return (
        <span className={clsx(css.saveNote, css.bad)} role="alert">
          Not saved yet: {doc.why}
          <span className={css.saveChoose}>
            <Button size="small" onClick={itIsSo}>
              Yes, save it so
            </Button>
            {undo && (
              <Button size="small" onClick={undo}>
                Undo
              </Button>
            )}
          </span>
        </span>
      )
    case 'stale':
      return (
        <span className={clsx(css.saveNote, css.bad)} role="alert">
          {doc.theirs?.by || 'Somebody'} saved {what}
          {doc.theirs?.at && ` at ${clockWords(doc.theirs.at)}`}, while you were editing
          {doc.theirs?.says && `: ${doc.theirs.says}`}. Nothing is overwritten until you choose.
          <span className={css.saveChoose}>
            <Button size="small" onClick={() => settle('theirs')}>
              Use theirs
            </Button>
            <Button size="small" type="primary" onClick={() => settle('mine')}>
              Keep mine
            </Button>
          </span>
        </span>
      )
  }
}

const ended = (words: string) => (/[.!?]$/.test(words) ? words : `${words}.`)

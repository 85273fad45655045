import type { Worn } from '../../api/client'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Card, LibraryEntry } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { decimals } from '../../figures/heads'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import { Small } from '../../figures/Small'
import type { useWearer } from '../../ui/Wearer'
import { Near } from '../../ui/stage/Near'
import { Verdict } from '../../ui/stage/Verdict'
import { clsx } from 'clsx'
import css from './library.module.css'

interface Props {
  entry: LibraryEntry
  /** absent: it is still on its way */
  figure: Card | undefined
  head: string
  to: string
  w: ReturnType<typeof useWearer>
}

const aloneWords = { yes: 'safe to fail alone', no: 'not to be failed alone', pins: 'to be failed only with pins' }

/** EntryCard is one set-up of the Library; opened, it says what it needs, what goes wrong and what comes nearest. */
export function EntryCard({ entry: e, figure, head, to, w }: Props) {
  const { right } = useCatalogue()
  const navigate = useNavigate()
  const [open, setOpen] = useState(false)
  const wear = (movement: string, settings: Worn['settings']) =>
    navigate(
      `/fitting?${new URLSearchParams({ ...(w.client ? { client: w.client } : {}), ...(w.stance ? { stance: w.stance } : {}), movement, settings: JSON.stringify(settings) })}`,
    )
  return (
    <article className={open ? clsx(css.card, css.open) : css.card}>
      <div className={css.face}>
        <Small of={figure} className={css.figure} />
        <div className={css.text}>
          <Link to={to}>{e.name}</Link>
          {e.glyph.ribbon ? (
            <Ribbon geometry={e.glyph.ribbon} width={120} height={14} />
          ) : (
            <span className="graded">
              {e.refused ? `not at its defaults: ${e.refused}` : `several joints, graded ${e.grade}`}
            </span>
          )}
          <span className={css.facts}>
            {head && (
              <b>
                {decimals(e.heads.find((h) => h.id === head)!.bias)}
                {zoneWords(e, head)}
                {' · '}
              </b>
            )}
            {e.arms === 'one' ? 'each arm in turn' : 'both arms'} · {aloneWords[e.safe_alone]}{' '}
            <button
              type="button"
              className="link"
              aria-expanded={open}
              aria-label={`${open ? 'Less' : 'More'} about ${e.name}`}
              onClick={() => setOpen(!open)}
            >
              {open ? 'less' : 'more'}
            </button>
          </span>
          {e.lacks.length > 0 && <span className="warn">lacks {e.lacks.join(' and ')}</span>}
          {e.verdict && e.verdict.ruling !== 'allowed' && (
            <span className={e.verdict.barred ? 'warn' : css.modify}>
              {e.verdict.overridden && !e.verdict.by_caps ? `${e.verdict.ruling}, overridden` : e.verdict.ruling}:{' '}
              {e.verdict.reasons[0]!.words}
            </span>
          )}
          {e.tried?.[0] && (
            <span className={css.facts}>
              tried: comfort {e.tried[0].comfort}, {e.tried[0].outcome}
            </span>
          )}
        </div>
        <Slice geometry={right} view={e.glyph.slice} size={54} />
      </div>
      {open && (
        <div className={css.more}>
          <div>
            <p>
              <b>Needs</b> {e.needs.length > 0 ? e.needs.join(', ') : 'nothing but the floor'}
              {e.partner && `; a partner: ${e.partner}`}.
            </p>
            <p>
              <b>Hand</b> {holdWords[e.hold] ?? e.hold}, wrist {wristWords[e.wrist] ?? e.wrist}. <b>Upper arm</b>{' '}
              {e.upper_arm}
              {e.anchor && `, held by the ${e.anchor}`}.
            </p>
            <p>
              <b>Hard on</b>{' '}
              {e.joints
                .filter((j) => j.score > 0)
                .map((j) => `${j.name} ${j.score}`)
                .join(', ') || 'no joint'}{' '}
              (of 3). <b>The set ends at</b> {e.stop}.
            </p>
            <p>
              <b>Seen to go wrong</b> {e.faults.join('; ')}.
            </p>
          </div>
          {w.client && e.verdict && e.verdict.ruling !== 'allowed' && (
            <Verdict verdict={e.verdict} movement={e.id} client={w.client} wear={(s) => wear(e.id, s)} />
          )}
          {!e.refused && (
            <Near worn={{ movement: e.id, settings: e.settings, client: w.client, stance: w.stance }} wear={wear} />
          )}
        </div>
      )}
    </article>
  )
}

const holdWords: Record<string, string> = {
  middle: 'in the middle of the handle',
  against_plate: 'against the plate',
  thumb_over: 'thumb over the bar',
  cupped: 'cupped',
  both_hands: 'both hands on one weight',
}
const wristWords: Record<string, string> = {
  level: 'in line with the forearm',
  cupped: 'slightly cupped',
  tilted_up: 'tilted up',
}

function zoneWords(e: LibraryEntry, head: string): string {
  const zone = e.heads.find((h) => h.id === head)?.zone
  return zone ? ` at ${zone} length` : ''
}

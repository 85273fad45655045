import { useState } from 'react'
import { Link } from 'react-router'
import type { AddendView, LedgerView, LedgerHead } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { tenths } from '../../figures/heads'
import { Slice } from '../../figures/Slice'
import { TargetBar } from '../../figures/TargetBar'
import { clsx } from 'clsx'
import { Once } from '../../ui/Once'
import css from './ledger.module.css'

/** Ledger is what a week gives each head against its target, by length, and what it costs. */
export function Ledger({
  ledger,
  stance,
  ask,
  show,
}: {
  ledger: LedgerView
  stance: string
  ask: (head: string) => void
  show: Show
}) {
  const { right } = useCatalogue()
  const [open, setOpen] = useState('')
  const most = Math.max(14, ...ledger.heads.map((h) => Math.max(h.total, h.target_high)))
  const [shown, setShown] = useState<'' | Shown>('')
  const toggle = (what: Shown) => setShown(shown === what ? '' : what)
  const worst = [...ledger.joints].sort((a, b) => b.load / b.most - a.load / a.most)
  return (
    <section className="ledger" aria-label="Ledger">
      <div className={css.top}>
        <Slice geometry={right} view={ledger.slice} size={104} places={1} unit="effective sets a week" ask={ask} />
        <div>
          <p>
            Hard sets{' '}
            <b className={ledger.over_groups.includes('flexors') ? 'warn' : undefined}>{ledger.hard_sets_flexors}</b>{' '}
            bending,{' '}
            <b className={ledger.over_groups.includes('extensors') ? 'warn' : undefined}>
              {ledger.hard_sets_extensors}
            </b>{' '}
            straightening, of {ledger.most_group_sets}{' '}
            <button
              type="button"
              className={css.whyLink}
              aria-expanded={shown === 'hard'}
              onClick={() => toggle('hard')}
            >
              by slot
            </button>
          </p>
          {shown === 'hard' && <p className={css.said}>{ledger.hard_why}</p>}
          <p>
            To the limit <b>{ledger.failure_sets}</b> · <b>{Math.round(ledger.minutes)}</b> min,{' '}
            {Math.round(ledger.warm_up)} of it warm-up{' '}
            <button
              type="button"
              className={css.whyLink}
              aria-expanded={shown === 'time'}
              onClick={() => toggle('time')}
            >
              why?
            </button>
          </p>
          {shown === 'time' && <p className={css.said}>{ledger.spent || 'Nothing is planned.'}</p>}
          <p>
            {worst[0]!.name} <b className={worst[0]!.over ? 'warn' : undefined}>{worst[0]!.load}</b> of {worst[0]!.most}
            , the joint nearest its budget{' '}
            <button
              type="button"
              className={css.whyLink}
              aria-expanded={shown === 'joints'}
              onClick={() => toggle('joints')}
            >
              joints by slot
            </button>
          </p>
        </div>
      </div>
      {shown === 'joints' &&
        ledger.joints.map((j) => (
          <div key={j.name}>
            <p className={css.joint}>
              {j.name} <b className={j.over ? 'warn' : undefined}>{j.load}</b> of {j.most}
            </p>
            <Terms terms={j.terms} digits={0} show={show} />
          </div>
        ))}
      <div className="ledger-heads">
        {ledger.heads.map((h) => (
          <Line
            key={h.id}
            head={h}
            most={most}
            open={open === h.id}
            toggle={() => setOpen(open === h.id ? '' : h.id)}
            show={show}
          />
        ))}
      </div>
      <Once of="week-whisker">
        The fine line now reads the whole week under each stance, one at a time: before, it took each slot’s own worst
        and best and was wider.
      </Once>
      <p className="caveat">
        Effective sets by the stance {stance}; the fine line is every stance; pale is done elsewhere; the frame is the
        target. {ledger.heads[0]?.done && 'The dark foot is done so far, what is hatched will not be. '}Squares: short,
        middle, long. Click a line for what it adds up from.
      </p>
    </section>
  )
}

type Shown = 'hard' | 'time' | 'joints'
type Show = (session: string, slot: string) => void

interface LineProps {
  head: LedgerHead
  most: number
  open: boolean
  toggle: () => void
  show: Show
}

function Line({ head, most, open, toggle, show }: LineProps) {
  return (
    <>
      <button
        type="button"
        className={head.short ? clsx(css.line, css.short) : css.line}
        aria-expanded={open}
        onClick={toggle}
      >
        <span className={css.code}>{head.code}</span> <TargetBar {...head} most={most} />
        <b>{head.total.toFixed(1)}</b>{' '}
        <span className={css.of}>
          {tenths(head.target_low)}–{tenths(head.target_high)}
        </span>
        <span className={css.lengths}>
          {head.lengths.map((l) => (
            <i key={l.name} className={l.covered ? css.on : undefined} title={`${l.name}: ${l.sets.toFixed(1)}`} />
          ))}
        </span>
        <span className="only-read">
          {' '}
          effective sets: {head.name}, {head.level}; {head.elsewhere.toFixed(1)} of them elsewhere;{' '}
          {head.low.toFixed(1)} to {head.high.toFixed(1)} over all stances;{' '}
          {head.lengths.map((l) => `${l.name} ${l.sets.toFixed(1)}`).join(', ')}
        </span>
      </button>
      {open && (
        <>
          <Terms terms={head.terms} digits={1} show={show} />
          <p className={css.said}>
            {head.terms.length === 0 && 'Nothing in this week trains it. '}
            {head.sum && `${head.sum}. `}
            {head.done && `Done so far ${head.done.done.toFixed(1)}`}
            {head.done && (head.done.undone > 0 ? `, not done ${head.done.undone.toFixed(1)}. ` : '. ')}
            Target: {head.band}.
          </p>
        </>
      )}
    </>
  )
}

/** Terms are what a number of the ledger adds up from, each leading to its slot, its rules to their cards. */
function Terms({ terms, digits, show }: { terms: AddendView[]; digits: number; show: Show }) {
  return (
    <ul className={css.terms}>
      {terms.map((t, i) => (
        <li key={i}>
          {t.session && t.slot ? (
            <button type="button" className="link" onClick={() => show(t.session, t.slot)}>
              {t.words}
            </button>
          ) : (
            <span>{t.words}</span>
          )}
          <b>{t.value.toFixed(digits)}</b>
          {t.rules.map((r) => (
            <Link key={r.rule} to={`/stances?rule=${r.rule}`} className={css.rule}>
              {r.words}
            </Link>
          ))}
        </li>
      ))}
    </ul>
  )
}

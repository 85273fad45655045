import { DayField } from '../../ui/DayField'
import { queries } from '../../api/queries'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, Problem, type FieldFault, type KindView, type MeasuresView } from '../../api/client'
import { keep as keepIn, readKept } from '../../app/kept'
import { keptLength, keptMass, lengthUnit, massUnit, readGirth, type Units } from '../../ui/units'
import { clsx } from 'clsx'
import css from './measures.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  client: string
  kinds: KindView[]
  units: Units
  today: string
  keep: (v: MeasuresView) => void
}

type Texts = Record<string, string>

interface Started {
  id: string
  version?: number
  texts: Texts
}

const rounds = 3
const storeKey = (client: string) => `measuring ${client}`

/** sitesOf are the sites in the order of a round: what is relaxed first, left then right. */
function sitesOf(kinds: KindView[]) {
  return kinds.flatMap((k) => [
    { site: k.left.site, name: k.name, side: 'left' },
    { site: k.right.site, name: k.name, side: 'right' },
  ])
}

/**
 * MeasureForm takes a measuring session with digits, Enter and Tab alone: 346 is
 * 34.6; Enter goes down the round, then to the second; after the last one to Keep.
 */
export function MeasureForm({ client, kinds, units, today, keep }: Props) {
  const sites = sitesOf(kinds)
  const [start] = useState<Started>(
    () => readKept<Started>(sessionStorage, storeKey(client)) ?? { id: uuidv7(), texts: {} },
  )
  // Once a round is kept, what is added to it is written over that version.
  const [{ id, version }, setKept] = useState<{ id: string; version?: number }>(start)
  const [texts, setTexts] = useState<Texts>(start.texts)
  const [faults, setFaults] = useState<FieldFault[]>([])
  const [why, setWhy] = useState('')
  const [third, setThird] = useState<string[]>([])
  const form = useRef<HTMLFormElement>(null)
  const cache = useQueryClient()
  useEffect(() => {
    if (third.length > 0) form.current?.querySelector<HTMLInputElement>('input[data-third]')?.focus()
  }, [third])
  const at = (site: string, round: number) => `${site}[${round}]`
  const put = (key: string, text: string) => {
    const next = { ...texts, [key]: text }
    setTexts(next)
    keepIn(sessionStorage, storeKey(client), { id, version, texts: next })
  }
  const pressed = useRef<EventTarget | null>(null)
  /** Enter goes on when it is let go, so that nothing of the key press reaches the next field. */
  const press = (e: KeyboardEvent<HTMLElement>) => {
    if (e.key !== 'Enter') return
    e.preventDefault()
    pressed.current = e.target
  }
  const next = (e: KeyboardEvent<HTMLElement>) => {
    const here = pressed.current === e.target
    pressed.current = null
    if (e.key !== 'Enter' || !here) return
    const all = [...form.current!.querySelectorAll<HTMLElement>('input[data-girth], button[data-keep]')]
    all[all.indexOf(e.target as HTMLElement) + 1]?.focus()
  }
  const nameOf = (site: string) => {
    const s = sites.find((x) => x.site === site)
    return s ? `${s.name}, ${s.side}` : site
  }
  const refused = async (p: Problem) => {
    if (p.status === 409) {
      // It is there already, an answer lost or somebody else's hand in between: kept again it takes that one's place.
      const there = await cache.fetchQuery({ ...queries.measures(client), staleTime: 0 }).catch(() => null)
      const was = [...(there?.sessions ?? []), ...(there?.gone ?? [])].find((s) => s.id === id)
      setKept(was ? { id, version: was.version } : { id: uuidv7() })
      return setWhy(
        was
          ? `Not saved: ${was.by} kept this session meanwhile, it stands below. Save it again to put yours in its place; the other stays in its history.`
          : `Not saved: ${p.message}. Save it again as a session of its own.`,
      )
    }
    setFaults(p.faults.map((f) => ({ ...f, field: f.field.replace(/^girths\./, '') })))
    setWhy(
      p.away
        ? `Not saved: ${p.message} What you typed stays here; save it again when it is back.`
        : 'Not kept. What is wrong stands beside it; what you typed stays here.',
    )
  }
  const { run: write, busy } = useWrite(
    async (girths: Record<string, number[]>, folds: number[], mass: number | null) => {
      const view = await got(
        api.PUT('/clients/{client}/measures/{measuring}', {
          params: { path: { client, measuring: id } },
          body: {
            version,
            on: texts.on || today,
            girths,
            note: texts.note ?? '',
            ...(folds.length > 0 ? { skinfold_mm: folds } : {}),
            ...(mass !== null ? { mass_kg: keptMass(mass, units) } : {}),
          },
        }),
      )
      const kept = view.sessions.find((s) => s.id === id)
      keep(view)
      const more = Object.entries(kept?.girths ?? {}).filter(
        ([site, r]) => r.length < rounds && kept!.another.includes(nameOf(site)),
      )
      setThird(more.map(([site]) => site))
      if (more.length > 0) {
        setWhy('Kept. Readings over 0.5 cm apart: measure those once more.')
        setKept({ id, version: kept!.version })
        keepIn(sessionStorage, storeKey(client), { id, version: kept!.version, texts })
      } else {
        keepIn(sessionStorage, storeKey(client), null)
        setTexts({})
        setKept({ id: uuidv7() })
        setWhy('')
      }
    },
    (p) => void refused(p),
  )
  const send = () => {
    const girths: Record<string, number[]> = {}
    const wrong: FieldFault[] = []
    const one = (key: string, read: (t: string) => number, unit: string): number | null => {
      const text = texts[key]?.trim()
      if (!text) return null
      const x = read(text)
      if (Number.isNaN(x)) {
        wrong.push({ field: key, reason: `“${text}” is no number of ${unit}` })
        return null
      }
      return x
    }
    for (const { site } of sites) {
      const list: number[] = []
      for (let round = 0; round < rounds; round++) {
        const x = one(at(site, round), (t) => readGirth(t, units), lengthUnit(units))
        if (x !== null) list.push(keptLength(x, units))
      }
      if (list.length > 0) girths[site] = list
    }
    const plain = (t: string) => Number(t.replace(',', '.'))
    const folds = [one('skinfold_mm[0]', plain, 'mm'), one('skinfold_mm[1]', plain, 'mm')].filter((x) => x !== null)
    const mass = one('mass_kg', plain, massUnit(units))
    setFaults(wrong)
    if (wrong.length > 0) return setWhy('Nothing was kept yet; what you typed is here.')
    setWhy('')
    void write(girths, folds, mass)
  }
  const faultsOf = (...keys: string[]) =>
    faults
      .filter((f) => keys.includes(f.field))
      .map((f) => (
        <span key={f.field + f.reason} className="fault">
          {f.reason}
        </span>
      ))
  const cell = (site: string, round: number) => (
    <Input
      data-girth
      data-third={round === 2 || undefined}
      inputMode="decimal"
      aria-label={`${nameOf(site)}, reading ${round + 1}`}
      value={texts[at(site, round)] ?? ''}
      status={faults.some((f) => f.field === at(site, round)) ? 'error' : undefined}
      placeholder={round === 0 && site === sites[0]!.site ? (units === 'imperial' ? '136' : '346') : ''}
      onChange={(e) => put(at(site, round), e.target.value)}
      onKeyDown={press}
      onKeyPress={(e) => e.key === 'Enter' && e.preventDefault()}
      onKeyUp={next}
    />
  )
  return (
    <form
      ref={form}
      className={css.measuring}
      aria-label="A measuring session"
      onSubmit={(e) => {
        e.preventDefault()
        send()
      }}
    >
      <div className={clsx(css.measuringRound, 'names')}>
        <span className="field-label">
          {lengthUnit(units)}; {units === 'imperial' ? '136 is 13.6' : '346 is 34.6'}
        </span>
        {sites.map((s) => (
          <span key={s.site} className={s.side === 'left' ? clsx(css.measuringName, css.first) : css.measuringName}>
            {s.side === 'left' ? s.name : ''} <b>{s.side}</b>
          </span>
        ))}
      </div>
      {Array.from({ length: third.length > 0 ? 3 : 2 }, (_, round) => (
        <div className={css.measuringRound} key={round}>
          <span className="field-label">{['1st round', '2nd round', '3rd'][round]}</span>
          {sites.map((s) =>
            round < 2 || third.includes(s.site) ? (
              <span key={s.site}>{cell(s.site, round)}</span>
            ) : (
              <span key={s.site} />
            ),
          )}
        </div>
      ))}
      <div className={clsx(css.measuringRound, css.says)}>
        <span className="field-label">&nbsp;</span>
        {sites.map((s) => (
          <span key={s.site}>{faultsOf(...[0, 1, 2].map((r) => at(s.site, r)), s.site)}</span>
        ))}
      </div>
      <div className={css.measuringMore}>
        <label>
          on{' '}
          <DayField
            label="Measured on"
            needed
            max={today}
            value={texts.on || today}
            set={(day) => put('on', day ?? today)}
          />{' '}
          {faultsOf('on')}
        </label>
        <label>
          skinfold, mm{' '}
          <Input
            aria-label="Skinfold, reading 1"
            inputMode="decimal"
            value={texts['skinfold_mm[0]'] ?? ''}
            onChange={(e) => put('skinfold_mm[0]', e.target.value)}
          />{' '}
          <Input
            aria-label="Skinfold, reading 2"
            inputMode="decimal"
            value={texts['skinfold_mm[1]'] ?? ''}
            onChange={(e) => put('skinfold_mm[1]', e.target.value)}
          />{' '}
          {faultsOf('skinfold_mm[0]', 'skinfold_mm[1]', 'skinfold_mm')}
        </label>
        <label>
          body mass, {massUnit(units)}{' '}
          <Input
            aria-label="Body mass"
            inputMode="decimal"
            value={texts.mass_kg ?? ''}
            onChange={(e) => put('mass_kg', e.target.value)}
          />{' '}
          {faultsOf('mass_kg')}
        </label>
        <label className={css.wide}>
          what differed{' '}
          <Input
            aria-label="What differed"
            value={texts.note ?? ''}
            placeholder="after training, another hand on the tape …"
            onChange={(e) => put('note', e.target.value)}
          />
        </label>
        <Button data-keep type="primary" htmlType="submit" loading={busy}>
          Save the session
        </Button>
        {why && (
          <span
            className={faults.length > 0 || why.startsWith('Not') || why.startsWith('Nothing') ? 'fault' : 'caveat'}
            role="status"
          >
            {why}
          </span>
        )}
        {faultsOf('girths')}
      </div>
    </form>
  )
}

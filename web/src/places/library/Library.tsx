import { queries } from '../../api/queries'
import { useQuery } from '@tanstack/react-query'
import { Button, Input, Segmented, Select, Switch } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { type LibraryEntry } from '../../api/client'
import { useKeys } from '../../app/keys'
import { useFigures } from '../../figures/Small'
import { Waiting } from '../../ui/Waiting'
import { ClientThread } from '../../ui/thread/Client'
import { useWearer, Wearer } from '../../ui/Wearer'
import { EntryCard } from './EntryCard'
import { fits, kindOfNeed, noFilter, said, sorted, type Filter } from './filter'
import { Understood } from '../../ui/Understood'
import { rankOf, useFound } from '../../ui/useFound'
import { SetUpMap } from './SetUpMap'
import { clsx } from 'clsx'
import css from './library.module.css'

const joints = ['wrist', 'elbow front', 'elbow back', 'shoulder front', 'shoulder top']

/** Library is the catalogue: filter, sort for a head, or see it as a map. */
export function Library() {
  const w = useWearer()
  const navigate = useNavigate()
  const [filter, setFilter] = useState<Filter>({ ...noFilter, head: w.params.get('head') ?? '' })
  const [typed, setTyped] = useState('')
  const [unfolded, setUnfolded] = useState(false)
  const heard = useFound(typed)
  const [as, setAs] = useState<'cards' | 'map'>('cards')
  const library = useQuery(queries.library(w.client, w.stance))
  const figure = useFigures(
    (library.data?.entries ?? []).map(({ id, settings }) => ({ movement: id, settings })),
    w.client,
    w.stance,
  )
  useKeys({
    '/': {
      does: 'find a movement',
      run: () => document.querySelector<HTMLInputElement>('[data-find] input, input[data-find]')?.focus(),
    },
  })
  if (!library.data) return <Waiting query={library} />
  const heads = library.data.entries[0]!.glyph.slice.heads
  const put = (part: Partial<Filter>) => setFilter({ ...filter, ...part })
  const needs = [...new Set(library.data.entries.flatMap((e) => e.needs.map(kindOfNeed)))].sort()
  // A head that the words name is a wish: what trains it comes first, as if it had been chosen.
  const head = filter.head || (heard && heard.found.length === 0 ? (heard.heads[0] ?? '') : '')
  const meant = heard && (heard.found.length > 0 || !head) ? heard : null
  const found = sorted(
    library.data.entries
      .filter((e) => fits(e, { ...filter, head }) && (!meant || said(e, meant, typed)))
      .sort((a, b) => (meant ? last(rankOf(meant, a.id)) - last(rankOf(meant, b.id)) : 0)),
    head,
  )
  const turned = (e: LibraryEntry) =>
    e.key === e.id ? (meant?.found.find((f) => f.movement === e.id)?.settings ?? e.settings) : e.settings
  const to = (e: LibraryEntry) =>
    `/fitting?${new URLSearchParams({ ...(w.client ? { client: w.client } : {}), ...(w.stance ? { stance: w.stance } : {}), movement: e.id, settings: JSON.stringify(turned(e)) })}`
  return (
    <>
      {w.client && <ClientThread client={w.client} />}
      <div className={css.library}>
        <main className={css.main}>
          {!w.client && <h1 className="only-read">Library</h1>}
          <div className={css.top}>
            <Input
              className={css.find}
              data-find
              aria-label="Find a movement"
              placeholder="Find in your own words: seated hammer curl, rope push-down, outer triceps …"
              allowClear
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            <Segmented
              aria-label="Show as"
              value={as}
              onChange={(v) => setAs(v as 'cards' | 'map')}
              options={[
                { value: 'cards', label: 'Cards' },
                { value: 'map', label: 'Map' },
              ]}
            />
            <span className={css.count} role="status">
              {found.length} of {library.data.entries.length}, stance {library.data.stance}
            </span>
            <Button onClick={() => navigate('/library/ours')}>Ours</Button>
          </div>
          {heard && <Understood found={heard} />}
          {as === 'map' ? (
            <SetUpMap
              entries={found}
              head={head || 'biceps_long'}
              name={heads.find((h) => h.id === (head || 'biceps_long'))!.name}
              to={to}
            />
          ) : (
            <div className={css.cards}>
              {found.map((e) => (
                <EntryCard key={e.key} entry={e} figure={figure(e.id, e.settings)} head={head} to={to(e)} w={w} />
              ))}
              {found.length === 0 && <p className="hint">Nothing fits all of this. Take a filter away.</p>}
            </div>
          )}
        </main>
        <aside className={clsx('margin', css.filters)} aria-label="Filters">
          <Wearer w={w} />
          <button
            type="button"
            className={clsx('link', css.fold)}
            aria-expanded={unfolded}
            onClick={() => setUnfolded(!unfolded)}
          >
            {unfolded ? 'Fewer filters' : 'Filter by head, length, room …'}
          </button>
          <div className={clsx(css.folds, unfolded && css.unfolded)}>
            <h2>For a head</h2>
            <Select
              aria-label="Head"
              value={filter.head}
              onChange={(head) => put({ head })}
              options={[{ value: '', label: 'any head' }, ...heads.map((h) => ({ value: h.id, label: h.name }))]}
            />
            <label>
              <span className="field-label">bias at least</span>
              <Select
                aria-label="Bias at least"
                value={filter.least}
                disabled={!filter.head}
                onChange={(least) => put({ least })}
                options={[0, 0.5, 0.8, 1, 1.1, 1.2].map((v) => ({
                  value: v,
                  label: v === 0 ? 'anything' : v.toFixed(1),
                }))}
              />
            </label>
            <label>
              <span className="field-label">its length</span>
              <Select
                aria-label="Length"
                value={filter.zone}
                disabled={!filter.head}
                onChange={(zone) => put({ zone })}
                options={any(['long', 'middle', 'short'])}
              />
            </label>
            <h2>The movement</h2>
            <label>
              <span className="field-label">hardest third</span>
              <Select
                aria-label="Hardest third"
                value={filter.hardest}
                onChange={(hardest) => put({ hardest })}
                options={any(['long', 'middle', 'short'], { long: 'stretched', short: 'shortened' })}
              />
            </label>
            <label>
              <span className="field-label">hand</span>
              <Select
                aria-label="Hand"
                value={filter.hand}
                onChange={(hand) => put({ hand })}
                options={any(['up', 'thumb', 'down', 'turning'], {
                  up: 'palms up',
                  thumb: 'thumbs up',
                  down: 'palms down',
                })}
              />
            </label>
            <label>
              <span className="field-label">arms</span>
              <Select
                aria-label="Arms"
                value={filter.arms}
                onChange={(arms) => put({ arms })}
                options={any(['one', 'two'], { one: 'each in turn', two: 'both together' })}
              />
            </label>
            <label>
              <span className="field-label">load</span>
              <Select
                aria-label="Load"
                value={filter.load}
                onChange={(load) => put({ load })}
                options={any(['free', 'cable', 'body', 'machine'], { free: 'free weight', body: 'body weight' })}
              />
            </label>
            <label>
              <span className="field-label">easy on</span>
              <Select
                aria-label="Easy on a joint"
                value={filter.joint}
                onChange={(joint) => put({ joint })}
                options={any(joints)}
              />
            </label>
            <label>
              <span className="field-label">needs only</span>
              <Select
                mode="multiple"
                aria-label="Needs only"
                placeholder="anything"
                value={filter.has}
                onChange={(has) => put({ has })}
                options={needs.map((n) => ({ value: n, label: n }))}
              />
            </label>
            <label className="near-room">
              <Switch
                size="small"
                aria-label="Safe to fail alone"
                checked={filter.alone}
                onChange={(alone) => put({ alone })}
              />{' '}
              safe to fail alone
            </label>
            {w.client && (
              <label className="near-room">
                <Switch
                  size="small"
                  aria-label="Only what the room has"
                  checked={filter.room}
                  onChange={(room) => put({ room })}
                />{' '}
                only what the room has
              </label>
            )}
            {w.client && (
              <label className="near-room">
                <Switch
                  size="small"
                  aria-label="Leave out what is to be avoided"
                  checked={filter.avoided}
                  onChange={(avoided) => put({ avoided })}
                />{' '}
                leave out what is to be avoided ({library.data.entries.filter((e) => e.verdict?.barred).length})
              </label>
            )}
            {w.client && (
              <p className="caveat">
                What to modify or avoid is no diagnosis: local rules and licensed practice come first.
              </p>
            )}
            <button
              type="button"
              className="link"
              onClick={() => {
                setFilter(noFilter)
                setTyped('')
              }}
            >
              Clear all filters
            </button>
          </div>
        </aside>
      </div>
    </>
  )
}

/** last puts what was not found by itself after what was. */
const last = (rank: number) => (rank < 0 ? Number.MAX_SAFE_INTEGER : rank)

function any(values: string[], words: Record<string, string> = {}) {
  return [{ value: '', label: 'any' }, ...values.map((v) => ({ value: v, label: words[v] ?? v }))]
}

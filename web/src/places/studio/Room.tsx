import { Checkbox } from 'antd'
import { Fragment, useMemo, type ReactNode } from 'react'
import { useDoc, useSaving } from '../../saving/useDoc'
import { SaveNote } from '../../ui/SaveNote'
import { type RoomForm, type RoomView } from '../../api/client'
import { Blank, number, trimmed } from '../../ui/Blank'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './studio.module.css'

interface Props {
  room: RoomView
  stations: Record<string, string>
  locked: boolean
}

const attachments: Record<string, string> = {
  bar_straight: 'straight bar',
  bar_cambered: 'cambered bar',
  bar_v: 'V-shaped bar',
  bar_parallel: 'parallel handles',
  rope: 'rope',
  handle: 'handles',
}
const bars: [RoomForm['bars'][number]['kind'], string, number][] = [
  ['bar_straight', 'straight', 10],
  ['bar_cambered', 'cambered', 8],
  ['bar_parallel', 'parallel-grip', 10],
  ['bar_rail', 'guided-rail', 10],
]
/** what has loads of its own besides; bands help with a low and a high figure */
const loaded = ['machine', 'dip_machine', 'lever']
type Unit = '' | 'kg' | 'lb'

/** Room is what is really in a room, written as sentences; steps are typed as "2–20 by 2, 25, 30". */
export function Room({ room, stations, locked }: Props) {
  const { kinds } = useSaving()
  const there = useMemo(() => ({ value: room.form, base: room.mark, says: room.form.name }), [room])
  const { doc, edit, undo, settle, itIsSo } = useDoc(kinds.room, [room.id], there)
  const form = doc.value
  const save = (part: Partial<RoomForm>) => edit('', (f) => ({ ...f, ...part }))
  const faults = doc.faults.map((f) => ({ ...f, field: f.field.replace(/^form\./, '') }))
  const said = (field: string) =>
    faults
      .filter((f) => f.field === field)
      .map((f) => (
        <span key={f.reason} className="fault">
          {f.reason}
        </span>
      ))
  const steps = (
    label: string,
    shown: string,
    put: (text: string) => Partial<RoomForm>,
    field: string,
    placeholder = 'none',
    unit: ReactNode = 'kg',
  ) => (
    <>
      <Blank
        label={label}
        shown={shown}
        read={trimmed}
        save={(v) => save(put(v as string))}
        disabled={locked}
        placeholder={placeholder}
      />{' '}
      {unit}
      {said(field)}
    </>
  )
  const num = (label: string, value: number, put: (x: number) => Partial<RoomForm>, field: string) => (
    <>
      <Blank
        label={label}
        shown={String(value)}
        numeric
        read={number()}
        save={(v) => save(put(v as number))}
        disabled={locked}
      />
      {said(field)}
    </>
  )
  const has = (label: string, on: boolean, put: (on: boolean) => Partial<RoomForm>) => (
    <Checkbox checked={on} disabled={locked} onChange={(e) => save(put(e.target.checked))}>
      {label}
    </Checkbox>
  )
  const inUnit = (label: string, is: string | undefined, put: (unit: Unit) => Partial<RoomForm>) => (
    <select
      aria-label={`Unit of ${label}`}
      className={css.unit}
      value={is === 'lb' ? 'lb' : 'kg'}
      disabled={locked}
      onChange={(e) => save(put(e.target.value === 'lb' ? 'lb' : ''))}
    >
      <option value="kg">kg</option>
      <option value="lb">lb</option>
    </select>
  )
  const bar = (kind: RoomForm['bars'][number]['kind'], name: string, own: number) => {
    const i = form.bars.findIndex((b) => b.kind === kind)
    const at = form.bars[i]
    const put = (part: Partial<RoomForm['bars'][number]>) => ({
      bars: form.bars.map((b, k) => (k === i ? { ...b, ...part } : b)),
    })
    return (
      <p className={leavesCss.prose}>
        {has(`a ${name} bar`, i >= 0, (on) => ({
          bars: on ? [...form.bars, { kind, own, loads: '' }] : form.bars.filter((b) => b.kind !== kind),
        }))}
        {at && (
          <>
            of {num(`Own mass of the ${name} bar`, at.own, (own) => put({ own }), `bars[${i}].own`)}{' '}
            {at.unit === 'lb' ? 'lb' : 'kg'}, loaded to{' '}
            {steps(
              `Loads of the ${name} bar`,
              at.loads,
              (loads) => put({ loads }),
              `bars[${i}].loads`,
              'like 10–80 by 2.5',
              inUnit(`the ${name} bar`, at.unit, (unit) => put({ unit })),
            )}{' '}
            with itself; smooth for{' '}
            {num(
              `Smooth middle of the ${name} bar`,
              at.width_cm ?? 0,
              (width_cm) => put({ width_cm }),
              `bars[${i}].width_cm`,
            )}{' '}
            cm
          </>
        )}
      </p>
    )
  }
  const cable = form.cable
  const bench = form.bench
  return (
    <section className={clsx(leavesCss.leaf, css.room)} aria-label={`The room ${form.name}`}>
      <p className={clsx(leavesCss.prose, css.roomName)}>
        <Blank
          label="Name of the room"
          shown={form.name}
          read={trimmed}
          save={(v) => save({ name: v as string })}
          disabled={locked}
        />
        {said('name')}
      </p>
      {!locked && (
        <p className="room-saving">
          <SaveNote doc={doc} settle={settle} itIsSo={itIsSo} undo={undo} what="this room" />
        </p>
      )}
      <h2>Free weights</h2>
      <p className={leavesCss.prose}>
        Pairs of dumbbells{' '}
        {steps(
          'Pairs of dumbbells',
          form.pairs,
          (pairs) => ({ pairs }),
          'pairs',
          'like 2–20 by 2, 25, 30',
          inUnit('the pairs', form.pairs_in, (pairs_in) => ({ pairs_in })),
        )}
        ; single ones{' '}
        {steps(
          'Single dumbbells',
          form.singles,
          (singles) => ({ singles }),
          'singles',
          'none',
          inUnit('the single ones', form.singles_in, (singles_in) => ({ singles_in })),
        )}
        {said('dumbbells')}
      </p>
      {bars.map(([kind, name, own]) => (
        <Fragment key={kind}>{bar(kind, name, own)}</Fragment>
      ))}
      <h2>Bench, pads, rack</h2>
      <p className={leavesCss.prose}>
        {has('a bench', !!bench, (on) => ({ bench: on ? { min_deg: 0, max_deg: 85, notches: '' } : undefined }))}
        {bench && (
          <>
            from{' '}
            {num(
              'Lowest angle of the bench',
              bench.min_deg,
              (min_deg) => ({ bench: { ...bench, min_deg } }),
              'bench.min_deg',
            )}
            ° to{' '}
            {num(
              'Highest angle of the bench',
              bench.max_deg,
              (max_deg) => ({ bench: { ...bench, max_deg } }),
              'bench.max_deg',
            )}
            °, notches{' '}
            {steps(
              'Notches of the bench',
              bench.notches,
              (notches) => ({ bench: { ...bench, notches } }),
              'bench.notches',
              'any angle',
              '°',
            )}
            , there are {num('Benches', bench.count ?? 1, (count) => ({ bench: { ...bench, count } }), 'bench.count')}{' '}
            of it
          </>
        )}
      </p>
      <p className={leavesCss.prose}>
        {has('curl pads', form.pads, (pads) => ({ pads }))}
        {form.pads && (
          <>with slopes {steps('Slopes of the pads', form.slopes, (slopes) => ({ slopes }), 'slopes', 'any', '°')}</>
        )}{' '}
        {bench &&
          has('the bench at a pad’s slope serves as one', !!form.bench_as_pad, (bench_as_pad) => ({ bench_as_pad }))}
      </p>
      <p className={leavesCss.prose}>
        {has('a rack with pins', form.pins, (pins) => ({ pins }))} {has('rails', form.rails, (rails) => ({ rails }))}{' '}
        {has('somebody to spot', form.partner, (partner) => ({ partner }))}
      </p>
      <p className={leavesCss.prose}>
        {has('dip bars', form.dip_bars, (dip_bars) => ({ dip_bars }))}
        {form.dip_bars && (
          <>
            with{' '}
            {steps(
              'Loads on the dip',
              form.dip_loads,
              (dip_loads) => ({ dip_loads }),
              'dip_loads',
              'none',
              inUnit('the belt', form.dip_loads_in, (dip_loads_in) => ({ dip_loads_in })),
            )}{' '}
            to add
          </>
        )}
      </p>
      <h2>Cable</h2>
      <p className={leavesCss.prose}>
        {has('cable columns', !!cable, (on) => ({
          cable: on
            ? {
                columns: 2,
                stack: '5–75 by 5',
                ratio: 2,
                attachments: ['bar_straight', 'rope', 'handle'],
                low_m: 0.1,
                high_m: 2.2,
              }
            : undefined,
        }))}
        {cable && (
          <>
            {num('Cable columns', cable.columns, (columns) => ({ cable: { ...cable, columns } }), 'cable.columns')} of
            them, stack{' '}
            {steps(
              'Steps of the stack',
              cable.stack,
              (stack) => ({ cable: { ...cable, stack } }),
              'cable.stack',
              'none',
              inUnit('the stack', cable.unit, (unit) => ({ cable: { ...cable, unit } })),
            )}{' '}
            at {num('Ratio of the pulley', cable.ratio, (ratio) => ({ cable: { ...cable, ratio } }), 'cable.ratio')} :
            1, pulley from{' '}
            {num('Lowest pulley', cable.low_m, (low_m) => ({ cable: { ...cable, low_m } }), 'cable.low_m')} to{' '}
            {num('Highest pulley', cable.high_m, (high_m) => ({ cable: { ...cable, high_m } }), 'cable.high_m')} m
          </>
        )}
      </p>
      {cable && (
        <p>
          {Object.entries(attachments).map(([id, name]) => {
            const on = cable.attachments.includes(id)
            return (
              <Checkbox
                key={id}
                checked={on}
                disabled={locked}
                onChange={() =>
                  save({
                    cable: {
                      ...cable,
                      attachments: on ? cable.attachments.filter((a) => a !== id) : [...cable.attachments, id],
                    },
                  })
                }
              >
                {name}
              </Checkbox>
            )
          })}
        </p>
      )}
      <h2>Besides</h2>
      <p>
        {Object.entries(stations)
          .filter(([id]) => id !== 'band' && !bars.some(([kind]) => kind === id))
          .sort((a, b) => a[1].localeCompare(b[1]))
          .map(([id, name]) => {
            const i = form.others.findIndex((o) => o.kind === id)
            const at = form.others[i]
            const put = (part: Partial<RoomForm['others'][number]>) => ({
              others: form.others.map((o, k) => (k === i ? { ...o, ...part } : o)),
            })
            return (
              <Fragment key={id}>
                {has(name.replace(/^an? /, ''), i >= 0, (on) => ({
                  others: on ? [...form.others, { kind: id }] : form.others.filter((o) => o.kind !== id),
                }))}
                {at && loaded.includes(id) && (
                  <>
                    with{' '}
                    {steps(
                      `Loads of ${name}`,
                      at.loads ?? '',
                      (loads) => put({ loads }),
                      `others[${i}].loads`,
                      'not said',
                      inUnit(name, at.unit, (unit) => put({ unit })),
                    )}{' '}
                  </>
                )}
              </Fragment>
            )
          })}
      </p>
      <p className={leavesCss.prose}>
        Bands:{' '}
        {form.others.map((o, i) => {
          const put = (part: Partial<RoomForm['others'][number]>) => ({
            others: form.others.map((x, k) => (k === i ? { ...x, ...part } : x)),
          })
          return (
            o.kind === 'band' && (
              <Fragment key={i}>
                one that helps with{' '}
                {num(`Least help of band ${i + 1}`, o.low ?? 0, (low) => put({ low }), `others[${i}].low`)} to{' '}
                {num(`Most help of band ${i + 1}`, o.high ?? 0, (high) => put({ high }), `others[${i}].high`)}{' '}
                {inUnit(`band ${i + 1}`, o.unit, (unit) => put({ unit }))}
                {!locked && (
                  <button
                    type="button"
                    className="link"
                    onClick={() => save({ others: form.others.filter((_, k) => k !== i) })}
                  >
                    away
                  </button>
                )}
                ;{' '}
              </Fragment>
            )
          )
        })}
        {!locked && (
          <button
            type="button"
            className="link"
            onClick={() => save({ others: [...form.others, { kind: 'band', low: 10, high: 25 }] })}
          >
            one more
          </button>
        )}
      </p>
      <h2>From one exercise to the next</h2>
      <p className={leavesCss.prose}>
        A walk takes{' '}
        {(
          [
            ['walk_s', 'Walk', 30, 's, turning the bench '],
            ['bench_s', 'Turning the bench', 30, 's, moving the pulley '],
            ['pulley_s', 'Moving the pulley', 20, 's, another attachment '],
            ['attachment_s', 'Another attachment', 20, 's, changing plates '],
            ['plates_s', 'Changing plates', 45, 's.'],
          ] as const
        ).map(([field, label, usual, then]) => (
          <Fragment key={field}>
            {num(
              `${label}, s`,
              form.changes?.[field] || usual,
              (x) => ({ changes: { ...form.changes, [field]: x } }),
              `changes.${field}`,
            )}{' '}
            {then}
          </Fragment>
        ))}
      </p>
      {room.more.length > 0 && <p>Also here, and kept as it is: {room.more.join('; ')}.</p>}
      <p className="caveat">
        Loads are the whole ones, as marked: a bar with its own mass, a stack’s plate. Doses are rounded down to what is
        really here.
      </p>
    </section>
  )
}

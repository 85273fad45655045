import { Segmented, Select } from 'antd'
import { keptLength, keptMass, lengthUnit, massUnit, shownLength, shownMass, type Units } from '../../ui/units'
import { DayFill, Fill, Note } from './Fill'
import { Blank, number, trimmed } from '../../ui/Blank'
import { valueOf, type Edit, type Field } from './useDossier'
import { clsx } from 'clsx'
import leavesCss from '../../ui/leaves.module.css'
import css from './dossier.module.css'

const weekdays: [string, string][] = [
  ['mon', 'Mon'],
  ['tue', 'Tue'],
  ['wed', 'Wed'],
  ['thu', 'Thu'],
  ['fri', 'Fri'],
  ['sat', 'Sat'],
  ['sun', 'Sun'],
]

/** Who is the client in sentences with blanks: name, body, training, what is trained elsewhere. */
export function Who({ edit, locked, today }: { edit: Edit; locked: boolean; today: string }) {
  const units = valueOf(edit, 'units') as Units
  const length = (field: Field, label: string) => (
    <>
      <Fill
        edit={edit}
        field={field}
        label={label}
        disabled={locked}
        numeric
        placeholder="–"
        read={number((x) => Math.round(keptLength(x, units) * 10) / 1000)}
        show={(m: never) => (m ? String(shownLength(m * 100, units)) : '')}
      />{' '}
      {lengthUnit(units)}
    </>
  )
  return (
    <section className={leavesCss.leaf} aria-label="Who this is">
      <h2>Who</h2>
      <p className={leavesCss.prose}>
        Called <Fill edit={edit} field="name" label="Name" read={trimmed} disabled={locked} />,{' '}
        <Fill
          edit={edit}
          field="about"
          label="In a few words"
          read={trimmed}
          disabled={locked}
          placeholder="in a few words"
          width={330}
        />
        . Born in{' '}
        <Fill
          edit={edit}
          field="born_year"
          label="Year of birth"
          read={number()}
          show={(y: never) => (y ? String(y) : '')}
          disabled={locked}
          numeric
          placeholder="year"
        />
        , reached at{' '}
        <Fill edit={edit} field="contact" label="Contact" read={trimmed} disabled={locked} placeholder="contact" />.
      </p>
      <p className={leavesCss.prose}>
        {length('stature_m', 'Stature')} tall,{' '}
        <Fill
          edit={edit}
          field="mass_kg"
          label="Body mass"
          disabled={locked}
          numeric
          placeholder="–"
          read={number((x) => keptMass(x, units))}
          show={(kg: never) => (kg ? String(shownMass(kg, units)) : '')}
        />{' '}
        {massUnit(units)}; shoulders {length('breadth_m', 'Shoulder breadth')} apart, upper arm{' '}
        {length('upper_arm_m', 'Upper arm')}, elbow to grip {length('forearm_m', 'Elbow to grip')} (left empty: from
        stature). Typed in{' '}
        <Select
          variant="underlined"
          aria-label="Units"
          disabled={locked}
          value={units}
          onChange={(v) => edit.change('units', v)}
          options={[
            { value: 'metric', label: 'cm and kg' },
            { value: 'imperial', label: 'in and lb' },
          ]}
        />
        ; for the area of the arm{' '}
        <Select
          variant="underlined"
          aria-label="Sex, for the area formula"
          disabled={locked}
          value={valueOf(edit, 'sex')}
          onChange={(v) => edit.change('sex', v)}
          options={[
            { value: '', label: 'bone is left in' },
            { value: 'woman', label: 'a woman’s bone is taken off' },
            { value: 'man', label: 'a man’s bone is taken off' },
          ]}
        />
        .
      </p>
      <p className={leavesCss.prose}>
        Trains since <DayFill edit={edit} field="training_since" label="Trains since" max={today} disabled={locked} />,
        back from two weeks or more away on{' '}
        <DayFill edit={edit} field="comeback_on" label="Back on" max={today} disabled={locked} />. Has{' '}
        <Fill edit={edit} field="minutes" label="Minutes" read={number()} disabled={locked} numeric /> minutes on
      </p>
      <Days
        value={valueOf(edit, 'weekdays')}
        locked={locked}
        set={(d) => edit.change('weekdays', d)}
        label="Training days"
      />
      <Note edit={edit} field="weekdays" />
      <Elsewhere edit={edit} locked={locked} />
    </section>
  )
}

function Days({
  value,
  set,
  locked,
  label,
}: {
  value: string[]
  set: (days: string[]) => void
  locked: boolean
  label: string
}) {
  return (
    <span className={leavesCss.chips} role="group" aria-label={label}>
      {weekdays.map(([id, name]) => {
        const on = value.includes(id)
        return (
          <button
            key={id}
            type="button"
            className={on ? clsx(leavesCss.chip, leavesCss.on) : leavesCss.chip}
            aria-pressed={on}
            disabled={locked}
            onClick={() => set(weekdays.map(([d]) => d).filter((d) => (d === id ? !on : value.includes(d))))}
          >
            {name}
          </button>
        )
      })}
    </span>
  )
}

interface Elsewhere {
  weekday: string
  kind: string
  sets: number
}

function Elsewhere({ edit, locked }: { edit: Edit; locked: boolean }) {
  const list = valueOf(edit, 'elsewhere') as Elsewhere[]
  const put = (i: number, part: Partial<Elsewhere>) =>
    edit.change(
      'elsewhere',
      list.map((e, k) => (k === i ? { ...e, ...part } : e)),
    )
  return (
    <div className="elsewhere">
      <p className={css.proseLead}>Trained elsewhere (it counts):{list.length === 0 && ' nothing.'}</p>
      {list.map((e, i) => (
        <p key={i} className={leavesCss.prose}>
          <Select
            variant="underlined"
            aria-label="Weekday elsewhere"
            disabled={locked}
            value={e.weekday}
            onChange={(weekday) => put(i, { weekday })}
            options={weekdays.map(([value, label]) => ({ value, label }))}
          />{' '}
          <Blank
            label="Hard sets elsewhere"
            shown={String(e.sets)}
            numeric
            read={number()}
            save={(sets) => put(i, { sets: sets as number })}
            disabled={locked}
          />{' '}
          hard sets of{' '}
          <Segmented
            size="small"
            aria-label="Pressing or pulling"
            disabled={locked}
            value={e.kind}
            onChange={(kind) => put(i, { kind: kind })}
            options={[
              { value: 'press', label: 'pressing' },
              { value: 'pull', label: 'pulling' },
            ]}
          />
          {!locked && (
            <button
              type="button"
              className="link away"
              onClick={() =>
                edit.change(
                  'elsewhere',
                  list.filter((_, k) => k !== i),
                )
              }
            >
              take away<span className="only-read"> this day</span>
            </button>
          )}
        </p>
      ))}
      <Note edit={edit} field="elsewhere" />
      {!locked && (
        <button
          type="button"
          className="link"
          onClick={() => edit.change('elsewhere', [...list, { weekday: 'mon', kind: 'press', sets: 4 }])}
        >
          Add pressing or pulling elsewhere
        </button>
      )}
    </div>
  )
}

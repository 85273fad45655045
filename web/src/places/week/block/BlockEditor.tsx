import { Button } from 'antd'
import { Problem, type BlockDraft, type StripView } from '../../../api/client'
import { DayField } from '../../../ui/DayField'
import { dayWords } from '../../../ui/when'
import { modal } from '../../../ui/tell'
import type { Block } from './useBlock'
import css from './block.module.css'

/** BlockEditor is a block's course in a sentence, with what it would write into the plan before it does. */
export function BlockEditor({ b, draft, from }: { b: Block; draft: BlockDraft; from: string }) {
  const { edit, look, lay } = b
  const old = b.strip?.block
  const change = (fields: Partial<BlockDraft>) => edit({ ...draft, ...fields })
  const wrong = look.error instanceof Problem ? look.error : null
  const ready = draft.ready && draft.start === undefined
  const pick = <K extends keyof BlockDraft>(k: K, label: string, options: [BlockDraft[K], string][]) => (
    <select
      aria-label={label}
      value={String(draft[k])}
      onChange={(e) => change({ [k]: options.find(([v]) => String(v) === e.target.value)![0] })}
    >
      {options.map(([v, words]) => (
        <option key={String(v)} value={String(v)}>
          {words}
        </option>
      ))}
    </select>
  )
  const turn = draft.every === 7 ? 'week' : 'turn'
  return (
    <form
      className={css.editor}
      onSubmit={(e) => {
        e.preventDefault()
        void lay.run(draft)
      }}
    >
      <p>
        {pick(
          'turns',
          'How many turns',
          [4, 5, 6, 7, 8].map((n) => [n, String(n)]),
        )}{' '}
        {turn}s of{' '}
        {pick(
          'every',
          'Days in a turn',
          [3, 4, 5, 6, 7, 8, 9, 10].map((n) => [n, n === 7 ? '7 days, a week' : `${n} days`]),
        )}
        {old?.begun ? (
          <>, begun on {dayWords(draft.start ?? old.last)}; ready for </>
        ) : (
          <>
            {' '}
            from{' '}
            <DayField
              label="First day"
              value={ready ? (look.data?.block?.start ?? null) : (draft.start ?? null)}
              set={(start) => change({ start: start ?? from })}
              needed
            />{' '}
            or backwards, to be ready for{' '}
          </>
        )}
        <DayField
          label="The date to be ready for"
          value={draft.ready ?? null}
          set={(r) =>
            change(
              old?.begun
                ? { ready: r ?? undefined }
                : { ready: r ?? undefined, start: r ? undefined : from, dense: draft.dense && !!r },
            )
          }
        />
        . Effort climbs from{' '}
        {pick(
          'from',
          'Reps left at first',
          [3, 2, 1, 0].map((n) => [n, String(n)]),
        )}{' '}
        to{' '}
        {pick(
          'to',
          'Reps left at the end',
          [3, 2, 1, 0].map((n) => [n, String(n)]),
        )}{' '}
        left,{' '}
        {pick('limit', 'The last hard turn', [
          [false, 'and never to the limit'],
          [true, 'the last sets to the limit where failing alone is safe'],
        ])}
        . Sets{' '}
        {pick('sets', 'Sets', [
          [0, 'stay'],
          [1, `rise by up to one a head each ${turn}, inside the target`],
          [-1, `fall by up to one a head each ${turn}, inside the target`],
        ])}
        . The last {turn} is{' '}
        {pick('lighter', 'The lighter week', [
          [true, 'a lighter one'],
          [false, 'like the others: lighter when the log asks'],
        ])}
        . Set-ups{' '}
        {pick('change', 'What may change', [
          ['kept', 'stay'],
          ['exchange', 'may change, one at a time'],
          ['varied', 'vary often'],
        ])}
        {draft.ready && (
          <>
            ; near the date{' '}
            {pick('dense', 'Near the date', [
              [false, 'rests stay'],
              [true, 'rests get shorter, a mark lighter'],
            ])}
          </>
        )}
        .{draft.take && draft.version > 0 && <b> The turn on the board becomes its pattern.</b>}
      </p>
      {look.data?.block && <p className={css.grade}>{look.data.block.grade}</p>}
      {wrong && (
        <p className="fault" role="alert">
          {wrong.words}
        </p>
      )}
      {look.data && !wrong && <Steps steps={look.data.steps} />}
      <p className={css.acts}>
        <Button
          type="primary"
          size="small"
          htmlType="submit"
          disabled={lay.busy || look.isFetching || !!wrong || !look.data}
        >
          {draft.version === 0 ? 'Lay the block' : 'Let it flow on'}
        </Button>{' '}
        <Button size="small" onClick={() => edit(null)}>
          Leave it
        </Button>{' '}
        {old && (
          <Button
            size="small"
            type="text"
            onClick={() =>
              modal.confirm({
                title: 'End the block? What was made of it stays in the plan; nothing more is made.',
                okText: 'End it',
                cancelText: 'Leave it',
                onOk: () => b.end.run(old.id),
              })
            }
          >
            End the block
          </Button>
        )}
        {(lay.why || b.end.why) && (
          <span className="fault" role="alert">
            Not laid: {lay.why || b.end.why}
          </span>
        )}
      </p>
      {look.data?.block && <p className="caveat">{look.data.block.caveat}</p>}
    </form>
  )
}

const heads: Record<string, string> = {
  changed: 'Overwritten',
  made: 'Made new',
  gone: 'Taken out',
  stays: 'Stays as it is',
}

/** Steps are what would be written into the plan, and what stays. */
function Steps({ steps }: { steps: StripView['steps'] }) {
  if (steps.length === 0) return <p className={css.grade}>Nothing in the plan changes now.</p>
  return (
    <div className={css.steps}>
      {Object.entries(heads).map(([what, words]) => {
        const those = steps.filter((s) => s.what === what)
        if (those.length === 0) return null
        return (
          <section key={what} aria-label={words}>
            <h4>
              {words} <span>{those.length}</span>
            </h4>
            <ul>
              {those.map((s) => (
                <li key={s.name + s.on}>
                  <b>{s.name}</b>, {dayWords(s.on)}
                  {s.why && `: ${s.why}`}
                  {s.says.map((x) => (
                    <p key={x}>{x}</p>
                  ))}
                </li>
              ))}
            </ul>
          </section>
        )
      })}
    </div>
  )
}

import { Button, Input, Segmented, Select } from 'antd'
import { useState } from 'react'
import { api, got, type BookView, type HeardView, type RuleView, type TipView } from '../../api/client'
import { useCatalogue } from '../../app/me'
import { clsx } from 'clsx'
import css from './stances.module.css'
import { useWrite } from '../../api/useWrite'

type By = 'words' | 'lever' | 'two'

/** TipChecker holds a tip heard somewhere against the model, the rules and what is often said. */
export function TipChecker({ book }: { book: BookView }) {
  const { movements } = useCatalogue()
  const [by, setBy] = useState<By>('words')
  const [words, setWords] = useState('')
  const [lever, setLever] = useState(book.levers[0]!.id)
  const [from, setFrom] = useState('curl_standing_bar')
  const [to, setTo] = useState('curl_reclined')
  const [head, setHead] = useState(book.heads[0]!.id)
  const [up, setUp] = useState(true)
  const [heard, setHeard] = useState<{ for: string; view: HeardView } | null>(null)
  const body =
    by === 'words'
      ? { words: words.trim() }
      : by === 'lever'
        ? { lever, head, up }
        : { from: { movement: from }, to: { movement: to }, head, up }
  const asked = JSON.stringify(body)
  const { run: check, why: fault } = useWrite(async () => {
    setHeard({ for: asked, view: await got(api.POST('/check-tip', { body })) })
  })
  const wear = movements.filter((m) => m.key === m.id).map((m) => ({ value: m.id, label: m.name }))
  const pick = (label: string, value: string, set: (v: string) => void) => (
    <Select aria-label={label} showSearch={{ optionFilterProp: 'label' }} value={value} onChange={set} options={wear} />
  )
  return (
    <section aria-label="Tip checker" className={css.tip}>
      <h2>A tip you heard</h2>
      <Segmented
        aria-label="What is checked"
        block
        size="small"
        value={by}
        onChange={(v) => setBy(v as By)}
        options={[
          { value: 'words', label: 'in words' },
          { value: 'lever', label: 'a lever' },
          { value: 'two', label: 'two set-ups' },
        ]}
      />
      {by === 'words' && (
        <Input.TextArea
          aria-label="What you heard"
          autoSize={{ minRows: 2, maxRows: 5 }}
          maxLength={300}
          placeholder="Kick-backs stretch the long head; the pump shows it works …"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      )}
      {by === 'lever' && (
        <Select
          aria-label="Lever"
          value={lever}
          onChange={setLever}
          options={book.levers.map((l) => ({ value: l.id, label: l.name }))}
        />
      )}
      {by === 'two' && (
        <>
          {pick('From', from, setFrom)}
          {pick('To', to, setTo)}
        </>
      )}
      {by !== 'words' && (
        <>
          <Select
            aria-label="Direction"
            value={up ? 'more' : 'less'}
            onChange={(v) => setUp(v === 'more')}
            options={[
              { value: 'more', label: 'gives more to the' },
              { value: 'less', label: 'gives less to the' },
            ]}
          />
          <Select
            aria-label="Head"
            value={head}
            onChange={setHead}
            options={book.heads.map((h) => ({ value: h.id, label: h.name }))}
          />
        </>
      )}
      <Button type="primary" block disabled={by === 'words' && !words.trim()} onClick={() => void check()}>
        Check it
      </Button>
      {fault && <p className="fault">{fault}</p>}
      {heard?.for === asked && <Answer view={heard.view} />}
    </section>
  )
}

function Answer({ view }: { view: HeardView }) {
  return (
    <div className="finding does" role="status">
      {!view.known && (
        <p>
          <b>We do not know this one.</b> Neither the model, nor a rule, nor what is often said has it. Name the head
          and the movement, and the model is asked.
        </p>
      )}
      {view.claims.map((c) => (
        <p key={c.says}>
          <q>{c.says}</q> <b>{c.answer}.</b> {c.but}
        </p>
      ))}
      {view.tip && <Model tip={view.tip} />}
      {view.disputes.map((d) => (
        <p key={d.lever}>
          <b>In dispute, {d.lever}.</b> {d.one} {d.other} <i>Mechanics: {d.mechanics}</i> In practice: {d.house}
        </p>
      ))}
      {view.rules.length > 0 && <Rules title="Rules that say it" rules={view.rules} />}
    </div>
  )
}

function Model({ tip }: { tip: TipView }) {
  const signed = (x: number) => (x >= 0 ? `+${x.toFixed(2)}` : `−${Math.abs(x).toFixed(2)}`)
  return (
    <>
      {tip.between && <p>{tip.between}</p>}
      <p>
        <b>{tip.verdict}</b>
      </p>
      <p>
        {tip.graded
          ? `Middle credit ${signed(tip.plain)}.`
          : `Plain bias ${signed(tip.plain)}, stretch bias ${signed(tip.stretch)}.`}
      </p>
      <Rules title="Say so" rules={tip.saying_so} />
      <Rules title="Say otherwise" rules={tip.opposite} />
      {tip.dispute && (
        <p>
          <b>In practice:</b> {tip.dispute.house}
        </p>
      )}
    </>
  )
}

function Rules({ title, rules }: { title: string; rules: RuleView[] }) {
  if (rules.length === 0) return <p>{title}: no rule.</p>
  return (
    <>
      <p>{title}:</p>
      {rules.map((r) => (
        <p key={r.id} className={css.tipRule}>
          <span className={clsx(css.grade, css[`grade${r.grade}`])}>{r.grade}</span> {r.says}{' '}
          {r.mechanism === 'does not hold' && <i>(its reason does not hold)</i>}
        </p>
      ))}
    </>
  )
}

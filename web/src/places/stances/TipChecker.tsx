import { Button, Select } from 'antd'
import { useState } from 'react'
import { api, got, type BookView, type RuleView, type TipView } from '../../api/client'
import { clsx } from 'clsx'
import css from './stances.module.css'
import { useWrite } from '../../api/useWrite'

/** TipChecker holds a tip heard somewhere against mechanics and the rules. */
export function TipChecker({ book }: { book: BookView }) {
  const [lever, setLever] = useState(book.levers[0]!.id)
  const [head, setHead] = useState(book.heads[0]!.id)
  const [up, setUp] = useState(true)
  const [tip, setTip] = useState<{ for: string; view: TipView } | null>(null)
  const asked = [lever, head, up].join()
  const { run: check, why: fault } = useWrite(async () => {
    setTip({ for: asked, view: await got(api.POST('/check-tip', { body: { lever, head, up } })) })
  })
  const signed = (x: number) => (x >= 0 ? `+${x.toFixed(2)}` : `−${Math.abs(x).toFixed(2)}`)
  return (
    <section aria-label="Tip checker" className={css.tip}>
      <h2>A tip you heard</h2>
      <Select
        aria-label="Lever"
        value={lever}
        onChange={setLever}
        options={book.levers.map((l) => ({ value: l.id, label: l.name }))}
      />
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
      <Button type="primary" block onClick={() => void check()}>
        Check it
      </Button>
      {fault && <p className="fault">{fault}</p>}
      {tip?.for === asked && (
        <div className="finding does" role="status">
          <p>
            <b>{tip.view.verdict}</b>
          </p>
          <p>
            {tip.view.graded
              ? `Middle credit ${signed(tip.view.plain)}.`
              : `Plain bias ${signed(tip.view.plain)}, stretch bias ${signed(tip.view.stretch)}.`}
          </p>
          <Rules title="Say so" rules={tip.view.saying_so} />
          <Rules title="Say otherwise" rules={tip.view.opposite} />
          {tip.view.dispute && (
            <p>
              <b>In practice:</b> {tip.view.dispute.house}
            </p>
          )}
        </div>
      )}
    </section>
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

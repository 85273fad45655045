import { Link } from 'react-router'
import type { SetUpView } from '../../api/client'
import { Code } from '../../figures/BiasBars'
import { decimals } from '../../figures/heads'
import css from './stage.module.css'

/** WhyBias lists the terms each head's number came from. */
export function WhyBias({ view }: { view: SetUpView }) {
  const shown = view.bias.filter((b) => b.value > 0)
  if (!view.computed) {
    return (
      <div className={css.why}>
        <p>
          Evidence grade {view.grade}. Hand forces in movements of several joints are not known well enough to compute,
          so each head has a middle credit and a range per hard set.
        </p>
        {shown.map((b) => (
          <p key={b.id}>
            <Code id={b.id} code={b.code} /> {decimals(b.low, 1)} – <b>{decimals(b.value, 1)}</b> –{' '}
            {decimals(b.high, 1)}
          </p>
        ))}
      </div>
    )
  }
  return (
    <div className={css.why}>
      <table>
        <caption>Stance {view.stance}: its base bias, then its rules</caption>
        <thead>
          <tr>
            <th />
            <th title="of the work, against the hardest-working head">share</th>
            <th>plain</th>
            <th title="weighted toward long length">stretch</th>
            <th title="tension-weighted fibre length over the optimal one">length</th>
            <th title="the stance's bias before its rules">base</th>
            <th title="with its rules; a hard set gives so many effective sets, at most 1.25">bar</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((b) => (
            <tr key={b.id}>
              <th scope="row">
                <Code id={b.id} code={b.code} />
              </th>
              <td>{decimals(b.share)}</td>
              <td>{decimals(b.plain)}</td>
              <td>{decimals(b.stretch)}</td>
              <td>{b.mean_length === null ? '' : decimals(b.mean_length)}</td>
              <td>{decimals(b.base)}</td>
              <td>
                <b>{decimals(b.value)}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className={css.whyTerms}>
        {shown
          .filter((b) => b.formula)
          .map((b) => (
            <li key={b.id}>
              <Code id={b.id} code={b.code} /> {b.formula}
            </li>
          ))}
        {shown.flatMap((b) =>
          b.terms.map((t) => (
            <li key={b.id + t.rule} className={t.counts ? undefined : css.folklore}>
              <Code id={b.id} code={b.code} /> ×{decimals(t.factor)}{' '}
              <Link to={`/stances?rule=${t.rule}`}>{t.says}</Link>{' '}
              <i>
                grade {t.grade}, {t.counts ? t.mechanism : 'does not hold, counts nothing'}: {t.why}
              </i>
            </li>
          )),
        )}
        {shown.every((b) => b.terms.length === 0) && <li>No rule of this stance applies.</li>}
      </ul>
      <p className="caveat">
        Share is of the work, against the hardest-working head. The line through a bar runs over all stances: narrow
        means they agree.
      </p>
    </div>
  )
}

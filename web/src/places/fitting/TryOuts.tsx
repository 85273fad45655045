import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input, Segmented } from 'antd'
import { useDeferredValue, useState } from 'react'
import { api, got, type LoadFit, type SetUpView, type TryOutView, type Worn } from '../../api/client'
import { useSending } from '../../api/sending'
import css from './fitting.module.css'
import { useWrite } from '../../api/useWrite'

const fitHeadings = {
  not_known: 'Does the load fit?',
  fits: 'The load fits',
  too_heavy: 'Too heavy here',
  too_light: 'Too light here',
}

/** Record is what is known of a client and a set-up: whether the loads fit, and what was tried. */
export function Record({ client, worn, view }: { client: string; worn: Worn; view: SetUpView }) {
  const asked = useDeferredValue(JSON.stringify({ movement: worn.movement, settings: worn.settings }))
  const record = useQuery(queries.record(client, asked))
  if (!record.data) return null
  return (
    <>
      <Loads loads={record.data.loads} />
      <TryOuts client={client} worn={worn} view={view} tried={record.data.try_outs} />
    </>
  )
}

/** Loads says whether the room's loads suit this set-up for the client, from its own series. */
function Loads({ loads }: { loads: LoadFit }) {
  return (
    <section aria-label="Loads">
      <h2>{fitHeadings[loads.fit]}</h2>
      <div
        className={loads.fit === 'fits' ? 'finding does' : loads.fit === 'not_known' ? 'finding quiet' : 'finding warn'}
      >
        {loads.words}
        {loads.instead.length > 0 && (
          <ul>
            {loads.instead.map((i) => (
              <li key={i}>{i}</li>
            ))}
          </ul>
        )}
      </div>
    </section>
  )
}

type Outcome = 'kept' | 'dropped' | 'open'

/** TryOuts are what the client said of this movement before, and a new one recorded in a line. */
function TryOuts({ client, worn, view, tried }: { client: string; worn: Worn; view: SetUpView; tried: TryOutView[] }) {
  const cache = useQueryClient()
  const [open, setOpen] = useState(false)
  const [comfort, setComfort] = useState(7)
  const [felt, setFelt] = useState('')
  const [outcome, setOutcome] = useState<Outcome>('open')
  const sent = useSending()
  const { run: send, why } = useWrite(async () => {
    const body = { movement: worn.movement, settings: worn.settings, comfort, felt, outcome }
    await got(
      api.POST('/clients/{client}/try-outs', {
        params: { path: { client } },
        body: { id: sent.idOf(body), ...body },
      }),
    )
    sent.kept()
    setOpen(false)
    setFelt('')
    touched(cache, ['tryOuts'])
  })
  return (
    <section aria-label="Tried out">
      <h2>Tried out</h2>
      {tried.map((t) => (
        <div key={t.id} className={t.outcome === 'dropped' ? 'finding warn' : 'finding'}>
          {t.on}: comfort {t.comfort} of 10{t.felt && `, felt ${t.felt}`}; {t.outcome}
          {t.name !== view.name && <p className="caveat">as {t.name}</p>}
          {t.note && <p>{t.note}</p>}
        </div>
      ))}
      {!open ? (
        <button type="button" className="link" onClick={() => setOpen(true)}>
          Record a try-out of this set-up
        </button>
      ) : (
        <form
          className={css.tryOut}
          onSubmit={(e) => {
            e.preventDefault()
            void send()
          }}
        >
          <label>
            <span className="field-label">comfort, 0–10</span>
            <Input
              type="number"
              min={0}
              max={10}
              aria-label="Comfort"
              value={comfort}
              onChange={(e) => setComfort(Math.max(0, Math.min(10, Math.round(Number(e.target.value)))))}
            />
          </label>
          <label>
            <span className="field-label">felt where</span>
            <Input aria-label="Felt where" value={felt} onChange={(e) => setFelt(e.target.value)} />
          </label>
          <Segmented
            size="small"
            aria-label="Outcome"
            value={outcome}
            onChange={(v) => setOutcome(v as Outcome)}
            options={['kept', 'dropped', { value: 'open', label: 'still open' }]}
          />
          <p>
            <Button size="small" type="primary" htmlType="submit">
              Save the try-out
            </Button>{' '}
            <Button size="small" onClick={() => setOpen(false)}>
              Leave it
            </Button>
          </p>
          {why && <p className="fault">{why}</p>}
        </form>
      )}
      <p className="caveat">Where it was felt is weak evidence, never proof.</p>
    </section>
  )
}

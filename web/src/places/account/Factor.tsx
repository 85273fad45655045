import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { api, got, type Me } from '../../api/client'
import { queries } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import leavesCss from '../../ui/leaves.module.css'
import css from './account.module.css'

/** Factor sets a second factor up: a picture to take, a code to prove it, ten codes to keep; and takes it off. */
export function Factor({ me }: { me: Me }) {
  const cache = useQueryClient()
  const signIns = useQuery(queries.signIns())
  const [begun, setBegun] = useState<{ secret: string; image: string } | null>(null)
  const [codes, setCodes] = useState<string[]>([])
  const [typed, setTyped] = useState('')
  const again = async () => {
    setTyped('')
    await Promise.all([cache.invalidateQueries({ queryKey: ['me'] }), cache.invalidateQueries(queries.signIns())])
  }
  const begin = useWrite(async () => setBegun(await got(api.POST('/me/factor'))))
  const confirm = useWrite(async () => {
    setCodes((await got(api.PUT('/me/factor', { body: { code: typed } }))).codes)
    setBegun(null)
    await again()
  })
  const drop = useWrite(async () => {
    await got(api.DELETE('/me/factor', { body: { password: typed } }))
    setCodes([])
    await again()
  })
  const why = begin.why || confirm.why || drop.why
  return (
    <section className={leavesCss.leaf} aria-label="Second factor">
      <h2>Second factor</h2>
      {codes.length > 0 && (
        <div className="ask" role="status">
          <p>
            <b>Keep these ten codes where the device is not.</b> Each opens once when it is lost; they are shown this
            once.
          </p>
          <ul className={css.codes}>
            {codes.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          <Button size="small" onClick={() => setCodes([])}>
            I have kept them
          </Button>
        </div>
      )}
      {me.factor ? (
        <>
          <p>Six digits are asked for after the password. {signIns.data?.codes ?? 0} recovery codes are left.</p>
          <form
            className={css.form}
            onSubmit={(e) => {
              e.preventDefault()
              void drop.run()
            }}
          >
            <Input.Password
              aria-label="Your password, to take it off"
              placeholder="your password"
              autoComplete="current-password"
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            <Button htmlType="submit" disabled={!typed} loading={drop.busy}>
              Turn it off
            </Button>
          </form>
        </>
      ) : begun ? (
        <div className={css.factor}>
          <img src={begun.image} alt="The code to take with an authenticator" width={180} height={180} />
          <form
            className={css.form}
            onSubmit={(e) => {
              e.preventDefault()
              void confirm.run()
            }}
          >
            <p>
              Take the picture with an authenticator, or type <code className={css.secret}>{begun.secret}</code> into
              it.
            </p>
            <Input
              aria-label="The six digits it shows"
              placeholder="the six digits it shows"
              autoComplete="one-time-code"
              inputMode="numeric"
              autoFocus
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            <Button type="primary" htmlType="submit" disabled={!typed} loading={confirm.busy}>
              Ask for it from now on
            </Button>
          </form>
        </div>
      ) : (
        <p>
          A password alone can be seen or guessed.{' '}
          <button type="button" className="link" onClick={() => void begin.run()}>
            Set up a second factor …
          </button>
        </p>
      )}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
    </section>
  )
}

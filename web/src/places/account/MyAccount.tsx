import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input, Select } from 'antd'
import { clsx } from 'clsx'
import { useState } from 'react'
import { api, got, type Me } from '../../api/client'
import { queries } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { useMe } from '../../app/me'
import { readDates } from '../../app/dates'
import { startAfresh } from '../../app/kept'
import { Blank } from '../../ui/Blank'
import leavesCss from '../../ui/leaves.module.css'
import { message } from '../../ui/tell'
import { momentWords } from '../../ui/when'
import { Factor } from './Factor'
import css from './account.module.css'

/** MyAccount is what is one's own: name, units, password, second factor, and where one is signed in. */
export function MyAccount() {
  const me = useMe().data
  if (!me) return null
  return (
    <div className={clsx(leavesCss.dossier, leavesCss.studio)}>
      <main className={leavesCss.dossierMain}>
        <h1>{me.name}</h1>
        {me.lacks && (
          <p className="ask" role="alert">
            {me.studio} asks everybody for a second factor. Set yours up below; until then nothing else opens.
          </p>
        )}
        <Self me={me} />
        <Password me={me} />
        <Factor me={me} />
        <Studios me={me} />
      </main>
      <aside className="margin" aria-label="Where you are signed in">
        <SignIns />
      </aside>
    </div>
  )
}

function Self({ me }: { me: Me }) {
  const cache = useQueryClient()
  const { run, why } = useWrite(async (part: Partial<Pick<Me, 'name' | 'units' | 'dates'>>) => {
    const { name, units, dates } = { ...me, ...part }
    const next = await got(api.PUT('/me', { body: { name, units, dates } }))
    readDates(next.dates)
    cache.removeQueries({ predicate: (q) => q.queryKey[0] !== 'me' && q.queryKey[0] !== 'catalogue' }) // read anew, in the reader's way
    cache.setQueryData(['me'], next)
  })
  return (
    <section className={leavesCss.leaf} aria-label="Who you are">
      <p className={leavesCss.prose}>
        Called{' '}
        <Blank label="Name" shown={me.name} read={(t) => t.trim()} save={(v) => void run({ name: v as string })} />,
        signs in with <b>{me.email}</b>. Measures are typed and read in{' '}
        <Select
          aria-label="Units"
          variant="underlined"
          value={me.units}
          onChange={(units) => void run({ units })}
          options={[
            { value: 'metric', label: 'cm and kg' },
            { value: 'imperial', label: 'in and lb' },
          ]}
        />{' '}
        for new clients. Dates are written{' '}
        <Select
          aria-label="Dates"
          variant="underlined"
          value={me.dates}
          onChange={(dates) => void run({ dates })}
          options={[
            { value: 'day_first', label: '30 November 2026' },
            { value: 'month_first', label: 'November 30, 2026' },
          ]}
        />
        .
      </p>
      {why && <p className="fault">{why}</p>}
    </section>
  )
}

function Password({ me }: { me: Me }) {
  const [open, setOpen] = useState(false)
  const [old, setOld] = useState('')
  const [next, setNext] = useState('')
  const { run, why, busy } = useWrite(async () => {
    await got(api.PUT('/me/password', { body: { old, new: next } }))
    setOpen(false)
    setOld('')
    setNext('')
    message.success('The password is another one; every other sign-in is over.')
  })
  return (
    <section className={leavesCss.leaf} aria-label="Password">
      <h2>Password</h2>
      {!open ? (
        <button type="button" className="link" onClick={() => setOpen(true)}>
          Change it …
        </button>
      ) : (
        <form
          className={css.form}
          onSubmit={(e) => {
            e.preventDefault()
            void run()
          }}
        >
          <input type="email" autoComplete="username" value={me.email} readOnly hidden />
          <Input.Password
            aria-label="The password you have"
            placeholder="the one you have"
            autoComplete="current-password"
            autoFocus
            value={old}
            onChange={(e) => setOld(e.target.value)}
          />
          <Input.Password
            aria-label="A new password"
            placeholder="a new one, at least 12 characters"
            autoComplete="new-password"
            value={next}
            onChange={(e) => setNext(e.target.value)}
          />
          <Button type="primary" htmlType="submit" loading={busy} disabled={!old || !next}>
            Change it
          </Button>
          {why && (
            <p className="fault" role="alert">
              {why}
            </p>
          )}
        </form>
      )}
    </section>
  )
}

function Studios({ me }: { me: Me }) {
  const { run } = useWrite(
    async (studio: string) => {
      await got(api.POST('/me/studio', { body: { studio } }))
      startAfresh()
    },
    (p) => message.error(p.words),
  )
  if (me.studios.length < 2) return null
  return (
    <section className={leavesCss.leaf} aria-label="Your studios">
      <h2>Your studios</h2>
      {me.studios.map((s) => (
        <p key={s.id}>
          <b>{s.name}</b>{' '}
          {s.here ? (
            'is where you are.'
          ) : (
            <button type="button" className="link" onClick={() => void run(s.id)}>
              Go there
            </button>
          )}
        </p>
      ))}
    </section>
  )
}

function SignIns() {
  const cache = useQueryClient()
  const list = useQuery(queries.signIns())
  const { run, why } = useWrite(async (id: string | null) => {
    await (id
      ? got(api.DELETE('/me/sign-ins/{sign_in}', { params: { path: { sign_in: id } } }))
      : got(api.DELETE('/me/sign-ins')))
    await cache.invalidateQueries(queries.signIns())
  })
  return (
    <>
      <h2>Where you are signed in</h2>
      {list.data?.sign_ins.map((s) => (
        <div key={s.id} className={s.here ? 'finding does' : 'finding'}>
          {browser(s.agent)}
          {s.here ? ', here' : `, last used ${s.seen}`}; since {momentWords(s.since)}
          {s.own_device && ', for 30 days'}
          {!s.here && (
            <button type="button" className="link" onClick={() => void run(s.id)}>
              End it
            </button>
          )}
        </div>
      ))}
      {(list.data?.sign_ins.length ?? 0) > 1 && (
        <button type="button" className="link" onClick={() => void run(null)}>
          End all but this one
        </button>
      )}
      {why && <p className="fault">{why}</p>}
    </>
  )
}

/** browser is what a browser calls itself, in a word or two where one can be told. */
function browser(agent: string): string {
  const system = /Android|iPhone|iPad|Windows|Macintosh|Linux/.exec(agent)?.[0]
  return system ? `A browser on ${system === 'Macintosh' ? 'a Mac' : system}` : agent.slice(0, 60) || 'A browser'
}

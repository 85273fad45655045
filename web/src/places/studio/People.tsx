import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Checkbox, Input, Select } from 'antd'
import { clsx } from 'clsx'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, got, type ColleagueView, type Me, type PeopleView } from '../../api/client'
import { queries } from '../../api/queries'
import { useSending } from '../../api/sending'
import { useWrite } from '../../api/useWrite'
import { useMe } from '../../app/me'
import leavesCss from '../../ui/leaves.module.css'
import { message } from '../../ui/tell'
import { Waiting } from '../../ui/Waiting'
import { momentWords } from '../../ui/when'
import { StudioTabs } from './StudioTabs'
import css from './studio.module.css'

const roles = [
  { value: 'owner', label: 'owner' },
  { value: 'coach', label: 'coach' },
  { value: 'assistant', label: 'assistant' },
] as const

type Role = Me['role']

/** People is who belongs to the studio: what each may do, when each was here, whom to let in and whom to shut out. */
export function People() {
  const people = useQuery(queries.people())
  const me = useMe().data
  const cache = useQueryClient()
  const keep = (v: PeopleView) => void cache.setQueryData(queries.people().queryKey, v)
  const demand = useWrite(
    async (demanded: boolean) => keep(await got(api.PUT('/studio/second-factor', { body: { demanded } }))),
    (p) => message.error(p.words),
  )
  if (!people.data || !me) return <Waiting query={people} />
  const { people: list, invitations, demanded } = people.data
  return (
    <>
      <StudioTabs />
      <div className={clsx(leavesCss.dossier, leavesCss.studio)}>
        <main className={leavesCss.dossierMain}>
          <h1 className="only-read">People</h1>
          {list.map((p) => (
            <Colleague key={p.id} of={p} all={list} keep={keep} />
          ))}
          <Invite letters={me.letters} keep={keep} />
          {invitations.map((i) => (
            <Invited key={i.id} id={i.id} email={i.email} role={i.role} expires={i.expires} keep={keep} />
          ))}
        </main>
        <aside className="margin" aria-label="What the tool says">
          <h2>Who may do what</h2>
          <p className="margin-line">
            <b>An owner</b> does everything: people, exports, erasing, links for longer than 30 days.
          </p>
          <p className="margin-line">
            <b>A coach</b> plans, prescribes, issues and reads all of a client.
          </p>
          <p className="margin-line">
            <b>An assistant</b> runs sessions, measures and logs; sees caps and verdicts, not the answers of a
            screening.
          </p>
          <h2>Second factor</h2>
          <Checkbox checked={demanded} onChange={(e) => void demand.run(e.target.checked)}>
            Everybody here needs one
          </Checkbox>
          <p className="caveat">
            Yours is set up under <Link to="/me">your name</Link>. Whoever has none can open nothing but that page.
          </p>
        </aside>
      </div>
    </>
  )
}

function Colleague({ of: p, all, keep }: { of: ColleagueView; all: ColleagueView[]; keep: (v: PeopleView) => void }) {
  const [handing, setHanding] = useState(false)
  const set = useWrite(async (role: Role, disabled: boolean) =>
    keep(await got(api.PUT('/people/{account}', { params: { path: { account: p.id } }, body: { role, disabled } }))),
  )
  const hand = useWrite(async (to: string) => {
    keep(await got(api.POST('/people/{account}/clients', { params: { path: { account: p.id } }, body: { to } })))
    setHanding(false)
  })
  const others = all.filter((o) => o.id !== p.id && !o.disabled && o.role !== 'assistant')
  return (
    <article className={clsx(css.person, p.disabled && css.off)} data-person={p.email}>
      <div>
        <b>{p.name}</b> {p.me && '(you)'}
        <span className={css.facts}>
          {p.email} · {p.disabled ? 'disabled' : p.seen} · {p.clients === 1 ? '1 client' : `${p.clients} clients`} ·{' '}
          {p.factor ? 'second factor' : 'no second factor'}
        </span>
      </div>
      <Select<Role>
        aria-label={`Role of ${p.name}`}
        value={p.role}
        options={[...roles]}
        disabled={p.disabled}
        onChange={(role) => void set.run(role, p.disabled)}
      />
      <Button size="small" onClick={() => void set.run(p.role, !p.disabled)}>
        {p.disabled ? 'Let in again' : 'Disable'}
      </Button>
      {p.clients > 0 && others.length > 0 && !handing && (
        <Button size="small" onClick={() => setHanding(true)}>
          Hand clients over …
        </Button>
      )}
      {handing && (
        <Select
          aria-label={`Hand the clients of ${p.name} to`}
          placeholder="to …"
          autoFocus
          defaultOpen
          options={others.map((o) => ({ value: o.id, label: o.name }))}
          onChange={(to: string) => void hand.run(to)}
        />
      )}
      {(set.why || hand.why) && (
        <p className="fault" role="alert">
          {set.why || hand.why}
        </p>
      )}
    </article>
  )
}

function Invite({ letters, keep }: { letters: boolean; keep: (v: PeopleView) => void }) {
  const fresh = useSending()
  const [email, setEmail] = useState('')
  const [role, setRole] = useState<Role>('assistant')
  const [link, setLink] = useState('')
  const { run, why, busy } = useWrite(async (letter: boolean) => {
    const body = { email, role, letter }
    const answer = await got(api.POST('/invitations', { body: { id: fresh.idOf(body), ...body } }))
    fresh.kept()
    setLink(answer.link)
    setEmail('')
    keep(answer.now)
    if (letter) message.success(`A letter is on its way to ${email}.`)
  })
  return (
    <section className={leavesCss.leaf} aria-label="Ask somebody to join">
      <h2>Ask somebody to join</h2>
      <form
        className={css.invite}
        onSubmit={(e) => {
          e.preventDefault()
          void run(letters)
        }}
      >
        <Input
          type="email"
          aria-label="E-mail of whoever is asked"
          placeholder="e-mail address"
          value={email}
          onChange={(e) => setEmail(e.target.value)}
        />
        <Select<Role> aria-label="Role of whoever is asked" value={role} options={[...roles]} onChange={setRole} />
        {letters && (
          <Button type="primary" htmlType="submit" disabled={!email.trim()} loading={busy}>
            Send a letter
          </Button>
        )}
        <Button
          type={letters ? 'default' : 'primary'}
          htmlType={letters ? 'button' : 'submit'}
          disabled={!email.trim()}
          onClick={letters ? () => void run(false) : undefined}
        >
          Make a link to copy
        </Button>
      </form>
      {link && (
        <p className="ask" role="status">
          Give this link to nobody else. It opens once, within 72 hours: <b className={css.link}>{link}</b>
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

function Invited({
  id,
  email,
  role,
  expires,
  keep,
}: {
  id: string
  email: string
  role: Role
  expires: string
  keep: (v: PeopleView) => void
}) {
  const { run, why } = useWrite(async () =>
    keep(await got(api.DELETE('/invitations/{invitation}', { params: { path: { invitation: id } } }))),
  )
  return (
    <p>
      <b>{email}</b> was asked as {role}; the link opens until {momentWords(expires)}.{' '}
      <button type="button" className="link" onClick={() => void run()}>
        Withdraw it
      </button>
      {why && <span className="fault"> {why}</span>}
    </p>
  )
}

import { queries, touched } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, got, problemOf, type ClientCard } from '../../api/client'
import { useSending } from '../../api/sending'
import { useKeys } from '../../app/keys'
import { useCatalogue, useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { Slice } from '../../figures/Slice'
import { clsx } from 'clsx'
import css from './wall.module.css'

/** Wall is every client as a slice of what the next session gives, today's first. */
export function Wall() {
  const clients = useQuery(queries.clients())
  const me = useMe()
  const wall = useRef<HTMLElement>(null)
  const step = (by: number) => {
    const cards = [...(wall.current?.querySelectorAll<HTMLElement>('a.client-card') ?? [])]
    const here = cards.indexOf(document.activeElement as HTMLElement)
    cards[Math.min(cards.length - 1, Math.max(0, here + by))]?.focus()
  }
  useKeys({
    ArrowRight: { does: 'next client', run: () => step(1) },
    ArrowLeft: { does: 'previous client', run: () => step(-1) },
  })
  if (!clients.data) return <Waiting query={clients} />
  const all = clients.data.clients
  const today = all.filter((c) => c.today)
  const later = all.filter((c) => !c.today)
  return (
    <main className={css.wall} ref={wall}>
      <Row title={today.length > 0 ? 'Training today' : ''} clients={today} />
      <Row title="Coming up" clients={later} />
      {all.length === 0 && <p>No clients yet. Add the first by the name she wants to be called.</p>}
      {me.data?.may_plan && <NewClient />}
      <p className={css.legend}>
        Each slice is the right arm from above: how many effective sets a week each head is to get; the fuller, the
        more, and what gets most is outlined. Where nothing is set under Priorities yet it is what the next session
        gives.
      </p>
    </main>
  )
}

/** NewClient begins a dossier with a name. */
function NewClient() {
  const navigate = useNavigate()
  const cache = useQueryClient()
  const [name, setName] = useState('')
  const fresh = useSending()
  const [why, setWhy] = useState('')
  const add = async () => {
    setWhy('')
    try {
      const id = fresh.idOf(name)
      await got(api.POST('/clients', { body: { id, name } }))
      fresh.kept()
      touched(cache, ['clients'])
      void navigate(`/clients/${id}/dossier`)
    } catch (e) {
      setWhy(problemOf(e).words)
    }
  }
  return (
    <form
      className={css.newClient}
      onSubmit={(e) => {
        e.preventDefault()
        void add()
      }}
    >
      <Input
        aria-label="Name of the new client"
        placeholder="A new client’s name"
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button htmlType="submit" disabled={name.trim() === ''}>
        Begin the dossier
      </Button>
      {why && <span className="fault">{why}</span>}
    </form>
  )
}

function Row({ title, clients }: { title: string; clients: ClientCard[] }) {
  const { right } = useCatalogue()
  if (clients.length === 0) return null
  return (
    <section>
      <h1 className={css.title}>{title}</h1>
      <div className={css.cards}>
        {clients.map((c) => (
          <Link
            key={c.id}
            to={`/clients/${c.id}/week`}
            className={c.today ? clsx(css.clientCard, css.today) : css.clientCard}
          >
            <Slice geometry={right} view={c.slice} size={152} places={1} unit="effective sets" />
            <span className={css.clientCardText}>
              <span className={css.clientCardName}>{c.name}</span>
              <span className={css.clientCardWish}>{c.wish}</span>
              {c.first ? (
                <span className={css.clientCardMost}>{c.first}</span>
              ) : (
                c.most && <span className={css.clientCardMost}>most for {c.most}</span>
              )}
              <span className={css.clientCardWhen}>
                {c.when}
                {c.minutes > 0 && ` · ${Math.round(c.minutes)} min`} · {c.room}
              </span>
              <span className={css.clientCardState}>
                {c.trained}
                {!c.screened && <b className="warn"> · not screened</b>}
                {c.screened && c.blocked && <b className="warn"> · no sheet: see the dossier</b>}
                {c.findings > 0 && (
                  <b className="warn"> · {c.findings === 1 ? '1 finding' : `${c.findings} findings`}</b>
                )}
              </span>
            </span>
          </Link>
        ))}
      </div>
    </section>
  )
}

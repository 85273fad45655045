import { Button, Checkbox } from 'antd'
import { useState } from 'react'
import { api, got, type IssuesView } from '../../api/client'
import { useSending } from '../../api/sending'
import { momentWords } from '../../ui/when'
import { useMe } from '../../app/me'
import { message } from '../../ui/tell'
import css from './editing.module.css'
import { useWrite } from '../../api/useWrite'

const linkDays = 28

/** Links are the addresses by which the client reads what was issued: made, shown once, ended. */
export function Links({
  client,
  links,
  locked,
  changed,
}: {
  client: string
  links: IssuesView['links']
  locked: boolean
  changed: () => void
}) {
  const fresh = useSending()
  const [link, setLink] = useState('')
  const [mayLog, setMayLog] = useState(false)
  const { run: once, why } = useWrite(async (what: () => Promise<string>) => {
    setLink(await what())
    changed()
  })
  const me = useMe().data
  const make = (letter?: boolean) =>
    once(async () => {
      const body = { days: linkDays, may_log: mayLog, ...(letter && { letter }) }
      const made = await got(
        api.POST('/clients/{client}/links', { params: { path: { client } }, body: { id: fresh.idOf(body), ...body } }),
      )
      fresh.kept()
      if (letter) message.success('A letter with the link is on its way to the client.')
      return made.path && location.origin + made.path
    })
  const end = (which: string) =>
    once(async () => {
      await got(api.DELETE('/clients/{client}/links/{link}', { params: { path: { client, link: which } } }))
      return ''
    })
  const open = links.filter((l) => l.state === 'open')
  return (
    <>
      <p className={css.issuingLine}>
        {open.length === 0
          ? 'The client has no link that opens.'
          : open.map((l) => (
              <span key={l.id}>
                A link{l.may_log && ' that logs'}, until {momentWords(l.expires)}:{' '}
                {l.opened === 0
                  ? 'not opened yet'
                  : `opened ${l.opened === 1 ? 'once' : `${l.opened} times`}, last ${momentWords(l.opened_at!)}`}{' '}
                {!locked && (
                  <button type="button" className="link" onClick={() => void end(l.id)}>
                    End it
                  </button>
                )}
              </span>
            ))}
        {!locked && (
          <Button size="small" onClick={() => void make()}>
            Make a link for {linkDays} days
          </Button>
        )}
        {!locked && (
          <Checkbox checked={mayLog} onChange={(e) => setMayLog(e.target.checked)}>
            She may log with it
          </Checkbox>
        )}
        {!locked && me?.letters && (
          <Button size="small" onClick={() => void make(true)}>
            Send it by letter
          </Button>
        )}
      </p>
      {link && (
        <p className={css.issuingLine}>
          <span className={css.issuingLink}>{link}</span>
          <Button size="small" onClick={() => void navigator.clipboard?.writeText(link)}>
            Copy
          </Button>
          <span className="caveat">It is shown once: send it now.</span>
        </p>
      )}
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
    </>
  )
}

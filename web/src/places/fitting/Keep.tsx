import { touched } from '../../api/queries'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Input, Popover } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, type Worn } from '../../api/client'
import { useSending } from '../../api/sending'
import { useMe } from '../../app/me'
import css from './fitting.module.css'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

/** Keep keeps what is worn under a name of the studio's, or opens it as a movement of the studio's own. */
export function Keep({ worn, refused }: { worn: Worn; refused: boolean }) {
  const me = useMe()
  const cache = useQueryClient()
  const navigate = useNavigate()
  const [open, setOpen] = useState(false)
  const [name, setName] = useState('')
  const fresh = useSending()
  const { run: keep } = useWrite(
    async () => {
      const body = { name, movement: worn.movement, settings: worn.settings }
      await got(api.PUT('/own/set-ups/{set_up}', { params: { path: { set_up: fresh.idOf(body) } }, body }))
      fresh.kept()
      touched(cache, ['own'])
      message.success(`Saved as “${name.trim()}”: in the Library and wherever a movement is picked.`)
      setOpen(false)
      setName('')
    },
    (p) => message.error(p.words),
  )
  if (!me.data?.may_plan) return null
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={setOpen}
      title="Save as ours"
      content={
        <div className={css.keep}>
          <Input
            autoFocus
            aria-label="Name of the set-up"
            placeholder="What you call it"
            maxLength={60}
            value={name}
            onChange={(e) => setName(e.target.value)}
            onPressEnter={() => name.trim() && void keep()}
          />
          <Button type="primary" disabled={!name.trim() || refused} onClick={() => void keep()}>
            Save the set-up
          </Button>
          <Button
            disabled={!name.trim()}
            onClick={() =>
              navigate('/library/ours/new', { state: { movement: worn.movement, settings: worn.settings, name } })
            }
          >
            Make it a movement of ours …
          </Button>
        </div>
      }
    >
      <Button>Save</Button>
    </Popover>
  )
}

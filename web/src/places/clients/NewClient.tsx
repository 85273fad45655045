import { useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got } from '../../api/client'
import { touched } from '../../api/queries'
import { useSending } from '../../api/sending'
import css from './wall.module.css'
import { useWrite } from '../../api/useWrite'

/** NewClient begins a dossier with a name. */
export function NewClient() {
  const navigate = useNavigate()
  const cache = useQueryClient()
  const [name, setName] = useState('')
  const fresh = useSending()
  const { run: add, why } = useWrite(async () => {
    const id = fresh.idOf(name)
    await got(api.POST('/clients', { body: { id, name } }))
    fresh.kept()
    touched(cache, ['clients'])
    void navigate(`/clients/${id}/dossier`)
  })
  return (
    <form
      className={css.newClient}
      onSubmit={(e) => {
        e.preventDefault()
        void add()
      }}
    >
      <Input
        autoFocus
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

import { useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, problemOf } from '../../api/client'
import { touched } from '../../api/queries'
import { useSending } from '../../api/sending'
import css from './wall.module.css'

/** NewClient begins a dossier with a name. */
export function NewClient() {
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

import { queries } from '../../api/queries'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Button, Checkbox, Input } from 'antd'
import { useDeferredValue, useState } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import { api, got } from '../../api/client'
import { Missing } from '../../ui/Failed'
import type { Begun } from '../../api/client'
import { useCatalogue, useMe } from '../../app/me'
import { Waiting } from '../../ui/Waiting'
import { BiasBars } from '../../figures/BiasBars'
import { Ribbon } from '../../figures/Ribbon'
import { Slice } from '../../figures/Slice'
import css from './library.module.css'
import { message } from '../../ui/tell'
import { useWrite } from '../../api/useWrite'

interface Entry {
  id: string
  text: string
  version: number
  retired: boolean
}

/**
 * OwnMovement is one movement of the studio's own under the pen: the entry on the left, what it comes to in the
 * margin.
 */
export function OwnMovement() {
  const { own: id = 'new' } = useParams()
  const begun = useLocation().state as Begun | null
  const isNew = id === 'new'
  const kept = useQuery({ ...queries.own(), enabled: !isNew })
  const text = useQuery({ ...queries.ownText(begun), enabled: isNew && begun !== null })
  // It is edited as it was when it was opened.
  const [entry, setEntry] = useState<Entry | null>(null)
  const found = isNew
    ? text.data && { ...text.data, version: 0, retired: false }
    : kept.data?.movements.find((m) => m.id === id)
  if (!entry && found) setEntry(found)
  if (isNew ? !begun : kept.data && !found) return <Missing />
  if (!entry) return <Waiting query={isNew ? text : kept} />
  return <Editor key={entry.id} entry={entry} />
}

function Editor({ entry }: { entry: Entry }) {
  const { right } = useCatalogue()
  const me = useMe()
  const cache = useQueryClient()
  const navigate = useNavigate()
  const [text, setText] = useState(entry.text)
  const [retired, setRetired] = useState(entry.retired)
  const asked = useDeferredValue(text)
  const check = useQuery({ ...queries.checkOwn(entry.id, asked), enabled: !!me.data?.may_plan })
  const faults = check.data?.faults ?? []
  const view = check.data?.view
  const { run: save } = useWrite(
    async () => {
      await got(
        api.PUT('/own/movements/{movement}', {
          params: { path: { movement: entry.id } },
          body: { text, retired, version: entry.version },
        }),
      )
      await cache.invalidateQueries()
      message.success('Kept.')
      void navigate('/library/ours')
    },
    (p) => message.error(`${p.words} What you typed stays.`, 8),
  )
  return (
    <div className={css.ours}>
      <main className={css.oursMain}>
        <h1>{view?.title ?? entry.id}</h1>
        <Input.TextArea
          className={css.oursText}
          aria-label="The movement, as an entry of the catalogue"
          autoSize={{ minRows: 18 }}
          maxLength={20000}
          spellCheck={false}
          value={text}
          readOnly={!me.data?.may_plan}
          onChange={(e) => setText(e.target.value)}
        />
        {me.data?.may_plan && (
          <div className={css.oursTools}>
            <Button type="primary" disabled={faults.length > 0} onClick={() => void save()}>
              Save it
            </Button>
            <Button onClick={() => navigate('/library/ours')}>Leave it</Button>
            {entry.version > 0 && (
              <Checkbox checked={retired} onChange={(e) => setRetired(e.target.checked)}>
                retired: no longer offered
              </Checkbox>
            )}
          </div>
        )}
      </main>
      <aside className="margin" aria-label="What the tool says">
        <h2>{faults.length > 0 ? 'What does not read' : 'What it does'}</h2>
        {faults.map((f) => (
          <div key={`${f.line}${f.field}${f.reason}`} className="finding warn" role="status">
            line {f.line}: <b>{f.field}</b> {f.reason}
          </div>
        ))}
        {view && faults.length === 0 && (
          <>
            <Slice geometry={right} view={view.slice} size={122} />
            {view.ribbon && <Ribbon geometry={view.ribbon} width={270} height={30} />}
            <BiasBars bias={view.bias} graded={!view.computed} />
            {view.cautions.map((c) => (
              <div key={c} className="finding warn">
                {c}
              </div>
            ))}
          </>
        )}
      </aside>
    </div>
  )
}

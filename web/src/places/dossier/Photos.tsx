import { poseWords } from '../../ui/poses'
import { DayField } from '../../ui/DayField'
import { Button, Select } from 'antd'
import { useRef, useState } from 'react'
import { sendFile, type MeasuresView } from '../../api/client'
import { useSending } from '../../api/sending'
import leavesCss from '../../ui/leaves.module.css'
import css from './measures.module.css'
import { useWrite } from '../../api/useWrite'

interface Props {
  client: string
  view: MeasuresView
  keep: (v: MeasuresView) => void
  today: string
  mayDrop: boolean
}

/** Photos are the client's pictures by pose; only the studio sees them. */
export function Photos({ client, view, keep, today, mayDrop }: Props) {
  const [pose, setPose] = useState('front_bent')
  const [on, setOn] = useState(today)
  const [large, setLarge] = useState<string | null>(null)
  const photo = useSending()
  const file = useRef<HTMLInputElement>(null)
  const url = (id: string, thumb: boolean) => `/api/clients/${client}/photos/${id}${thumb ? '?thumb=true' : ''}`
  const {
    run: answer,
    problem,
    busy,
  } = useWrite(async (request: () => Promise<MeasuresView>) => {
    keep(await request())
    photo.kept()
  })
  const why =
    problem &&
    (problem.away
      ? `Not saved: ${problem.message} Choose the picture again when it is back.`
      : `Not saved: ${problem.words}`)
  const add = (picture: File) => {
    const body = new FormData()
    const id = photo.idOf([on, pose, picture.name, picture.size, picture.lastModified])
    for (const [k, v] of Object.entries({ id, on, pose })) body.append(k, v)
    body.append('photo', picture)
    void answer(() => sendFile<MeasuresView>('POST', `/clients/${client}/photos`, body))
  }
  return (
    <section className={leavesCss.leaf} aria-label="Photos">
      <h2>Photos</h2>
      <div className={css.photosAdd}>
        <Select
          aria-label="Pose"
          value={pose}
          onChange={setPose}
          options={Object.entries(poseWords).map(([value, label]) => ({ value, label }))}
        />
        <DayField label="Taken on" needed max={today} value={on} set={(day) => setOn(day ?? today)} />
        <input
          ref={file}
          type="file"
          hidden
          accept="image/jpeg,image/png"
          aria-label="Photo file"
          onChange={(e) => {
            if (e.target.files?.[0]) add(e.target.files[0])
            e.target.value = ''
          }}
        />
        <Button onClick={() => file.current?.click()} loading={busy}>
          {busy ? 'sending …' : 'Add a photo'}
        </Button>
        <span className="caveat">
          JPEG or PNG, up to 25 MB. Place, time and device are taken out; only the studio sees it; never in an export
          unless asked.
        </span>
      </div>
      {why && (
        <p className="fault" role="alert">
          {why}
        </p>
      )}
      <div className={css.photos}>
        {view.photos.map((p) => (
          <figure key={p.id}>
            <button
              type="button"
              aria-label={`${poseWords[p.pose]}, ${p.on}: ${large === p.id ? 'smaller' : 'larger'}`}
              onClick={() => setLarge(large === p.id ? null : p.id)}
            >
              <img
                src={url(p.id, large !== p.id)}
                alt={`${poseWords[p.pose]}, ${p.on}`}
                className={large === p.id ? css.large : undefined}
              />
            </button>
            <figcaption>
              {poseWords[p.pose]}, {p.on}
              {mayDrop && (
                <button
                  type="button"
                  className="link away"
                  onClick={() => {
                    if (confirm('Delete this photo for good? It cannot be brought back.'))
                      void answer(() => sendFile<MeasuresView>('DELETE', `/clients/${client}/photos/${p.id}`))
                  }}
                >
                  delete
                </button>
              )}
            </figcaption>
          </figure>
        ))}
      </div>
    </section>
  )
}

import { useQueryClient } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, type CourseShown, type TrendView } from '../../api/client'
import { touched } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { Arm, type Side } from './Arm'
import css from './trend.module.css'

/** Leading leads up to a set-up again that a joint does not like: where it stands, to be stopped, or how it is begun. */
export function Leading({ client, course, sites }: { client: string; course: CourseShown; sites: TrendView['sites'] }) {
  const cache = useQueryClient()
  const [open, setOpen] = useState(false)
  const [joint, setJoint] = useState(sites[0]?.id ?? '')
  const [side, setSide] = useState<Side>('right')
  const changed = () => touched(cache, ['decisions'])
  const begin = useWrite(async () => {
    await got(
      api.POST('/clients/{client}/tolerance', {
        params: { path: { client } },
        body: { id: uuidv7(), series: course.key, joint, side },
      }),
    )
    setOpen(false)
    changed()
  })
  const stop = useWrite(async () => {
    await got(api.DELETE('/clients/{client}/tolerance/{plan}', { params: { path: { client, plan: course.led_id } } }))
    changed()
  })
  if (course.led)
    return (
      <p className={css.watching}>
        {course.led}{' '}
        <button type="button" className="link" disabled={stop.busy} onClick={() => void stop.run()}>
          Stop leading up to it
        </button>
      </p>
    )
  if (!open)
    return (
      <button type="button" className="link" onClick={() => setOpen(true)}>
        Lead up to it for a joint
      </button>
    )
  return (
    <form
      className={css.leading}
      onSubmit={(e) => {
        e.preventDefault()
        void begin.run()
      }}
    >
      <p>
        From a load without pain: reps first, then load, a step only after at most 3 of 10 while it is done and a quiet
        next morning. At most twelve weeks; twice a step back ends it.
      </p>
      <Select
        aria-label="For which joint"
        size="small"
        value={joint}
        onChange={setJoint}
        options={sites.map((s) => ({ value: s.id, label: s.words }))}
      />{' '}
      <Arm label="Which side" value={side} set={setSide} />{' '}
      <Button size="small" type="primary" htmlType="submit" disabled={begin.busy}>
        Begin
      </Button>{' '}
      <Button size="small" type="text" onClick={() => setOpen(false)}>
        Leave it
      </Button>
      {begin.why && (
        <p className="fault" role="alert">
          Not begun: {begin.why}
        </p>
      )}
      <p className="caveat">No diagnosis: what stays sore is looked at by a clinician.</p>
    </form>
  )
}

import { useQueryClient } from '@tanstack/react-query'
import { Button, Checkbox, Form, Input, Radio } from 'antd'
import { Link } from 'react-router'
import { api, got, type Me } from '../../api/client'
import { useWrite } from '../../api/useWrite'
import { readDates } from '../../app/dates'
import { accountNow, openFor, startAfresh } from '../../app/kept'
import { Door } from './Door'
import css from './signin.module.css'

interface Typed {
  email: string
  password: string
  code?: string
  studio?: string
  own_device?: boolean
}

/** useArrived lets somebody in who is signed in now; nothing of whoever was here before is left. */
export function useArrived() {
  const cache = useQueryClient()
  return (me: Me) => {
    const before = accountNow()
    openFor(me.id)
    readDates(me.dates)
    if (before && before !== me.id) return startAfresh()
    cache.removeQueries({ predicate: (q) => !['me', 'front'].includes(q.queryKey[0] as string) })
    cache.setQueryData(['me'], me)
  }
}

/** SignIn keeps what was typed, whatever the answer; the address stays, so that one lands where one wanted to go. */
export function SignIn({ why = '' }: { why?: string }) {
  const arrived = useArrived()
  const [form] = Form.useForm<Typed>()
  const {
    run: signIn,
    problem,
    busy,
  } = useWrite(async (body: Typed) => {
    arrived(await got(api.POST('/sign-in', { body })))
  })
  const asks = problem?.ask
  return (
    <Door title="Sign in">
      <Form form={form} layout="vertical" requiredMark={false} onFinish={(v) => void signIn(v)}>
        <Form.Item label="E-mail" name="email" rules={[{ required: true, message: 'Your e-mail address, please' }]}>
          <Input type="email" autoComplete="username" autoFocus size="large" />
        </Form.Item>
        <Form.Item label="Password" name="password" rules={[{ required: true, message: 'Your password, please' }]}>
          <Input.Password autoComplete="current-password" size="large" />
        </Form.Item>
        {asks?.needs === 'code' && (
          <Form.Item label="The six digits of the authenticator, or a recovery code" name="code">
            <Input autoComplete="one-time-code" inputMode="text" autoFocus size="large" />
          </Form.Item>
        )}
        {asks?.needs === 'studio' && (
          <Form.Item label="Which studio?" name="studio">
            <Radio.Group options={asks.options?.map((o) => ({ value: o.value, label: o.words }))} />
          </Form.Item>
        )}
        <Form.Item name="own_device" valuePropName="checked">
          <Checkbox>This is my own device: stay signed in for 30 days</Checkbox>
        </Form.Item>
        <p className="fault" role="alert">
          {problem ? problem.message : why}
        </p>
        <Button type="primary" htmlType="submit" size="large" block loading={busy}>
          Sign in
        </Button>
      </Form>
      <p className={css.more}>
        <Link to="/forgotten">Forgotten the password?</Link>
      </p>
    </Door>
  )
}

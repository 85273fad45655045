import { Button, Form, Input } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, got } from '../../api/client'
import { useWrite } from '../../api/useWrite'
import { Door } from './Door'
import css from './signin.module.css'

/** Forgotten asks for a letter with a link to a new password; what it says is the same for every address. */
export function Forgotten() {
  const [to, setTo] = useState('')
  const { run, why, busy } = useWrite(async ({ email }: { email: string }) => {
    await got(api.POST('/forgotten', { body: { email } }))
    setTo(email)
  })
  return (
    <Door title="A new password">
      {to ? (
        <p role="status">
          If somebody signs in with {to}, a letter is on its way there. Its link opens once, within half an hour.
        </p>
      ) : (
        <Form layout="vertical" requiredMark={false} onFinish={(v: { email: string }) => void run(v)}>
          <Form.Item label="E-mail" name="email" rules={[{ required: true, message: 'Your e-mail address, please' }]}>
            <Input type="email" autoComplete="username" autoFocus size="large" />
          </Form.Item>
          <p className="fault" role="alert">
            {why}
          </p>
          <Button type="primary" htmlType="submit" size="large" block loading={busy}>
            Send me a letter
          </Button>
        </Form>
      )}
      <p className={css.more}>
        <Link to="/">Back to signing in</Link>
      </p>
    </Door>
  )
}

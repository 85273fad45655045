import { useQueryClient } from '@tanstack/react-query'
import { Button, Form, Input } from 'antd'
import { api, got } from '../../api/client'
import { accountNow, openFor, startAfresh } from '../../app/kept'
import css from './signin.module.css'
import { useWrite } from '../../api/useWrite'

/** SignIn keeps what was typed, whatever the answer; the address stays, so that one lands where one wanted to go. */
export function SignIn() {
  const cache = useQueryClient()
  const {
    run: signIn,
    why: fault,
    busy,
  } = useWrite(async (body: { email: string; password: string }) => {
    const me = await got(api.POST('/sign-in', { body }))
    const before = accountNow()
    openFor(me.id)
    if (before && before !== me.id) return startAfresh() // nothing of who was here before
    cache.removeQueries({ predicate: (q) => q.queryKey[0] !== 'me' })
    cache.setQueryData(['me'], me)
  })
  return (
    <main className={css.signin}>
      <div className={css.card}>
        <h1>Musculus</h1>
        <p>What a set-up does to each head of the arm, and what follows for a session.</p>
        <Form layout="vertical" requiredMark={false} onFinish={signIn}>
          <Form.Item label="E-mail" name="email" rules={[{ required: true, message: 'Your e-mail address, please' }]}>
            <Input type="email" autoComplete="username" autoFocus size="large" />
          </Form.Item>
          <Form.Item label="Password" name="password" rules={[{ required: true, message: 'Your password, please' }]}>
            <Input.Password autoComplete="current-password" size="large" />
          </Form.Item>
          <p className="fault" role="alert">
            {fault}
          </p>
          <Button type="primary" htmlType="submit" size="large" block loading={busy}>
            Sign in
          </Button>
        </Form>
      </div>
    </main>
  )
}

import { useQuery } from '@tanstack/react-query'
import { Button, Form, Input } from 'antd'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { api, got, Problem, type OnceView } from '../../api/client'
import { queries } from '../../api/queries'
import { useWrite } from '../../api/useWrite'
import { Door } from './Door'
import { useArrived } from './SignIn'
import css from './signin.module.css'

const roles: Record<string, string> = { owner: 'an owner', coach: 'a coach', assistant: 'an assistant' }

/** Once is a link that opens once: an invitation, a new password, the first owner of an installation. */
export function Once() {
  const { token = '' } = useParams()
  const once = useQuery(queries.once(token))
  if (once.error)
    return (
      <Door title="This link does not open">
        <p role="alert">{once.error instanceof Problem ? once.error.words : 'Something went wrong.'}</p>
        <p className={css.more}>
          <Link to="/">To signing in</Link> · <Link to="/forgotten">Forgotten the password?</Link>
        </p>
      </Door>
    )
  if (!once.data) return <Door title="One moment …">{null}</Door>
  return once.data.kind === 'password' ? (
    <NewPassword token={token} email={once.data.email} />
  ) : (
    <Join token={token} once={once.data} />
  )
}

function NewPassword({ token, email }: { token: string; email: string }) {
  const [done, setDone] = useState(false)
  const { run, problem, busy } = useWrite(async ({ password }: { password: string }) => {
    await got(api.POST('/once/{token}/password', { params: { path: { token } }, body: { password } }))
    setDone(true)
  })
  if (done)
    return (
      <Door title="A new password">
        <p role="status">It is set, and every sign-in with the old one is over.</p>
        <p className={css.more}>
          <Link to="/">Sign in</Link>
        </p>
      </Door>
    )
  return (
    <Door title="A new password">
      <Form
        layout="vertical"
        requiredMark={false}
        initialValues={{ email }}
        onFinish={(v: { password: string }) => void run(v)}
      >
        <Form.Item label="For" name="email">
          <Input type="email" autoComplete="username" readOnly size="large" />
        </Form.Item>
        <Password fault={problem?.words ?? ''} />
        <Button type="primary" htmlType="submit" size="large" block loading={busy}>
          Set it
        </Button>
      </Form>
    </Door>
  )
}

/** Password is a new one, with what is wrong with it at its place. */
function Password({ fault }: { fault: string }) {
  return (
    <Form.Item
      label="A new password"
      name="password"
      extra="At least 12 characters; several words are easy to keep in mind."
      validateStatus={fault ? 'error' : undefined}
      help={fault || undefined}
      rules={[{ required: true, message: 'A password, please' }]}
    >
      <Input.Password autoComplete="new-password" size="large" />
    </Form.Item>
  )
}

interface Joining {
  studio?: string
  email?: string
  name: string
  password: string
  code?: string
}

function Join({ token, once }: { token: string; once: OnceView }) {
  const arrived = useArrived()
  const navigate = useNavigate()
  const first = once.kind === 'first'
  const { run, problem, busy } = useWrite(async (typed: Joining) => {
    const zone = first ? Intl.DateTimeFormat().resolvedOptions().timeZone : undefined
    arrived(await got(api.POST('/once/{token}', { params: { path: { token } }, body: { ...typed, zone } })))
    void navigate(first ? '/studio' : '/today')
  })
  const at = (field: string) => problem?.faults.find((f) => f.field === field)?.reason ?? ''
  const item = (field: string) => ({
    validateStatus: at(field) ? ('error' as const) : undefined,
    help: at(field) || undefined,
  })
  return (
    <Door title={first ? 'Begin a studio' : `Join ${once.studio}`}>
      <p>
        {first
          ? 'You are the first here: name the studio and yourself. You are its owner and let in whom you like.'
          : `You are asked to be ${roles[once.role] ?? once.role}.`}
        {once.known && ' You sign in with this address already: your own password opens it.'}
      </p>
      <Form
        layout="vertical"
        requiredMark={false}
        initialValues={{ email: once.email }}
        onFinish={(v: Joining) => void run(v)}
      >
        {first && (
          <Form.Item label="The studio’s name" name="studio" {...item('studio')}>
            <Input autoFocus maxLength={80} size="large" />
          </Form.Item>
        )}
        <Form.Item label="E-mail" name="email" {...item('email')}>
          <Input type="email" autoComplete="username" readOnly={!first} size="large" />
        </Form.Item>
        <Form.Item
          label="Your name"
          name="name"
          {...item('name')}
          rules={[{ required: true, message: 'A name, please' }]}
        >
          <Input autoComplete="name" autoFocus={!first} maxLength={80} size="large" />
        </Form.Item>
        {once.known ? (
          <Form.Item label="Your password" name="password">
            <Input.Password autoComplete="current-password" size="large" />
          </Form.Item>
        ) : (
          <Password fault={at('password')} />
        )}
        {problem?.ask?.needs === 'code' && (
          <Form.Item label="The six digits of the authenticator, or a recovery code" name="code">
            <Input autoComplete="one-time-code" size="large" />
          </Form.Item>
        )}
        {problem && problem.faults.length === 0 && (
          <p className="fault" role="alert">
            {problem.message}
          </p>
        )}
        <Button type="primary" htmlType="submit" size="large" block loading={busy}>
          {first ? 'Begin' : 'Join'}
        </Button>
      </Form>
    </Door>
  )
}

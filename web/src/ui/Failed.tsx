import { Button } from 'antd'
import { Problem } from '../api/client'
import { Missing } from '../app/Soon'

/** Failed says what kept something from being shown; only what is not there is missing. */
export function Failed({ error, again }: { error: unknown; again?: () => void }) {
  if (error instanceof Problem && error.status === 404) return <Missing />
  return (
    <main className="soon">
      <h1>This cannot be shown</h1>
      <p role="alert">
        {error instanceof Problem ? error.words : 'Something on this page went wrong. Nothing that was saved is lost.'}
      </p>
      {again && (
        <p>
          <Button onClick={again}>Try again</Button>
        </p>
      )}
    </main>
  )
}

import { useState, type ReactNode } from 'react'

/** Once is said until it was read on this device, and never again; of names what it is about. */
export function Once({ of, children }: { of: string; children: ReactNode }) {
  const key = `musculus-said-${of}`
  const [read, setRead] = useState(() => localStorage.getItem(key) !== null)
  if (read) return null
  return (
    <p className="once" role="note">
      {children}{' '}
      <button
        type="button"
        className="link"
        onClick={() => {
          localStorage.setItem(key, 'read')
          setRead(true)
        }}
      >
        I have read it
      </button>
    </p>
  )
}

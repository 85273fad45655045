interface Props {
  what: string
  locked: boolean
  set: (locked: boolean) => void
}

/** Lock holds something against fixes, drafts and slips of the hand; open, it shows only where it is needed. */
export function Lock({ what, locked, set }: Props) {
  return (
    <button
      type="button"
      className={locked ? 'lock shut' : 'lock'}
      aria-pressed={locked}
      aria-label={`Lock ${what}`}
      title={locked ? 'Locked: no fix and no draft touches it. Unlock it' : 'Lock it: no fix and no draft touches it'}
      onClick={() => set(!locked)}
    >
      <svg viewBox="0 0 12 14" width={11} height={13} aria-hidden>
        <path
          d={locked ? 'M3 6V4a3 3 0 0 1 6 0v2' : 'M3 6V4a3 3 0 0 1 5.6-1.5'}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.5}
        />
        <rect
          x={1}
          y={6}
          width={10}
          height={7.4}
          fill={locked ? 'currentColor' : 'none'}
          stroke="currentColor"
          strokeWidth={1.3}
        />
      </svg>
    </button>
  )
}

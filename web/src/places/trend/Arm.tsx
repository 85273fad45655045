import { Segmented } from 'antd'

export type Side = 'left' | 'right'

/** Arm asks for one of the two. */
export function Arm({ label, value, set }: { label: string; value: Side; set: (side: Side) => void }) {
  return (
    <Segmented
      aria-label={label}
      size="small"
      value={value}
      onChange={set}
      options={[
        { value: 'left', label: 'left' },
        { value: 'right', label: 'right' },
      ]}
    />
  )
}

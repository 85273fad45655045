import { DatePicker } from 'antd'
import dayjs from 'dayjs'
import { typedDays } from './when'
import css from './field.module.css'

interface Props {
  label: string
  /** the day as it is kept, null for none */
  value: string | null
  set: (day: string | null) => void
  min?: string
  max?: string
  disabled?: boolean
  /** a day must stand there */
  needed?: boolean
  wrong?: boolean
}

/** DayField is a day that is picked or typed, written as days are written everywhere. */
export function DayField({ label, value, set, min, max, disabled, needed, wrong }: Props) {
  return (
    <DatePicker
      aria-label={label}
      className={css.dayField}
      variant="underlined"
      size="small"
      format={typedDays()}
      placeholder="a day"
      allowClear={!needed}
      suffixIcon={null}
      disabled={disabled}
      status={wrong ? 'error' : undefined}
      value={value ? dayjs(value) : null}
      minDate={min ? dayjs(min) : undefined}
      maxDate={max ? dayjs(max) : undefined}
      onChange={(d) => {
        const next = d ? d.format('YYYY-MM-DD') : null
        if (next !== value && (next || !needed)) set(next)
      }}
    />
  )
}

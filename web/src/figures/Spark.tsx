import css from './course.module.css'
/** Spark is a small course of scores from 0 to most, the latest at the right. */
export function Spark({
  values,
  most,
  text,
  width = 62,
  height = 18,
}: {
  values: number[]
  most: number
  text: string
  width?: number
  height?: number
}) {
  const x = (i: number) => 2 + (i / Math.max(values.length - 1, 1)) * (width - 4)
  const y = (v: number) => height - 2 - (v / most) * (height - 4)
  return (
    <svg className={css.spark} width={width} height={height} role="img" aria-label={text}>
      <line x1="0" x2={width} y1={y(3)} y2={y(3)} className={css.sparkLine} />
      <polyline points={values.map((v, i) => `${x(i)},${y(v)}`).join(' ')} />
      <circle cx={x(values.length - 1)} cy={y(values[values.length - 1]!)} r="2.2" />
    </svg>
  )
}

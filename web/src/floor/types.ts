import type { components } from '../api/schema'

type Schemas = components['schemas']
export type Ready = Schemas['ReadyView']
export type ReadySlot = Schemas['ReadySlot']
export type ReadyRow = Schemas['ReadyRow']
export type Done = Schemas['DoneView']
export type Event = Schemas['EventTold']
export type SetTold = Schemas['SetTold']
export type Part = Schemas['Part']
export type Stage = Schemas['Stage']
export type Move = Schemas['Move']
export type State = Schemas['State']
export type Try = Schemas['PainTry']
export type OnFloor = Schemas['OnFloor']
export type Around = Schemas['AroundView']
export type Told = Schemas['ToldAnswer']
export type SetUpAt = Schemas['SetUpAt']
export type Side = SetTold['side']
export type Leave = Schemas['Leave']

/** What is told, before the device adds its id, count and clock. */
export type Content = Omit<Event, 'id' | 'no' | 'at' | 'offset_ms' | 'version'>
/** Tell keeps and sends what is told; '' where it cannot be kept. */
export type Tell = (content: Content) => Promise<string>

/** Done sets as the floor reads them, whether the server has them yet or not. */
export interface SetHere {
  id: string
  slot: string
  side: Side
  setNo: number
  reps: number
  wholeKg: number
  reserve: number
  technical: boolean
  parts: Part[]
  faults: string[]
  note: string
  at: number // ms, by the server's clock
  by: string
  ask: string
  twice: boolean
  title: string
  waiting: boolean // on this device only
}

/** What was told beside sets. */
export interface Here {
  id: string
  kind: string
  at: number
  by: string
  pain?: Schemas['PainTold']
  left_out?: Schemas['LeftOut']
  swap?: Schemas['Swap']
  paired?: Schemas['Paired']
  end?: Schemas['End']
  line?: string
}

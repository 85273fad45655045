// The one hand-written file of this folder: the client, its error and the
// names screens use for the generated types.
import createClient from 'openapi-fetch'
import { datesOf, turned } from '../app/dates'
import { accountNow } from '../app/kept'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Me = Schemas['Me']
export type FrontView = Schemas['FrontView']
export type OnceView = Schemas['OnceView']
export type PeopleView = Schemas['PeopleView']
export type ColleagueView = Schemas['ColleagueView']
export type SignInView = Schemas['SignInView']
export type HeadView = Schemas['HeadView']
export type SliceView = Schemas['SliceView']
export type Slice = Schemas['Slice']
export type Ribbon = Schemas['Ribbon']
export type Pose = Schemas['Pose']
/** Drawn is a set-up that a figure is asked for. */
export type Drawn = Schemas['DrawnInput']
export type Card = Schemas['Card']
export type CloseUp = Schemas['CloseUp']
export type Handle = Schemas['Handle']
export type Glyph = Schemas['Glyph']
export type BiasView = Schemas['BiasView']
export type ControlView = Schemas['ControlView']
export type SetUpView = Schemas['SetUpView']
export type Catalogue = Schemas['Catalogue']
export type MovementView = Schemas['MovementView']
export type ClientCard = Schemas['ClientCard']
export type CheckInAnswer = Schemas['CheckInAnswer']
export type TodayView = Schemas['TodayView']
export type TodayPerson = Schemas['TodayPerson']
export type DueView = Schemas['DueView']
export type TrendView = Schemas['TrendView']
export type TrendWeek = Schemas['TrendWeek']
export type CourseShown = Schemas['CourseShown']
export type HeadWeeks = Schemas['HeadWeeks']
export type CoursePoint = Schemas['CoursePoint']
export type ProposalView = Schemas['ProposalView']
export type DecidedView = Schemas['DecidedView']
export type ClientView = Schemas['ClientView']
export type Knot = Schemas['Knot']
export type SessionView = Schemas['SessionView']
export type SlotView = Schemas['SlotView']
export type SlotDraft = Schemas['SlotJSON']
export type Row = Schemas['RowJSON']
export type Load = Schemas['Load']
export type Combo = Schemas['Combo']
export type ArrangeCommand = Omit<Schemas['ArrangeInputBody'], 'slots' | 'combos'>
export type Proposal = Schemas['Proposal']
export type FindingView = Schemas['FindingView']
export type Preview = Schemas['Preview']
export type SheetView = Schemas['SheetView']
export type LogView = Schemas['LogView']
export type LogSlot = Schemas['LogSlot']
export type EntryView = Schemas['EntryView']
export type LibraryEntry = Schemas['LibraryEntry']
export type Studio = Schemas['StudioView']
export type Found = Schemas['FindOutputBody']
export type OwnWordView = Schemas['OwnWordView']
export type NearView = Schemas['NearView']
export type TunedView = Schemas['TunedView']
export type Trace = Schemas['Trace']
export type FaultView = Schemas['FaultView']
export type BookView = Schemas['BookView']
export type RuleView = Schemas['RuleView']
export type TipView = Schemas['TipView']
export type HeardView = Schemas['HeardView']
export type SwitchView = Schemas['SwitchView']
export type IssuesView = Schemas['IssuesView']
export type OpenSheet = Schemas['OpenSheet']
export type ImportView = Schemas['ImportView']
export type WeekView = Schemas['WeekView']
export type TrialView = Schemas['TrialView']
export type Stills = Schemas['Stills']
export type StripView = Schemas['StripView']
export type BlockDraft = Schemas['BlockDraft']
export type WeekDraft = Schemas['WeekDraft']
export type BoardSlot = Schemas['BoardSlot']
export type DraftAsked = Schemas['DraftAsked']
export type DraftsView = Schemas['DraftsView']
export type DraftedWeek = Schemas['DraftedWeek']
export type DraftedDay = Schemas['DraftedDay']
export type DraftedSlot = Schemas['DraftedSlot']
export type DraftedHead = Schemas['DraftedHead']
export type DraftPrices = Schemas['DraftPrices']
export type KeptSlot = Schemas['KeptSlot']
export type PatternView = Schemas['PatternView']
export type NextView = Schemas['NextView']
export type AuditView = Schemas['AuditView']
export type LedgerView = Schemas['LedgerView']
export type LedgerHead = Schemas['LedgerHead']
export type AddendView = Schemas['AddendView']
export type DossierView = Schemas['DossierView']
export type DossierFields = Schemas['Dossier']
export type JointView = Schemas['JointView']
export type VerdictView = Schemas['VerdictView']
export type LoadFit = Schemas['LoadFit']
export type TryOutView = Schemas['TryOutView']
export type MeasuresView = Schemas['MeasuresView']
export type MeasuringView = Schemas['MeasuringView']
export type KindView = Schemas['KindView']
export type PointView = Schemas['PointView']
export type AnswerView = Schemas['AnswerView']
export type PrioritiesView = Schemas['PrioritiesView']
export type HeadPriority = Schemas['HeadPriority']
export type PresentView = Schemas['PresentView']
export type RoomView = Schemas['RoomView']
export type RoomForm = Schemas['RoomForm']
export type OwnSetUpView = Schemas['OwnSetUpView']

/** Begun is a movement of the studio's own as it is begun, from a set-up. */
export interface Begun {
  movement: string
  settings: Record<string, number | string>
  name: string
}

/** Worn is a set-up and who it is for. */
export interface Worn {
  movement: string
  settings: Record<string, number | string>
  client?: string
  stance?: string
}

export interface FieldFault {
  field: string
  reason: string
}

/** Clash is a field that somebody else wrote in between. */
export interface Clash {
  field: string
  now: unknown
  by: string
  at: string | null
}

/** Ask is a question that is answered by sending the same again, with the answer. */
export interface Ask {
  question: string
  field: string
  needs: 'sure' | 'reason' | 'code' | 'studio'
  options?: { value: string; words: string }[]
}

/** Problem is an answer that is none: status 0 when the server was not reached. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly faults: FieldFault[] = [],
    readonly current?: SessionView,
    readonly clashes: Clash[] = [],
    readonly ask?: Ask,
  ) {
    super(detail)
  }

  /** What to tell: what is wrong with the fields, else what went wrong as a whole. */
  get words() {
    return this.faults.map((f) => f.reason).join('; ') || this.message
  }

  /** It is asked whether it is so. */
  get asksWhether() {
    return this.ask?.needs === 'sure'
  }

  /** The server or its database is away: the same request may go through later. */
  get away() {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504
  }
}

/** timings of the last answer: when it came and how long the server took, ms. */
export interface Timed<T> {
  data: T
  serverMs: number
  at: number
}

/** reach asks the server; only when nothing comes back at all it is away. */
async function reach(input: Request | string, init?: RequestInit): Promise<Response> {
  try {
    const answer = await fetch(input, init)
    if (datesOf() === 'day_first' || !answer.headers.get('Content-Type')?.includes('json')) return answer
    const { status, statusText, headers } = answer
    return new Response(turned(await answer.text()), { status, statusText, headers })
  } catch (e) {
    if (e instanceof DOMException && e.name === 'AbortError') throw e // nobody waits for it any more
    throw new Problem(0, 'The server cannot be reached.')
  }
}

export const api = createClient<paths>({ baseUrl: '/api', credentials: 'same-origin', fetch: reach })

// The server is told whose page asks: when somebody else has signed in meanwhile, nothing is kept in their name.
const accountHeader = 'X-Account'
api.use({
  onRequest({ request }) {
    if (accountNow()) request.headers.set(accountHeader, accountNow())
  },
})

/** sendFile sends what is no JSON to an address of the API and reads a JSON answer. */
export async function sendFile<T>(method: 'POST' | 'DELETE', path: string, body?: BodyInit): Promise<T> {
  const asked = reach(`/api${path}`, {
    method,
    body,
    credentials: 'same-origin',
    headers: {
      [accountHeader]: accountNow(),
      ...(body instanceof Blob ? { 'Content-Type': 'application/octet-stream' } : {}),
    },
  })
  return got(
    asked.then(async (response) => {
      const data: unknown = await response.json().catch(() => undefined)
      return { data: response.ok ? (data as T) : undefined, error: data, response }
    }),
  )
}

/** problemOf is the problem that was thrown; anything else is an error of ours and goes on to whoever shows those. */
export function problemOf(e: unknown): Problem {
  if (e instanceof Problem) return e
  throw e
}

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

interface ProblemBody {
  detail?: string
  errors?: { location?: string; message?: string }[]
  current?: SessionView
  clashes?: Clash[]
  ask?: Ask
  instance?: string
}

/** timed waits for an answer and throws a Problem for anything that is none. */
export async function timed<T>(request: Promise<Answer<T>>): Promise<Timed<T>> {
  const answer = await request
  const { response } = answer
  if (!response.ok) {
    const body = (answer.error ?? {}) as ProblemBody
    const faults = (body.errors ?? []).map((e) => ({
      field: (e.location ?? '').replace(/^body\./, ''),
      reason: e.message ?? '',
    }))
    // What went wrong inside is found in the log by the request's id.
    const id = response.status >= 500 ? (body.instance ?? '').replace('/requests/', '') : ''
    throw new Problem(
      response.status,
      (body.detail ?? response.statusText) + (id && ` (request ${id})`),
      faults,
      body.current,
      body.clashes,
      body.ask && { ...body.ask, field: body.ask.field.replace(/^body\./, '') },
    )
  }
  const dur = /dur=([\d.]+)/.exec(response.headers.get('Server-Timing') ?? '')
  return { data: answer.data as T, serverMs: dur ? Number(dur[1]) : 0, at: performance.now() }
}

export async function got<T>(request: Promise<Answer<T>>): Promise<T> {
  return (await timed(request)).data
}

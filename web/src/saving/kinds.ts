import type { QueryClient } from '@tanstack/react-query'
import { v5 as uuidv5 } from 'uuid'
import {
  api,
  got,
  type Combo,
  type DossierFields,
  type RoomForm,
  type SessionView,
  type SlotDraft,
  type WeekDraft,
  type WeekView,
} from '../api/client'
import { keep, readKept } from '../app/kept'
import { putFresh, queries, touched } from '../api/queries'
import { sameAs, type There } from './doc'
import type { Kind } from './outbox'

/** Draft is a session as it is edited. */
export interface Draft {
  id: string
  name: string
  planned_on: string
  warm_up_min: number
  locked?: boolean
  intent?: '' | 'heavy' | 'light'
  combos?: Combo[]
  slots: SlotDraft[]
}

/** draftOf takes what is edited out of a session's view. */
export function draftOf(s: SessionView): Draft {
  return {
    id: s.id,
    name: s.name,
    planned_on: s.planned_on,
    warm_up_min: s.warm_up_min,
    intent: s.intent,
    locked: s.locked,
    combos: s.combos,
    slots: s.slots.map(({ id, movement, settings, rows, cues, cue_reason, combo, starts, locked }) => ({
      id,
      movement,
      settings,
      rows,
      cues,
      cue_reason,
      combo,
      starts,
      locked,
    })),
  }
}

/** sessionThere is a session as the server has it. */
export const sessionThere = (s: SessionView): There<Draft, number> => ({
  value: draftOf(s),
  base: s.version,
  at: s.saved_at,
  by: s.saved_by,
  says: `${s.name}, ${s.slots.map((x) => `${x.title} ${x.dose_words}`).join('; ') || 'no slots'}`,
})

export type Drafts = WeekDraft[]

/** Known is what the server has of a session of the week: its version, and what it holds; null when it is taken out. */
export type Known = Record<string, { version: number; draft: WeekDraft | null }>

/** draftsOf takes what is edited out of a week's view. */
export function draftsOf(view: WeekView): Drafts {
  return view.sessions.map(({ id, version, name, planned_on, warm_up_min, intent, locked, combos, slots }) => ({
    id,
    version,
    name,
    planned_on,
    warm_up_min,
    intent,
    locked,
    combos,
    slots,
  }))
}

/** weekThere is a week as the server has it; of what was taken out before, the version is still known. */
export function weekThere(view: WeekView, before: Known = {}): There<Drafts, Known> {
  const value = draftsOf(view)
  const base: Known = {}
  for (const [id, k] of Object.entries(before)) if (!k.draft) base[id] = k
  for (const r of view.removed) base[r.id] = { version: r.version, draft: null }
  for (const d of value) base[d.id] = { version: d.version, draft: d }
  return { value, base }
}

const content = (d: WeekDraft) => ({ ...d, version: 0, write: undefined, removed: undefined })

/**
 * changesOf lists what of a week is to be sent: sessions that differ from what the server has, and those taken out of
 * it.
 */
export function changesOf(value: Drafts, base: Known): WeekDraft[] {
  const changed = value.filter((d) => !base[d.id]?.draft || !sameAs(content(base[d.id]!.draft!), content(d)))
  const out = Object.values(base).flatMap(({ draft }) =>
    draft && !value.some((d) => d.id === draft.id) ? [{ ...draft, removed: true }] : [],
  )
  return [...changed, ...out].map((d) => ({ ...d, version: base[d.id]?.version ?? d.version }))
}

/** kindsOf are the kinds of things that are edited, with what an answer of each touches. */
export function kindsOf(client: QueryClient) {
  const session: Kind<Draft, number> = {
    name: 'session',
    quietMs: 500,
    send: async ([of = '', id = ''], doc) => {
      const saved = await got(
        api.PUT('/clients/{client}/sessions/{session}', {
          params: { path: { client: of, session: id } },
          body: { ...doc.value, version: doc.there.base, write: doc.write, sure: doc.sure || undefined },
        }),
      )
      putFresh(client, queries.session(of, id).queryKey, saved)
      touched(client, ['plan'], ['session', id])
      return { ...sessionThere(saved), value: doc.value } // what is typed stays as it is typed
    },
    theirs: (_id, p) => (p.current ? sessionThere(p.current) : null),
    left: ([, id = '']) => {
      const was = readKept<{ version: number; draft: Draft }>(localStorage, `draft 2 ${id}`)
      keep(localStorage, `draft 2 ${id}`, null)
      return was && { value: was.draft, base: was.version }
    },
    place: ([of = '', id = ''], d) => ({ path: `/clients/${of}/week/${id}`, words: d.name }),
  }
  const week: Kind<Drafts, Known> = {
    name: 'week',
    quietMs: 0,
    send: async ([of = '', from = ''], doc) => {
      const changes = changesOf(doc.value, doc.there.base)
      if (changes.length === 0) return { ...doc.there, value: doc.value }
      // Each session of a write is a write of its own; together they are the one that is sent again.
      const sessions = changes.map((d) => ({ ...d, write: uuidv5(d.id, doc.write) }))
      const view = await got(
        api.PUT('/clients/{client}/week', {
          params: { path: { client: of }, query: { of: from } },
          body: { sessions, sure: doc.sure || undefined },
        }),
      )
      putFresh(client, queries.week(of, from).queryKey, view)
      touched(client, ['plan'], ['week', of, from])
      return { ...weekThere(view, doc.there.base), at: new Date().toISOString() }
    },
    theirs: async ([of = '', from = '']) => {
      const view = await got(
        api.GET('/clients/{client}/week', { params: { path: { client: of }, query: { of: from } } }),
      )
      return {
        ...weekThere(view),
        says:
          view.sessions.map((s) => `${s.name}, ${s.board.map((b) => b.title).join('; ') || 'no slots'}`).join(' · ') ||
          'nothing planned',
      }
    },
    merge: (value, known, there) => [
      ...value,
      ...there.value.filter((d) => ![value, ...known].some((w) => w.some((x) => x.id === d.id))),
    ],
    place: ([of = '', from = '']) => ({ path: `/clients/${of}/week?of=${from}`, words: 'the week' }),
  }
  const field: Kind<unknown, unknown> = {
    name: 'field',
    quietMs: 0,
    send: async ([of = '', name = ''], doc) => {
      const view = await got(
        api.PATCH('/clients/{client}/dossier', {
          params: { path: { client: of } },
          body: { changes: [{ field: name, was: doc.there.base, value: doc.value }] },
        }),
      )
      putFresh(client, queries.dossier(of).queryKey, view)
      touched(client, ['dossier'], ['dossier', of])
      const is = view.dossier[name as keyof DossierFields] as unknown
      return { value: is, base: is }
    },
    theirs: (_id, p) =>
      p.clashes[0]
        ? { value: p.clashes[0].now, base: p.clashes[0].now, by: p.clashes[0].by, at: p.clashes[0].at ?? undefined }
        : null,
    place: ([of = '']) => ({ path: `/clients/${of}/dossier`, words: 'the dossier' }),
  }
  const room: Kind<RoomForm, string> = {
    name: 'room',
    quietMs: 0,
    send: async ([id = ''], doc) => {
      const kept = await got(
        api.PUT('/rooms/{room}', { params: { path: { room: id } }, body: { mark: doc.there.base, form: doc.value } }),
      )
      client.setQueryData(
        queries.rooms().queryKey,
        (old) => old && { ...old, rooms: old.rooms.map((r) => (r.id === id ? kept : r)) },
      )
      touched(client, ['rooms'], ['rooms'])
      return { value: kept.form, base: kept.mark }
    },
    theirs: async ([id]) => {
      const kept = (await got(api.GET('/rooms'))).rooms.find((r) => r.id === id)
      return kept ? { value: kept.form, base: kept.mark, says: kept.form.name } : null
    },
    place: (_id, form) => ({ path: '/studio', words: form.name }),
  }
  return { session, week, field, room }
}

export type Kinds = ReturnType<typeof kindsOf>

// What is read, each under one key, and what a write touches: told here once.
import { queryOptions, type QueryClient, type QueryKey } from '@tanstack/react-query'
import { api, got, Problem, type Begun, type BlockDraft, type Drawn, type Worn } from './client'
import type { Draft } from '../saving/kinds'

/**
 * asked is a reading that follows what is typed: the last answer stays up, and what is no longer asked is forgotten.
 */
const asked = { placeholderData: <T>(old: T | undefined) => old, gcTime: 0 } as const

export const queries = {
  catalogue: () =>
    queryOptions({
      queryKey: ['catalogue'],
      queryFn: ({ signal }) => got(api.GET('/catalogue', { signal })),
      staleTime: Infinity,
    }),
  front: () =>
    queryOptions({
      queryKey: ['front'],
      queryFn: ({ signal }) => got(api.GET('/front', { signal })),
      staleTime: Infinity,
    }),
  once: (token: string) =>
    queryOptions({
      queryKey: ['once', token],
      queryFn: ({ signal }) => got(api.GET('/once/{token}', { params: { path: { token } }, signal })),
      staleTime: Infinity,
    }),
  people: () => queryOptions({ queryKey: ['people'], queryFn: ({ signal }) => got(api.GET('/people', { signal })) }),
  security: () =>
    queryOptions({ queryKey: ['security'], queryFn: ({ signal }) => got(api.GET('/studio/security', { signal })) }),
  signIns: () =>
    queryOptions({ queryKey: ['sign-ins'], queryFn: ({ signal }) => got(api.GET('/me/sign-ins', { signal })) }),
  clients: () => queryOptions({ queryKey: ['clients'], queryFn: ({ signal }) => got(api.GET('/clients', { signal })) }),
  client: (client: string) =>
    queryOptions({
      queryKey: ['client', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}', { params: { path: { client } }, signal })),
    }),
  dossier: (client: string) =>
    queryOptions({
      queryKey: ['dossier', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/dossier', { params: { path: { client } }, signal })),
    }),
  measures: (client: string) =>
    queryOptions({
      queryKey: ['measures', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/measures', { params: { path: { client } }, signal })),
    }),
  present: (client: string, text: string | null) =>
    queryOptions({
      queryKey: ['present', client, text],
      queryFn: ({ signal }) =>
        got(
          api.POST('/clients/{client}/present', { params: { path: { client } }, body: { text: text ?? '' }, signal }),
        ),
      enabled: text !== null,
      ...asked,
    }),
  tryOuts: (client: string) =>
    queryOptions({
      queryKey: ['try-outs', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/try-outs', { params: { path: { client } }, signal })),
    }),
  priorities: (client: string) =>
    queryOptions({
      queryKey: ['priorities', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/priorities', { params: { path: { client } }, signal })),
    }),
  patterns: () =>
    queryOptions({ queryKey: ['patterns'], queryFn: ({ signal }) => got(api.GET('/patterns', { signal })) }),
  unplanned: () =>
    queryOptions({
      queryKey: ['unplanned'],
      queryFn: ({ signal }) => got(api.GET('/unplanned', { signal })),
      staleTime: 0,
    }),
  week: (client: string, of: string) =>
    queryOptions({
      queryKey: ['week', client, of],
      queryFn: ({ signal }) =>
        got(api.GET('/clients/{client}/week', { params: { path: { client }, query: { of } }, signal })),
      staleTime: 0,
    }),
  block: (client: string) =>
    queryOptions({
      queryKey: ['block', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/block', { params: { path: { client } }, signal })),
      staleTime: 0,
    }),
  /** blockLook is what a block would be, and what it would overwrite. */
  blockLook: (client: string, draft: BlockDraft | null) =>
    queryOptions({
      queryKey: ['block', client, 'look', JSON.stringify(draft)],
      queryFn: ({ signal }) =>
        got(api.POST('/clients/{client}/block', { params: { path: { client } }, body: draft!, signal })),
      enabled: draft !== null,
      retry: false,
      staleTime: 0,
      ...asked,
    }),
  session: (client: string, session: string | null) =>
    queryOptions({
      queryKey: ['session', session],
      queryFn: ({ signal }) =>
        got(
          api.GET('/clients/{client}/sessions/{session}', {
            params: { path: { client, session: session ?? '' } },
            signal,
          }),
        ),
      enabled: session !== null,
    }),
  sheet: (client: string, session: string | null) =>
    queryOptions({
      queryKey: ['sheet', session],
      queryFn: ({ signal }) =>
        got(
          api.GET('/clients/{client}/sessions/{session}/sheet', {
            params: { path: { client, session: session ?? '' } },
            signal,
          }),
        ),
      enabled: session !== null,
      staleTime: 0,
    }),
  /** reading is how a session reads on the sheet as it is typed; the last one stays up until the server is back. */
  reading: (client: string, session: string, draft: Draft) =>
    queryOptions({
      queryKey: ['sheet', session, JSON.stringify(draft)],
      queryFn: ({ signal }) =>
        got(
          api.POST('/clients/{client}/sessions/{session}/sheet', {
            params: { path: { client, session } },
            body: draft,
            signal,
          }),
        ),
      staleTime: 0,
      networkMode: 'always',
      retry: (_, e) => e instanceof Problem && e.away,
      retryDelay: 1500,
      ...asked,
    }),
  issues: (client: string, session: string) =>
    queryOptions({
      queryKey: ['issues', session],
      queryFn: ({ signal }) =>
        got(api.GET('/clients/{client}/sessions/{session}/issues', { params: { path: { client, session } }, signal })),
      staleTime: 0,
    }),
  compared: (client: string, session: string, was: number, is: number) =>
    queryOptions({
      queryKey: ['issues', session, 'compare', was, is],
      queryFn: ({ signal }) =>
        got(
          api.GET('/clients/{client}/sessions/{session}/issues/compare', {
            params: { path: { client, session }, query: { was, is } },
            signal,
          }),
        ),
    }),
  log: (client: string, session: string | null) =>
    queryOptions({
      queryKey: ['log', session],
      queryFn: ({ signal }) =>
        got(
          api.GET('/clients/{client}/sessions/{session}/log', {
            params: { path: { client, session: session ?? '' } },
            signal,
          }),
        ),
      enabled: session !== null,
    }),
  today: () =>
    queryOptions({
      queryKey: ['today'],
      queryFn: ({ signal }) => got(api.GET('/today', { signal })),
      staleTime: 0,
    }),
  checkIns: (client: string) =>
    queryOptions({
      queryKey: ['check-ins', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/check-ins', { params: { path: { client } }, signal })),
      staleTime: 0,
    }),
  trend: (client: string) =>
    queryOptions({
      queryKey: ['trend', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/trend', { params: { path: { client } }, signal })),
      staleTime: 0,
    }),
  trials: (client: string) =>
    queryOptions({
      queryKey: ['trials', client],
      queryFn: ({ signal }) => got(api.GET('/clients/{client}/trials', { params: { path: { client } }, signal })),
      staleTime: 0,
    }),
  partners: (client: string, body: string | null) =>
    queryOptions({
      queryKey: ['partners', client, body],
      queryFn: ({ signal }) =>
        got(
          api.POST('/clients/{client}/trials/partners', {
            params: { path: { client } },
            body: { set_up: JSON.parse(body!) as Pick<Worn, 'movement' | 'settings'> },
            signal,
          }),
        ),
      enabled: body !== null,
      ...asked,
    }),
  templates: () =>
    queryOptions({ queryKey: ['templates'], queryFn: ({ signal }) => got(api.GET('/templates', { signal })) }),
  rooms: () => queryOptions({ queryKey: ['rooms'], queryFn: ({ signal }) => got(api.GET('/rooms', { signal })) }),
  studio: () => queryOptions({ queryKey: ['studio'], queryFn: ({ signal }) => got(api.GET('/studio', { signal })) }),
  deleted: () =>
    queryOptions({
      queryKey: ['deleted'],
      queryFn: ({ signal }) => got(api.GET('/deleted-clients', { signal })),
      staleTime: 0,
    }),
  stances: () =>
    queryOptions({
      queryKey: ['stances'],
      queryFn: ({ signal }) => got(api.GET('/stances', { signal })),
      staleTime: Infinity,
    }),
  own: () => queryOptions({ queryKey: ['own'], queryFn: ({ signal }) => got(api.GET('/own', { signal })) }),
  ownText: (begun: Begun | null) =>
    queryOptions({
      queryKey: ['own-text', begun],
      queryFn: ({ signal }) => got(api.POST('/own/text', { body: begun!, signal })),
      staleTime: Infinity,
      gcTime: 0,
    }),
  checkOwn: (id: string, text: string) =>
    queryOptions({
      queryKey: ['check-own', id, text],
      queryFn: ({ signal }) => got(api.POST('/own/check', { body: { id, text }, signal })),
      ...asked,
    }),
  find: (text: string) =>
    queryOptions({
      queryKey: ['find', text],
      queryFn: ({ signal }) => got(api.GET('/find', { params: { query: { text } }, signal })),
      staleTime: Infinity,
      placeholderData: (old) => old,
    }),
  ownWords: () =>
    queryOptions({ queryKey: ['own-words'], queryFn: ({ signal }) => got(api.GET('/own/words', { signal })) }),
  library: (client?: string, stance?: string) =>
    queryOptions({
      queryKey: ['library', client, stance],
      queryFn: ({ signal }) => got(api.GET('/library', { params: { query: { client, stance } }, signal })),
      placeholderData: (old) => old,
    }),
  /** figures are those of set-ups, each by how it was asked for: after what is read, since they are many and only looked at. */
  figures: (body: string | null) =>
    queryOptions({
      queryKey: ['figures', body],
      queryFn: async ({ signal }) => {
        const asked = JSON.parse(body!) as { set_ups: Drawn[]; client?: string; stance?: string }
        const { figures } = await got(api.POST('/figures', { body: asked, signal }))
        return new Map(
          figures.flatMap((f, i) => [
            [JSON.stringify(asked.set_ups[i]), f],
            [asked.set_ups[i]!.movement, f],
          ]),
        )
      },
      enabled: body !== null,
      staleTime: Infinity,
      ...asked,
    }),
  // What is asked of one set-up: body is what was written, so that the same is asked once.
  near: (body: string) =>
    queryOptions({
      queryKey: ['near', body],
      queryFn: ({ signal }) =>
        got(api.POST('/near', { body: JSON.parse(body) as Worn & { room: boolean; clean_reps?: number }, signal })),
      staleTime: Infinity,
      ...asked,
    }),
  hints: (body: string) =>
    queryOptions({
      queryKey: ['hints', body],
      queryFn: ({ signal }) =>
        got(api.POST('/hints', { body: JSON.parse(body) as Worn & { elbow: number; pull: number }, signal })),
      staleTime: Infinity,
      ...asked,
    }),
  rep: (body: string | null) =>
    queryOptions({
      queryKey: ['rep', body],
      queryFn: ({ signal }) => got(api.POST('/rep', { body: JSON.parse(body!) as Worn & { fault?: string }, signal })),
      enabled: body !== null,
      staleTime: Infinity,
      retry: false,
      ...asked,
    }),
  look: (body: string) =>
    queryOptions({
      queryKey: ['look', body],
      queryFn: ({ signal }) => got(api.POST('/look', { body: JSON.parse(body) as Worn & { head: string }, signal })),
      staleTime: Infinity,
      ...asked,
    }),
  faults: (body: string) =>
    queryOptions({
      queryKey: ['faults', body],
      queryFn: ({ signal }) => got(api.POST('/fault-costs', { body: JSON.parse(body) as Worn, signal })),
      staleTime: Infinity,
      ...asked,
    }),
  record: (client: string, body: string) =>
    queryOptions({
      queryKey: ['record', client, body],
      queryFn: ({ signal }) =>
        got(
          api.POST('/clients/{client}/record', {
            params: { path: { client } },
            body: JSON.parse(body) as Pick<Worn, 'movement' | 'settings'>,
            signal,
          }),
        ),
      retry: false,
      ...asked,
    }),
  propose: (client: string, body: string) =>
    queryOptions({
      queryKey: ['propose', client, body],
      queryFn: ({ signal }) =>
        got(
          api.POST('/clients/{client}/propose', {
            params: { path: { client } },
            body: JSON.parse(body) as { movement: string; reps_low: number; reps_high: number; reserve: number },
            signal,
          }),
        ),
      ...asked,
    }),
}

/** Source is what a write changes. */
type Source =
  | 'plan'
  | 'decisions'
  | 'log'
  | 'dossier'
  | 'verdicts'
  | 'tryOuts'
  | 'measures'
  | 'emphasis'
  | 'issues'
  | 'templates'
  | 'rooms'
  | 'stances'
  | 'own'
  | 'studio'
  | 'clients'

/** restsOn says what each reading is made of. */
const restsOn: Record<string, Source[]> = {
  catalogue: ['own'],
  clients: ['clients', 'plan', 'log', 'dossier', 'emphasis', 'rooms', 'stances', 'own', 'studio'],
  client: ['clients', 'plan', 'log', 'dossier', 'measures', 'emphasis', 'issues', 'rooms', 'stances', 'own', 'studio'],
  dossier: ['dossier', 'verdicts', 'rooms', 'stances', 'own', 'studio'],
  measures: ['measures', 'dossier', 'studio'],
  present: ['dossier', 'rooms', 'stances', 'own'],
  'try-outs': ['tryOuts', 'own'],
  priorities: ['emphasis', 'measures', 'dossier', 'log', 'stances', 'studio'],
  week: ['plan', 'log', 'dossier', 'verdicts', 'emphasis', 'measures', 'rooms', 'stances', 'own', 'studio'],
  block: ['plan', 'log', 'dossier', 'verdicts', 'emphasis', 'rooms', 'stances', 'own', 'decisions', 'issues', 'studio'],
  session: ['plan', 'log', 'dossier', 'verdicts', 'rooms', 'stances', 'own', 'studio'],
  sheet: ['plan', 'log', 'dossier', 'verdicts', 'issues', 'rooms', 'stances', 'own', 'studio'],
  issues: ['plan', 'issues', 'dossier', 'own', 'studio'],
  log: ['plan', 'log', 'dossier', 'rooms', 'own', 'studio'],
  today: [
    'log',
    'plan',
    'dossier',
    'verdicts',
    'emphasis',
    'measures',
    'rooms',
    'own',
    'decisions',
    'issues',
    'clients',
    'studio',
  ],
  'check-ins': ['decisions'],
  trend: ['log', 'plan', 'dossier', 'verdicts', 'emphasis', 'rooms', 'stances', 'own', 'decisions', 'issues'],
  trials: ['plan', 'log', 'measures', 'dossier', 'own', 'decisions'],
  partners: ['dossier', 'verdicts', 'rooms', 'stances', 'own'],
  templates: ['templates', 'own'],
  rooms: ['rooms', 'dossier', 'own', 'clients'],
  studio: ['studio'],
  deleted: ['clients'],
  stances: ['stances', 'own'],
  own: ['own'],
  find: ['own'],
  'own-words': ['own'],
  library: ['dossier', 'verdicts', 'tryOuts', 'log', 'rooms', 'stances', 'own'],
  near: ['dossier', 'verdicts', 'rooms', 'stances', 'own'],
  rep: ['dossier', 'own'],
  record: ['tryOuts', 'log', 'dossier', 'rooms', 'own'],
  propose: ['log', 'dossier', 'rooms', 'plan', 'own'],
  me: ['studio'],
}

/** touched lets everything be read anew that rests on what was written; but is what the answer has brought already. */
export function touched(client: QueryClient, sources: Source[], but?: QueryKey) {
  const done = JSON.stringify(but)
  void client.invalidateQueries({
    predicate: (q) =>
      (restsOn[String(q.queryKey[0])] ?? []).some((s) => sources.includes(s)) && JSON.stringify(q.queryKey) !== done,
  })
}

/** putFresh keeps what a write answered; a reading that is still under way is older and no longer waited for. */
export function putFresh<T>(client: QueryClient, key: QueryKey, data: T) {
  void client.cancelQueries({ queryKey: key }).then(() => client.setQueryData<T>(key, data))
}

import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { api, got, type BlockDraft, type StripView } from '../../../api/client'
import { putFresh, queries, touched } from '../../../api/queries'
import { useWrite } from '../../../api/useWrite'

/** fresh is a block of eight weeks from a week that is on the board. */
export const fresh = (from: string): BlockDraft => ({
  id: uuidv7(),
  version: 0,
  start: from,
  every: 7,
  turns: 8,
  from: 3,
  to: 1,
  limit: false,
  sets: 0,
  lighter: true,
  change: 'exchange',
  dense: false,
  take: from,
})

/** draftOf is a block as it is, to be changed. */
export const draftOf = ({
  id,
  version,
  start,
  every,
  turns,
  ready,
  from,
  to,
  limit,
  sets,
  lighter,
  change,
  dense,
}: NonNullable<StripView['block']>): BlockDraft => ({
  id,
  version,
  start,
  every,
  turns,
  ready,
  from,
  to,
  limit,
  sets,
  lighter,
  change,
  dense,
})

/** useBlock is a client's block: as it is, as it would be, and what is done about it. */
export function useBlock(client: string) {
  const cache = useQueryClient()
  const strip = useQuery(queries.block(client))
  const [draft, edit] = useState<BlockDraft | null>(null)
  const look = useQuery(queries.blockLook(client, draft))
  const params = { path: { client } }
  const came = (v: StripView) => {
    putFresh(cache, queries.block(client).queryKey, v)
    touched(cache, ['plan'], queries.block(client).queryKey)
    edit(null)
  }
  const lay = useWrite(async (d: BlockDraft) =>
    came(await got(api.PUT('/clients/{client}/block', { params, body: d }))),
  )
  const end = useWrite(async (id: string) =>
    came(await got(api.POST('/clients/{client}/block/end', { params, body: { id } }))),
  )
  const miss = useWrite(async (session: string, way: 'slide' | 'drop' | 'fold') =>
    came(await got(api.POST('/clients/{client}/block/missed', { params, body: { session, way } }))),
  )
  return { strip: strip.data, draft, edit, look, lay, end, miss }
}

export type Block = ReturnType<typeof useBlock>

import useSWR, { mutate } from 'swr'
import { publicationsOf } from '../../../core/formats'
import type { Brand, Follow, Pipeline, PublishedDocument } from '../../../core/model'
import { heavy } from '../../workers'
import { call, get } from '../api'
import { all } from '../store'

const DOCUMENTS = '/api/documents'
/** A served sheet holds so many of the newest rows; the one that is saved from the bench holds all. */
const MOST_ROWS = 5000
/** Of what is handed over and may go out while the app is closed, so many travel beside. */
const MOST_TO_COME = 500

type Shown = Extract<Follow, { kind: 'feed' | 'sheet' }>

/** What was sent last, by document; null before the server was asked what it has. */
let sent: Map<string, string> | null = null

const idOf = (pipeline: Pick<Pipeline, 'id'>, follow: Shown): string => `${pipeline.id}.${follow.id}`

/** Sends the feeds and archive sheets of pipelines that changed, and ends those that no pipeline has any more. */
export async function publishDocuments(): Promise<void> {
  const [pipelines, brands] = await Promise.all([all('pipelines'), all('brands')])
  const wanted = pipelines.flatMap((pipeline) =>
    pipeline.follows.flatMap((follow) =>
      follow.kind === 'feed' || follow.kind === 'sheet' ? [{ pipeline, follow }] : [],
    ),
  )
  if (sent === null) {
    const { documents } = await get<{ documents: { id: string }[] }>(DOCUMENTS)
    sent = new Map(documents.map((d) => [d.id, '']))
  }
  for (const { pipeline, follow } of wanted) {
    const brand = brands.find((b) => b.id === pipeline.brand)
    if (!brand) continue
    const body = await documentOf(pipeline, follow, brand)
    const content = JSON.stringify(body)
    const id = idOf(pipeline, follow)
    if (sent.get(id) === content) continue
    await call('PUT', `${DOCUMENTS}/${encodeURIComponent(id)}`, body)
    sent.set(id, content)
    await mutate(DOCUMENTS)
  }
  const there = new Set(wanted.map(({ pipeline, follow }) => idOf(pipeline, follow)))
  for (const id of [...sent.keys()].filter((k) => !there.has(k))) {
    await call('DELETE', `${DOCUMENTS}/${encodeURIComponent(id)}`)
    sent.delete(id)
    await mutate(DOCUMENTS)
  }
}

async function documentOf(pipeline: Pipeline, follow: Shown, brand: Brand): Promise<PublishedDocument> {
  const items = follow.kind === 'feed' ? follow.items : MOST_ROWS
  const [all_, sources] = await Promise.all([publications(pipeline), all('sources', 'brand', brand.id)])
  const out = all_.filter((p) => p.at !== null).slice(0, items)
  const toCome = all_.filter((p) => p.at === null).slice(-MOST_TO_COME)
  const home = sources.find((s) => pipeline.takeIn.sources.includes(s.id) && s.siteUrl)?.siteUrl ?? null
  return {
    kind: follow.kind === 'feed' ? follow.format : 'CSV',
    title: follow.title,
    home,
    items,
    publications: [...toCome, ...out],
  }
}

async function publications(pipeline: Pipeline) {
  const [posts, pieces, accounts] = await Promise.all([
    all('posts', 'brand', pipeline.brand),
    all('pieces', 'brand', pipeline.brand),
    all('accounts', 'brand', pipeline.brand),
  ])
  return publicationsOf(
    posts.filter((p) => p.pipeline === pipeline.id),
    new Map(pieces.map((p) => [p.id, p])),
    new Map(accounts.map((a) => [a.id, a])),
  )
}

/** The whole archive sheet of a pipeline, as CSV. */
export async function archiveOf(pipeline: Pipeline): Promise<string> {
  const out = (await publications(pipeline)).flatMap((p) => (p.at === null ? [] : [{ ...p, at: p.at }]))
  return heavy().writeArchive(out)
}

/** Where a feed or sheet of a pipeline is served; null until it is. */
export function useDocumentAddress(pipeline: Pipeline, follow: Shown): string | null {
  const { data } = useSWR(DOCUMENTS, () => get<{ documents: { id: string; url: string }[] }>(DOCUMENTS), {
    shouldRetryOnError: false,
  })
  return data?.documents.find((d) => d.id === idOf(pipeline, follow))?.url ?? null
}

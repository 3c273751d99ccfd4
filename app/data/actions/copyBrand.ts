import { nanoid } from 'nanoid'
import { freshPipeline, renamed } from '../../../core/formats'
import { asEdited, recipeOf, type Pipeline } from '../../../core/model'
import { nowIso } from '../clock'
import { all, commit, must, put } from '../store'

/**
 * Makes a brand that begins with what another one has: house style, briefs, quiet days, slots, word lists, occasions, and its
 * pipelines, switched off and without accounts and sources, which are each brand's own. Gives the new brand's id.
 */
export async function brandLike(of: string, name: string): Promise<string> {
  const [brand, lists, pipelines, occasions] = await Promise.all([
    must('brands', of),
    all('wordLists', 'brand', of),
    all('pipelines', 'brand', of),
    all('occasions', 'brand', of),
  ])
  const id = nanoid()
  const now = nowIso()
  const newLists = new Map(lists.map((l) => [l.id, nanoid()]))
  const kept = pipelines.filter((p) => p.endedAt === null)
  const newPipelines = new Map(kept.map((p) => [p.id, nanoid()]))
  const copied = { ...brand, id, name: name.trim(), held: null, endedAt: null, createdAt: now }
  await commit({ brand: id, label: `Make the brand ${copied.name} like ${brand.name}` }, [
    put('brands', copied),
    ...lists.map((l) => put('wordLists', { ...l, id: newLists.get(l.id) ?? l.id, brand: id })),
    // Which accounts its captions are for is each brand's own.
    ...occasions.map((o) =>
      put('occasions', { ...o, id: nanoid(), brand: id, make: null, missing: [], createdAt: now }),
    ),
    ...kept.map((p) => put('pipelines', pipelineFor(id, p, newPipelines, newLists, now))),
  ])
  return id
}

function pipelineFor(
  brand: string,
  pipeline: Pipeline,
  pipelines: ReadonlyMap<string, string>,
  lists: ReadonlyMap<string, string>,
  now: string,
): Pipeline {
  const other = (ids: ReadonlyMap<string, string>) => (id: string) => [ids.get(id) ?? []].flat()
  // A rule about sources of the other brand catches everything until a person says which are meant.
  const recipe = renamed(recipeOf(asEdited(pipeline)), {
    account: () => [],
    source: () => [],
    list: other(lists),
    pipeline: other(pipelines),
  })
  const { name, hue } = pipeline
  return freshPipeline(recipe, {
    id: pipelines.get(pipeline.id) ?? nanoid(),
    brand,
    name,
    hue,
    now,
    newId: nanoid,
  })
}

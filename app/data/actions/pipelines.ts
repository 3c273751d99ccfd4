import {
  asEdited,
  Fault,
  recipeOf,
  rebased,
  sameContent,
  type Follow,
  type Pipeline,
  type Post,
  type Recipe,
  type ReleaseRow,
  type Run,
  type WordList,
} from '../../../core/model'
import { circle, releasedTo } from '../../../core/pipeline'
import { inWords } from '../../../core/text'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, remove } from '../store'
import { plannedOf } from './ending'
import { lift } from './holds'
import { commitRecalled, happensIfMay } from './life'
import { difference, writesOf, type Move } from './plan'

/** A change of a pipeline, no larger than what a person changed: of each part the fields alone, of the release by its rows. */
export type PipelineChange = Partial<Pick<Pipeline, 'name' | 'hue' | 'gate' | 'priority'>> & {
  takeIn?: Partial<Pipeline['takeIn']>
  make?: Partial<Pipeline['make']>
  limits?: Partial<Pipeline['limits']>
  release?: ReleaseRow[]
  follows?: Follow[]
}

/**
 * Changes a pipeline as a screen had it. What else was changed meanwhile stays (`rebased`), also in the same rule, list
 * or brief. While it is on, the version that runs goes on, and the change waits to be put to work.
 */
export async function savePipeline(
  pipeline: Pipeline,
  { name, hue, ...change }: PipelineChange,
  label: string,
): Promise<void> {
  if (change.follows) await refuseCircles(pipeline, change.follows)
  await commit({ brand: pipeline.brand, label }, [
    {
      table: 'pipelines',
      id: pipeline.id,
      change: (kept: Pipeline | undefined) => {
        const row = kept ?? pipeline
        const named = { ...row, name: name ?? row.name, hue: hue ?? row.hue }
        if (Object.keys(change).length === 0) return named
        const seen = recipeOf(asEdited(pipeline))
        const recipe = rebased(seen, changed(seen, change), recipeOf(asEdited(row)))
        if (row.on && kept) return { ...named, draft: sameContent(recipe, recipeOf(row)) ? null : recipe }
        return { ...named, ...recipe, draft: null, version: (kept?.version ?? 0) + 1, savedAt: nowIso() }
      },
    },
  ])
}

/** Refuses (`bad-request`) what hands on to a pipeline from which it would come back. */
async function refuseCircles(
  { id, brand }: Pick<Pipeline, 'id' | 'brand'>,
  follows: readonly Follow[],
): Promise<void> {
  const pipelines = await all('pipelines', 'brand', brand)
  for (const follow of follows) {
    const way = follow.kind === 'pipeline' ? circle(pipelines, id, follow.pipeline) : null
    if (way)
      throw new Fault(
        'bad-request',
        `That would go round in a circle: ${way.map((name) => `“${name}”`).join(' hands on to ')}. Choose another pipeline, or take what follows out of ${inWords(way.slice(1, -1).map((n) => `“${n}”`)) || 'it'} first.`,
      )
  }
}

function changed(recipe: Recipe, change: PipelineChange): Recipe {
  const { takeIn, make, limits, release, follows, gate, priority } = change
  return {
    takeIn: { ...recipe.takeIn, ...takeIn },
    make: { ...recipe.make, ...make },
    limits: { ...recipe.limits, ...limits },
    release: release ?? recipe.release,
    follows: follows ?? recipe.follows,
    gate: gate ?? recipe.gate,
    priority: priority ?? recipe.priority,
  }
}

/** So many of the versions that ran are kept. */
const KEPT = 30

/** A pipeline with another recipe at work, its version written down. */
function working(pipeline: Pipeline, recipe: Recipe): Pipeline {
  // One that ran before versions were kept begins them with what runs.
  const first = { version: pipeline.version, at: pipeline.savedAt, recipe: recipeOf(pipeline) }
  const before = pipeline.versions.length === 0 && pipeline.on ? [first] : pipeline.versions
  const last = before.at(-1)
  if (last && sameContent(last.recipe, recipe)) return { ...pipeline, ...recipe, draft: null }
  const version = pipeline.version + 1
  const at = nowIso()
  const versions = [...before, { version, at, recipe }].slice(-KEPT)
  return { ...pipeline, ...recipe, draft: null, version, savedAt: at, versions }
}

/** What putting a changed pipeline to work would do to what it has planned. */
export interface WorkDifference {
  /** Posts that its new limits move. */
  moves: Move[]
  /** Posts that are planned for accounts to which it would release no more. */
  unreleased: Post[]
}

/** What would become of what is planned, were the changes put to work; nothing is kept. */
export async function workDifference(id: string): Promise<WorkDifference> {
  const pipeline = await must('pipelines', id)
  const next = asEdited(pipeline)
  const accounts = await all('accounts')
  const to = new Set(releasedTo(next, accounts).map((a) => a.id))
  const planned = await plannedOf({ table: 'pipelines', id, brand: pipeline.brand, name: pipeline.name })
  return {
    moves: await difference({ pipelines: [next] }),
    unreleased: planned.filter((p) => !to.has(p.account)),
  }
}

/**
 * Puts what was changed to work: pieces that are taken in from now on follow it. What is planned moves as the
 * difference says; `going` are the posts that are set aside with it.
 */
export async function putToWork(id: string, moves: readonly Move[], going: readonly Post[]): Promise<void> {
  const { brand, name } = await must('pipelines', id)
  const gone = new Set(going.map((p) => p.id))
  const moving = moves.filter((m) => !gone.has(m.post.id))
  await commitRecalled(
    { brand, label: `Put ${name} to work as it was changed` },
    [...moving.map((m) => m.post), ...going],
    [
      patch('pipelines', id, (p) => working(p, recipeOf(asEdited(p)))),
      ...writesOf(moving),
      ...going.map((p) => happensIfMay(p.id, 'set aside')),
    ],
  )
}

/** Drops what was changed and not put to work. */
export async function dropDraft(id: string): Promise<void> {
  const { brand, name } = await must('pipelines', id)
  await commit({ brand, label: `Drop the changes of ${name}` }, [
    patch('pipelines', id, (p) => ({ ...p, draft: null })),
  ])
}

/** Goes back to a version that ran: while the pipeline is on it waits to be put to work. */
export async function goBack(id: string, version: number): Promise<void> {
  const pipeline = await must('pipelines', id)
  const found = pipeline.versions.find((v) => v.version === version)
  if (!found) throw new Fault('not-found', `Version ${version} is no longer kept.`)
  await refuseCircles(pipeline, found.recipe.follows)
  await commit({ brand: pipeline.brand, label: `Go back to version ${version}` }, [
    patch('pipelines', id, (p) =>
      p.on
        ? { ...p, draft: sameContent(found.recipe, recipeOf(p)) ? null : found.recipe }
        : { ...p, ...found.recipe, draft: null, version: p.version + 1, savedAt: nowIso() },
    ),
  ])
}

/** What becomes of what a pipeline planned when it is switched off. */
export type WhenOff = 'stays' | 'waits' | 'goes'

/** The hold by which a pipeline's posts wait while it is off. */
const waitsOff = (name: string): string => `${name} is switched off.`

/** Switches a pipeline on; what waited while it was off goes on, and what missed its time meanwhile is placed anew. */
export async function switchOn(id: string): Promise<void> {
  const { brand, name, held } = await must('pipelines', id)
  if (held?.reason === waitsOff(name)) await lift({ table: 'pipelines', id, brand, name })
  await commit({ brand, label: `Switch ${name} on` }, [
    patch('pipelines', id, (p) => ({ ...working(p, recipeOf(asEdited(p))), on: true })),
  ])
}

/**
 * Switches a pipeline off: it takes nothing in. What it planned still goes out, waits until it is on again, or is
 * set aside. Gives how many posts were set aside.
 */
export async function switchOff(id: string, planned: WhenOff): Promise<number> {
  const { brand, name } = await must('pipelines', id)
  const going = planned === 'goes' ? await plannedOf({ table: 'pipelines', id, brand, name }) : []
  const reason = { code: 'switched-off', message: waitsOff(name) }
  await commitRecalled({ brand, label: `Switch ${name} off` }, going, [
    patch('pipelines', id, (p) => ({
      ...p,
      on: false,
      held: planned === 'waits' ? { reason: waitsOff(name), since: nowIso() } : p.held,
    })),
    ...going.map((p) => happensIfMay(p.id, 'set aside', (row) => ({ ...row, reasons: [reason] }))),
  ])
  return going.length
}

/** The pieces of a run that can be looked at again: those of which something failed, or was left. */
export function repeatable({ steps }: Pick<Run, 'steps'>): string[] {
  return [...new Set(steps.flatMap((s) => (s.came === 'done' || s.what === 'follow' ? [] : [s.piece])))]
}

/**
 * Repeats a run: what of it failed or was left is looked at again with the next round, as the pipeline stands now.
 * What was done is not done again. Gives how many pieces that are.
 */
export async function repeatRun(id: string): Promise<number> {
  const run = await must('runs', id)
  const { name } = await must('pipelines', run.pipeline)
  const pieces = repeatable(run)
  await commit(
    { brand: run.brand, label: `Repeat a run of ${name}` },
    pieces.map((piece) =>
      patch('pieces', piece, (p) => ({
        ...p,
        trouble: null,
        seenBy: p.seenBy.filter((s) => s !== run.pipeline),
        verdicts: p.verdicts.filter((v) => v.pipeline !== run.pipeline),
      })),
    ),
  )
  return pieces.length
}

export async function removePipeline(id: string): Promise<void> {
  const pipeline = await must('pipelines', id)
  await commit({ brand: pipeline.brand, label: `Remove ${pipeline.name}` }, [remove('pipelines', id)])
}

/** Keeps a new pipeline, with the word lists that it brings along. */
export async function addPipeline(pipeline: Pipeline, lists: readonly WordList[] = []): Promise<void> {
  await commit({ brand: pipeline.brand, label: `Make the pipeline ${pipeline.name}` }, [
    ...lists.map((list) => put('wordLists', list)),
    put('pipelines', pipeline),
  ])
}

import type { Pipeline, ReleaseRow, WordList } from '../../../core/model'
import { nowIso } from '../clock'
import { commit, must, patch, put, remove } from '../store'
import { plannedOf } from './ending'
import { lift } from './holds'
import { commitRecalled, happensIfMay } from './life'

/** A change of a pipeline, no larger than what a person changed: of each part the fields alone, of the release by its rows. */
export type PipelineChange = Partial<Pick<Pipeline, 'name' | 'hue' | 'gate' | 'priority'>> & {
  takeIn?: Partial<Pipeline['takeIn']>
  make?: Partial<Pipeline['make']>
  limits?: Partial<Pipeline['limits']>
  release?: (rows: ReleaseRow[]) => ReleaseRow[]
}

/**
 * Changes a pipeline and saves it as a new version. What else was changed meanwhile stays: the change is put
 * into the record as it is kept, not into what a screen had of it.
 */
export async function savePipeline(
  pipeline: Pipeline,
  { takeIn, make, limits, release, ...rest }: PipelineChange,
  label: string,
): Promise<void> {
  await commit({ brand: pipeline.brand, label }, [
    {
      table: 'pipelines',
      id: pipeline.id,
      change: (kept: Pipeline | undefined) => {
        const row = kept ?? pipeline
        return {
          ...row,
          ...rest,
          takeIn: { ...row.takeIn, ...takeIn },
          make: { ...row.make, ...make },
          limits: { ...row.limits, ...limits },
          release: release ? release(row.release) : row.release,
          version: (kept?.version ?? 0) + 1,
          savedAt: nowIso(),
        }
      },
    },
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
  await commit({ brand, label: `Switch ${name} on` }, [patch('pipelines', id, (p) => ({ ...p, on: true }))])
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

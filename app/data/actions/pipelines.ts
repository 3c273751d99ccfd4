import type { Pipeline } from '../../../core/model'
import { nowIso } from '../clock'
import { commit, must, patch, put, remove } from '../store'

/**
 * Changes some fields of a pipeline and saves it as a new version. What else was changed meanwhile stays:
 * the change is put into the record as it is kept, not into what a screen had of it.
 */
export async function savePipeline(
  pipeline: Pipeline,
  change: Partial<Pipeline>,
  label: string,
): Promise<void> {
  await commit({ brand: pipeline.brand, label }, [
    {
      table: 'pipelines',
      id: pipeline.id,
      change: (row: Pipeline | undefined) => ({
        ...(row ?? pipeline),
        ...change,
        version: (row?.version ?? 0) + 1,
        savedAt: nowIso(),
      }),
    },
  ])
}

export async function switchPipeline(id: string, on: boolean): Promise<void> {
  const pipeline = await must('pipelines', id)
  await commit(
    { brand: pipeline.brand, label: on ? `Switch ${pipeline.name} on` : `Switch ${pipeline.name} off` },
    [patch('pipelines', id, (p) => ({ ...p, on }))],
  )
}

export async function removePipeline(id: string): Promise<void> {
  const pipeline = await must('pipelines', id)
  await commit({ brand: pipeline.brand, label: `Remove ${pipeline.name}` }, [remove('pipelines', id)])
}

export async function addPipeline(pipeline: Pipeline): Promise<void> {
  await commit({ brand: pipeline.brand, label: `Make the pipeline ${pipeline.name}` }, [
    put('pipelines', pipeline),
  ])
}

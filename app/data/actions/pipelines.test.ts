import { expect, it } from 'vitest'
import type { ReleaseRow } from '../../../core/model'
import { aPipeline, aRow } from '../../../core/model/samples'
import { addPipeline, savePipeline } from './pipelines'
import { must } from '../store'
import { emptyDatabase } from '../testing/browser'

it('two changes made from the same view of a pipeline are both kept', async () => {
  await emptyDatabase()
  const seen = aPipeline({ gate: 'everything', priority: 0 })
  await addPipeline(seen)
  await savePipeline(seen, { gate: 'nothing' }, 'Change a pipeline’s gate')
  await savePipeline(seen, { priority: 3 }, 'Change a pipeline’s priority')
  await savePipeline(seen, { takeIn: { aRun: 1 } }, 'Change how much a pipeline takes in')
  await savePipeline(seen, { takeIn: { changed: true } }, 'Change what becomes of changed pieces')
  await savePipeline(seen, { limits: { aDay: 2 } }, 'Change a pipeline’s limits')
  await savePipeline(seen, { limits: { ahead: 30 } }, 'Change a pipeline’s limits')
  const named = (id: string) => (rows: ReleaseRow[]) => [...rows, aRow({ id })]
  await savePipeline(seen, { release: named('x') }, 'Add a row to a release')
  await savePipeline(seen, { release: named('y') }, 'Add a row to a release')
  const kept = await must('pipelines', seen.id)
  expect(kept).toMatchObject({
    gate: 'nothing',
    priority: 3,
    takeIn: { aRun: 1, changed: true, sources: ['source'] },
    limits: { aDay: 2, ahead: 30 },
    version: seen.version + 8,
  })
  expect(kept.release.map((r) => r.id)).toEqual(['row', 'x', 'y'])
})

import { expect, it } from 'vitest'
import { aPipeline } from '../../../core/model/samples'
import { addPipeline, savePipeline } from './pipelines'
import { must } from '../store'
import { emptyDatabase } from '../testing/browser'

it('two changes made from the same view of a pipeline are both kept', async () => {
  await emptyDatabase()
  const seen = aPipeline({ gate: 'everything', priority: 0 })
  await addPipeline(seen)
  await savePipeline(seen, { gate: 'nothing' }, 'Change a pipeline’s gate')
  await savePipeline(seen, { priority: 3 }, 'Change a pipeline’s priority')
  expect(await must('pipelines', seen.id)).toMatchObject({
    gate: 'nothing',
    priority: 3,
    version: seen.version + 2,
  })
})

import { beforeEach, expect, it } from 'vitest'
import { Brief, type Brand } from '../../../core/model'
import { aBrand, aWorkspace } from '../../../core/model/samples'
import { commit, must, put } from '../store'
import { emptyDatabase } from '../testing/browser'
import { saveBrand } from './brands'

const brief = Brief.parse({ network: 'murmur', length: { least: 100, most: 200 } })
const kept = () => must('brands', 'brand')
let seen: Brand
beforeEach(async () => {
  await emptyDatabase()
  seen = aBrand({ briefs: [brief] })
  await commit('machine', [put('workspace', aWorkspace()), put('brands', seen)])
})

it('two changes of a brief made from the same view are both kept', async () => {
  await saveBrand(seen, { ...seen, briefs: [{ ...brief, hashtags: 2 }] })
  await saveBrand(seen, { ...seen, briefs: [{ ...brief, link: 'none' }] })
  await saveBrand(seen, { ...seen, briefs: [brief, { ...brief, network: 'guildhall' }] })
  expect((await kept()).briefs).toEqual([
    { ...brief, hashtags: 2, link: 'none' },
    { ...brief, network: 'guildhall' },
  ])
})

it('where two changes do not go together, the later one counts', async () => {
  await saveBrand(seen, { ...seen, briefs: [{ ...brief, length: { least: 180, most: 200 } }] })
  const later = { ...brief, length: { least: 100, most: 150 } }
  await saveBrand(seen, { ...seen, briefs: [later] })
  expect((await kept()).briefs).toEqual([later])
})

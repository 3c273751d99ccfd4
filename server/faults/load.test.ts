import { expect, it } from 'vitest'
import { temporaryFolder } from '../../e2e/servers'
import { load, whole } from './load'

it('posts of many accounts go out once each and in order, a tenth of them in trouble', async () => {
  const folder = temporaryFolder()
  const { sum, troubles } = await load({ folder: folder.path, accounts: 20, posts: 300, trouble: 0.1 })
  expect(sum).toEqual(whole(300))
  expect(Object.keys(troubles).length).toBeGreaterThan(3)
  folder.remove()
}, 120_000)

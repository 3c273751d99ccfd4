import { appendFileSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { temporaryFolder } from '../e2e/servers'
import { Posts } from './posts'
import { aWorldPost } from './testing/samples'

describe('what was posted', () => {
  let folder: ReturnType<typeof temporaryFolder>
  let path: string
  beforeEach(() => {
    folder = temporaryFolder()
    path = join(folder.path, 'posts.jsonl')
  })
  afterEach(() => folder.remove())

  it('is there after a restart as it last was, under its id, key, account and words', () => {
    const before = new Posts(path)
    before.add(aWorldPost('a'))
    before.add(aWorldPost('b', { account: 'two' }))
    before.add(aWorldPost('c'))
    before.change(before.find('a')!, { gone: true })
    before.change(before.find('c')!, { text: 'Others.' })
    for (const posts of [before, new Posts(path)]) {
      expect(posts.of('one').map((p) => `${p.id} ${p.gone} ${p.text}`)).toEqual([
        'a true The words of a.',
        'c false Others.',
      ])
      expect(posts.under('two', 'key b')?.id).toBe('b')
      expect(posts.under('one', 'key b')).toBeUndefined()
      expect(posts.saying('murmur', 'others').map((p) => p.id)).toEqual(['c'])
      expect(posts.saying('guildhall', 'others')).toEqual([])
    }
  })

  it('is nothing once it was cleared', () => {
    const posts = new Posts(path)
    posts.add(aWorldPost('a'))
    posts.clear()
    expect(posts.of('one')).toEqual([])
    expect(readFileSync(path, 'utf8')).toBe('')
  })

  it('says so where its file is damaged, rather than forgetting it', () => {
    new Posts(path).add(aWorldPost('a'))
    appendFileSync(path, '{"id":')
    expect(() => new Posts(path)).toThrow(/JSON/)
  })
})

import { beforeEach, describe, expect, it, vi } from 'vitest'
import { emptyDatabase } from './testing/browser'
import { aBrand, aWorkspace } from '../../core/model/samples'
import { all, commit, put } from './store'
import { chooseWeekly, weeklyBundle, weeklyIsDue } from './weekly'

const DAY = 86_400_000
const now = Date.parse('2026-11-24T10:00:00.000Z')
const ago = (days: number): string => new Date(now - days * DAY).toISOString()

describe('the weekly bundle', () => {
  it('is due a week after the last one, or after the beginning, where it is wanted', () => {
    const base = { createdAt: ago(30), weeklyBundle: 'download' as const }
    expect(weeklyIsDue(aWorkspace({ ...base, lastBundleAt: ago(6.9) }), now)).toBe(false)
    expect(weeklyIsDue(aWorkspace({ ...base, lastBundleAt: ago(7) }), now)).toBe(true)
    expect(weeklyIsDue(aWorkspace({ ...base, lastBundleAt: null }), now)).toBe(true)
    expect(weeklyIsDue(aWorkspace({ ...base, createdAt: ago(2), lastBundleAt: null }), now)).toBe(false)
    expect(weeklyIsDue(aWorkspace({ ...base, weeklyBundle: 'off', lastBundleAt: null }), now)).toBe(false)
  })

  const written: Blob[] = []
  let permission = 'granted'
  beforeEach(async () => {
    await emptyDatabase()
    written.length = 0
    permission = 'granted'
    // Handles cannot be cloned into the database in memory, so it keeps what it can of this one.
    vi.stubGlobal('showDirectoryPicker', () => Promise.resolve({ name: 'bundles' }))
    await commit('machine', [
      put('brands', aBrand()),
      put('workspace', aWorkspace({ createdAt: '2020-01-01T00:00:00.000Z' })),
    ])
  })

  it('remembers the folder, and asks for it again in a sentence where it may not write there', async () => {
    await chooseWeekly('ws', 'folder')
    expect((await all('workspace'))[0]?.weeklyBundle).toBe('folder')
    const { database } = await import('./database')
    const db = await database()
    const handle = {
      queryPermission: () => Promise.resolve(permission),
      getFileHandle: () =>
        Promise.resolve({
          createWritable: () =>
            Promise.resolve({ write: (b: Blob) => void written.push(b), close: () => undefined }),
        }),
    }
    vi.spyOn(db, 'get').mockResolvedValue({ id: 'weekly-bundle', handle } as never)
    permission = 'prompt'
    await expect(weeklyBundle()).rejects.toThrow(/Choose the folder again/)
    expect((await all('workspace'))[0]?.lastBundleAt).toBeNull()
    permission = 'granted'
    await weeklyBundle()
    expect(written).toHaveLength(1)
    await weeklyBundle()
    expect(written).toHaveLength(1)
    vi.restoreAllMocks()
  })

  it('is refused for a folder where the browser knows none', async () => {
    vi.stubGlobal('showDirectoryPicker', undefined)
    await expect(chooseWeekly('ws', 'folder')).rejects.toThrow(/Choose the download instead/)
  })
})

import { beforeEach, describe, expect, it, vi } from 'vitest'
import { deleteDB, openDB } from 'idb'
import { emptyDatabase } from './testing/browser'
import { aBrand, aPost, anAccount, aPipeline } from '../../core/model/samples'
import { TABLE_NAMES, TABLES, type Post } from '../../core/model'
import { forget } from './kept'
import { schema1 } from '../../core/formats/testing/schema1'
import { DATABASE_VERSION, migrate, MIGRATIONS } from './schema'
import { all, commit, must, newAction, onWrite, one, patch, put, remove, type Write } from './store'
import { isTouched } from './refresh'
import { lastChange, undo } from './undo'

const by = (label: string) => ({ brand: 'brand', label })
beforeEach(emptyDatabase)

describe('writing', () => {
  it('keeps all records of one action or none of them', async () => {
    const wrong = { ...anAccount(), zone: 'Europe/Atlantis' }
    await expect(commit('machine', [put('brands', aBrand()), put('accounts', wrong)])).rejects.toThrow(
      /not a time zone/,
    )
    expect(await all('brands')).toEqual([])
  })

  it('gives each record of a large table once, in the order of their ids', async () => {
    const ids = Array.from({ length: 2003 }, (_, i) => `p${String(i).padStart(5, '0')}`)
    await commit(
      'machine',
      ids.map((id) => put('posts', aPost({ id }))),
    )
    forget(['posts'])
    expect((await all('posts')).map((p) => p.id)).toEqual(ids)
  })

  it('finds records by what they belong to', async () => {
    await commit('machine', [
      put('posts', aPost({ id: 'a', drip: 'd1' })),
      put('posts', aPost({ id: 'b', drip: 'd2' })),
    ])
    expect((await all('posts', 'drip', 'd2')).map((p) => p.id)).toEqual(['b'])
    await expect(must('posts', 'c')).rejects.toMatchObject({ code: 'not-found' })
  })

  it('changes a record as it stands inside the transaction, so that two tabs lose nothing', async () => {
    await commit('machine', [put('posts', aPost({ revision: 0 }))])
    const raise = () =>
      commit('machine', [patch('posts', 'post', (p) => ({ ...p, revision: p.revision + 1 }))])
    await Promise.all([raise(), raise(), raise()])
    expect((await one('posts', 'post'))?.revision).toBe(3)
  })

  it('tells those who watch', async () => {
    const seen = vi.fn()
    const end = onWrite(seen)
    await commit('machine', [put('brands', aBrand())])
    expect(seen).toHaveBeenCalledTimes(1)
    end()
    await commit('machine', [remove('brands', 'brand')])
    expect(seen).toHaveBeenCalledTimes(1)
  })

  it('touches the reads of a record’s old and new places, and no others, in this tab and the next', async () => {
    await commit('machine', [put('posts', aPost({ id: 'a', drip: 'd1' }))])
    const nextTab = new BroadcastChannel('dripline')
    const heard = new Promise<MessageEvent>((resolve) => nextTab.addEventListener('message', resolve))
    await commit('machine', [patch('posts', 'a', (p) => ({ ...p, drip: 'd2', state: 'for review' }))])
    const touched = ((await heard) as MessageEvent<Parameters<typeof isTouched>[1]>).data
    nextTab.close()
    const reads: [unknown[], boolean][] = [
      [['posts'], true],
      [['posts', 'id', 'a'], true],
      [['posts', 'id', 'b'], false],
      [['posts', 'drip', 'd1'], true],
      [['posts', 'drip', 'd2'], true],
      [['posts', 'drip', 'd3'], false],
      [['posts', 'brand', 'brand'], true],
      [['posts', 'brand', 'other'], false],
      [['posts', 'state', 'approved'], true],
      [['posts', 'state', 'published'], false],
      [['accounts', 'brand', 'brand'], false],
    ]
    for (const [read, expected] of reads) expect([read, isTouched(read, touched)]).toEqual([read, expected])
    expect(isTouched(['posts', 'drip', 'd9'], { tables: ['posts'], reads: null })).toBe(true)
  })
})

describe('undo', () => {
  it('takes a person’s actions back one by one, the newest first, and leaves the machine’s', async () => {
    await commit('machine', [put('brands', aBrand())])
    await commit(by('Make a pipeline'), [put('pipelines', aPipeline())])
    await commit(by('Rename it'), [patch('pipelines', 'pipeline', (p) => ({ ...p, name: 'Second' }))])
    expect((await lastChange('brand'))?.label).toBe('Rename it')
    expect(await undo('brand')).toBe('Rename it')
    expect((await one('pipelines', 'pipeline'))?.name).toBe('Journal')
    expect(await undo('brand')).toBe('Make a pipeline')
    expect(await all('pipelines')).toEqual([])
    expect(await undo('brand')).toBeNull()
    expect(await all('brands')).toHaveLength(1)
  })

  it('brings back what was removed', async () => {
    await commit('machine', [put('pipelines', aPipeline())])
    await commit(by('Remove it'), [remove('pipelines', 'pipeline')])
    await undo('brand')
    expect(await one('pipelines', 'pipeline')).toEqual(aPipeline())
  })

  it('is refused with a sentence where the record changed since', async () => {
    await commit('machine', [put('pipelines', aPipeline())])
    await commit(by('Rename it'), [patch('pipelines', 'pipeline', (p) => ({ ...p, name: 'Mine' }))])
    await commit('machine', [patch('pipelines', 'pipeline', (p) => ({ ...p, name: 'Theirs' }))])
    await expect(undo('brand')).rejects.toThrow(/“Rename it” cannot be undone/)
    expect((await one('pipelines', 'pipeline'))?.name).toBe('Theirs')
  })

  it('is refused for a post that went out, which offers to take it down', async () => {
    await commit('machine', [put('posts', aPost({ state: 'for review' }))])
    await commit(by('Approve'), [patch('posts', 'post', (p) => ({ ...p, state: 'approved' }))])
    await commit('machine', [patch('posts', 'post', (p) => ({ ...p, state: 'published' }))])
    await expect(undo('brand')).rejects.toThrow(/gone out.*take it down/)
  })

  it('takes the parts of one action back together, also where they wrote the same record twice', async () => {
    await commit('machine', [put('pipelines', aPipeline())])
    const action = { ...by('Rework it'), action: newAction() }
    const named = (name: string): Write => patch('pipelines', 'pipeline', (p) => ({ ...p, name }))
    await commit(action, [named('Second'), put('accounts', anAccount())])
    await commit('machine', [put('brands', aBrand())])
    await commit(action, [named('Third'), put('posts', aPost({ state: 'draft' }))])
    expect(await all('changes')).toHaveLength(1)
    expect(await undo('brand')).toBe('Rework it')
    expect((await one('pipelines', 'pipeline'))?.name).toBe('Journal')
    expect([...(await all('accounts')), ...(await all('posts'))]).toEqual([])
    expect(await undo('brand')).toBeNull()
  })

  it('keeps brands apart', async () => {
    await commit(by('One'), [put('pipelines', aPipeline())])
    await commit({ brand: 'other', label: 'Two' }, [
      put('pipelines', aPipeline({ id: 'p2', brand: 'other' })),
    ])
    expect(await undo('brand')).toBe('One')
    expect(await all('pipelines', 'brand', 'other')).toHaveLength(1)
  })

  it('keeps the order of actions within one millisecond', async () => {
    const names = Array.from({ length: 12 }, (_, i) => `Name ${i}`)
    await commit('machine', [put('pipelines', aPipeline())])
    for (const name of names)
      await commit(by(name), [patch('pipelines', 'pipeline', (p) => ({ ...p, name }))])
    const undone: (string | null)[] = []
    for (const _ of names) undone.push(await undo('brand'))
    expect(undone).toEqual([...names].reverse())
  })
})

describe('migrations', () => {
  it('are numbered without a gap', () => {
    expect(MIGRATIONS.map((m) => m.version)).toEqual(MIGRATIONS.map((_, i) => i + 1))
    expect(DATABASE_VERSION).toBe(MIGRATIONS.length)
  })

  it('1: make every store with its indexes, and records are found through them', async () => {
    const db = await openDB('migration-1', 1, {
      upgrade: (fresh, from, to, tx) => migrate(fresh as never, tx as never, from, to ?? 1),
    })
    expect([...db.objectStoreNames]).toEqual(expect.arrayContaining(['posts', 'changes', 'blobs', 'media']))
    await db.put('posts', aPost({ account: 'x' }))
    expect((await db.getAllFromIndex('posts', 'account', 'x')) as Post[]).toHaveLength(1)
    db.close()
    await deleteDB('migration-1')
  })

  it('2: add the store for folders, and leave every record as it was', async () => {
    const old = await openDB('migration-2', 1, {
      upgrade: (fresh, from, to, tx) => migrate(fresh as never, tx as never, from, to ?? 1),
    })
    await old.put('posts', aPost({ drip: 'kept' }))
    old.close()
    const db = await openDB('migration-2', 2, {
      upgrade: (fresh, from, to, tx) => migrate(fresh as never, tx as never, from, to ?? 2),
    })
    expect([...db.objectStoreNames]).toContain('handles')
    expect(await db.getAllFromIndex('posts', 'drip', 'kept')).toEqual([aPost({ drip: 'kept' })])
    db.close()
    await deleteDB('migration-2')
  })

  it('3 and later: part words from pieces, and bring every row up to what is read today', async () => {
    const old = await openDB('migration-3', 2, {
      upgrade: (fresh, from, to, tx) => migrate(fresh as never, tx as never, from, to ?? 2),
    })
    for (const [table, rows] of Object.entries(schema1())) for (const row of rows) await old.put(table, row)
    old.close()
    const db = await openDB('migration-3', DATABASE_VERSION, {
      upgrade: (fresh, from, to, tx) => migrate(fresh as never, tx as never, from, to ?? DATABASE_VERSION),
    })
    expect(await db.getAllFromIndex('texts', 'piece', 'piece')).toMatchObject([{ id: 'piece.3' }])
    for (const table of TABLE_NAMES)
      for (const row of await db.getAll(table))
        expect([table, TABLES[table].safeParse(row).error]).toEqual([table, undefined])
    expect(await db.count('pieces')).toBe(1)
    db.close()
    await deleteDB('migration-3')
  })

  it('leave alone what is up to date', async () => {
    const steps = vi.fn()
    migrate({ createObjectStore: steps } as never, { objectStore: steps }, DATABASE_VERSION, DATABASE_VERSION)
    expect(steps).not.toHaveBeenCalled()
  })
})

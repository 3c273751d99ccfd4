import { describe, expect, it } from 'vitest'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { TABLE_NAMES, TABLES } from '../model'
import { readBundle, SCHEMA, upgradeRows, UPGRADES } from '.'
import { bundleOfSchema1, schema1 } from './testing/schema1'

describe('rows of an older schema', () => {
  it('are brought up step by step to the schema of today', () => {
    expect(UPGRADES.map((u) => u.to)).toEqual(UPGRADES.map((_, i) => i + 2))
    const rows = upgradeRows(schema1(), 1)
    for (const table of TABLE_NAMES)
      for (const row of rows[table] ?? [])
        expect([table, TABLES[table].safeParse(row).error]).toEqual([table, undefined])
  })

  it('2: the words of a piece lie apart from it, and its address is known in other clothes', () => {
    const rows = upgradeRows(schema1(), 1)
    expect(rows['pieces']?.[0]).not.toHaveProperty('text')
    expect(rows['pieces']?.[0]).toMatchObject({ address: 'journal.example/seam', kind: 'article', words: 14 })
    expect(rows['texts']).toMatchObject([
      { id: 'piece.3', piece: 'piece', revision: 3, text: expect.stringMatching(/^A seam/) as string },
    ])
    expect(rows['posts']?.[0]).toMatchObject({ pieceRevision: 2 })
    expect(rows['sources']?.[0]).toMatchObject({ lastVisit: { message: 'All well.', notes: [] } })
  })

  it('4: a caption says who wrote it, and what is set since stands as it was before there was a choice', () => {
    const rows = upgradeRows(upgradeRows(schema1(), 1, 3), 3)
    expect(rows['posts']?.[0]).toMatchObject({
      fallback: null,
      shortLink: null,
      wording: { by: 'built-in' },
    })
    expect(rows['brands']?.[0]?.['houseStyle']).toMatchObject({ writer: 'built-in', shortLinks: false })
    expect(rows['pieces']?.[0]).toMatchObject({ linkCheck: null })
    const kept = upgradeRows({ posts: [{ id: 'p', others: [{ by: 'connected' }], wording: {} }] }, 3)
    expect(kept['posts']?.[0]).toMatchObject({ others: [{ by: 'connected' }] })
  })

  it('9: nothing follows a pipeline of before, nor its draft and versions, and no piece was handed on', () => {
    const rows = upgradeRows(
      {
        pipelines: [
          { id: 'l', draft: { gate: 'nothing' }, versions: [{ version: 1, recipe: { gate: 'nothing' } }] },
        ],
        pieces: [{ id: 'p' }],
        drips: [{ id: 'd' }],
        posts: [{ id: 'q' }],
      },
      8,
      9,
    )
    expect(rows['pipelines']).toEqual([
      {
        id: 'l',
        follows: [],
        draft: { gate: 'nothing', follows: [] },
        versions: [{ version: 1, recipe: { gate: 'nothing', follows: [] } }],
      },
    ])
    expect([rows['pieces'], rows['drips'], rows['posts']]).toEqual([
      [{ id: 'p', handedTo: [], through: [] }],
      [{ id: 'd', followed: [] }],
      [{ id: 'q', followed: [] }],
    ])
  })

  it('5: a post of a piece that ages has its last day, and nothing else is bounded', () => {
    const rows = upgradeRows(
      {
        posts: [
          { id: 'p', piece: 'ages' },
          { id: 'q', piece: 'keeps' },
        ],
        pieces: [
          { id: 'ages', keeps: { until: '2027-01-31' } },
          { id: 'keeps', keeps: { until: null } },
        ],
        brands: [{ id: 'b' }],
        accounts: [{ id: 'a' }],
        pipelines: [{ id: 'l' }],
        drips: [{ id: 'd' }],
      },
      4,
      7,
    )
    expect(rows['posts']).toMatchObject([
      { latest: '2027-01-31', earliest: null, priority: 0 },
      { latest: null, earliest: null, priority: 0 },
    ])
    expect(rows['brands']).toMatchObject([{ slots: [], weights: { distance: 1, pictureDays: 21 } }])
    expect(rows['accounts']).toMatchObject([{ openedOn: null, warmUp: null }])
    expect(rows['pipelines']).toMatchObject([{ window: { from: null, to: null }, priority: 0 }])
    expect(rows['drips']).toMatchObject([{ until: null }])
  })

  it('6: what was begun has not ended, accounts stand in no group, and there is nothing that comes again', () => {
    const one = (id: string) => [{ id }]
    const rows = upgradeRows(
      { brands: one('b'), accounts: one('a'), pipelines: one('l'), drips: one('d'), posts: one('p') },
      5,
    )
    expect(rows).toMatchObject({
      brands: [{ endedAt: null }],
      accounts: [{ endedAt: null, groups: [] }],
      pipelines: [{ endedAt: null }],
      drips: [{ endedAt: null }],
      posts: [{ recurrence: null, occurrence: null, linkCheck: null }],
      recurrences: [],
    })
  })

  it('7: nothing is said in our words, and what closes a post is the brand’s own, everywhere until it says where', () => {
    const rows = upgradeRows(
      {
        brands: [
          {
            id: 'b',
            briefs: [
              { network: 'murmur', closing: 'a question' },
              { network: 'guildhall', closing: 'none' },
            ],
            houseStyle: { closingLines: ['What flies where you are?'] },
          },
        ],
        posts: [
          {
            id: 'p',
            wording: { text: 'A', frame: 'f', closing: null },
            others: [{ text: 'B', frame: null }],
          },
        ],
      },
      6,
      7,
    )
    expect(rows['brands']).toMatchObject([
      {
        briefs: [{ closing: 'a line of the house' }, { closing: 'none' }],
        houseStyle: { closingLines: [{ text: 'What flies where you are?', where: [] }] },
      },
    ])
    expect(rows['posts']).toEqual([
      { id: 'p', wording: { text: 'A', closing: null }, others: [{ text: 'B' }] },
    ])
  })

  it('8: a pipeline’s one rhythm becomes a row for every piece, and its drips follow it', () => {
    const rhythm = { name: 'Echo', list: [0, 3] }
    const rows = upgradeRows(
      {
        pipelines: [
          {
            id: 'l',
            name: 'Journal',
            sources: ['s'],
            groups: ['g'],
            sieve: [{ kind: 'picture' }],
            since: '2026-01-01T00:00:00.000Z',
            accounts: ['a', 'b'],
            rhythm,
            gate: 'nothing',
            priority: 1,
            window: { from: '2026-12-01', to: null },
          },
        ],
        drips: [
          { id: 'd', pipeline: 'l' },
          { id: 'e', pipeline: null },
        ],
        posts: [{ id: 'p' }],
      },
      7,
      8,
    )
    expect(rows['pipelines']).toEqual([
      {
        id: 'l',
        name: 'Journal',
        gate: 'nothing',
        priority: 1,
        takeIn: {
          sources: ['s'],
          groups: ['g'],
          sieve: [{ kind: 'picture' }],
          since: '2026-01-01T00:00:00.000Z',
          aRun: null,
          aWeek: null,
          changed: false,
        },
        make: { passages: null, angles: [], briefs: [], pictures: 'from the piece', after: null },
        release: [
          {
            id: 'row-1',
            pieces: { kind: 'all' },
            format: null,
            accounts: ['a', 'b'],
            groups: [],
            by: { kind: 'rhythm', rhythm },
            again: null,
          },
        ],
        limits: { from: '2026-12-01', to: null, aDay: null, aWeek: null, ahead: null, pauseWhenDown: false },
        draft: null,
        versions: [],
      },
    ])
    expect(rows['drips']).toMatchObject([
      { id: 'd', row: 'row-1', time: 0 },
      { id: 'e', row: null, time: 0 },
    ])
    expect(rows['runs']).toEqual([])
    expect(rows['posts']).toEqual([{ id: 'p', remarks: [] }])
  })

  it('12: a post’s one picture is the first of several, and cards of a brand look as all do at first', () => {
    const rows = upgradeRows(
      {
        posts: [
          {
            id: 'p',
            media: { sourceUrl: 'https://a.example/oak.png', alt: 'Oak', shape: null, hash: 'f00' },
          },
          { id: 'q', media: null },
        ],
        brands: [{ id: 'b', name: 'The yard' }],
      },
      11,
      12,
    )
    expect(rows['posts']).toEqual([
      {
        id: 'p',
        media: [
          {
            source: { from: 'address', url: 'https://a.example/oak.png' },
            alt: 'Oak',
            shape: null,
            hash: 'f00',
          },
        ],
      },
      { id: 'q', media: [] },
    ])
    expect(rows['brands']).toMatchObject([{ id: 'b', look: { sign: 'The yard', words: 'Literata' } }])
  })

  it('of today come out as they are', () => {
    const rows = upgradeRows(schema1(), 1)
    expect(upgradeRows(rows, SCHEMA)).toBe(rows)
  })

  it('come in with their bundle', () => {
    const bundle = readBundle(bundleOfSchema1())
    expect(bundle.rows.pieces[0]?.title).toBe('A seam')
    expect(bundle.rows.texts).toHaveLength(1)
  })

  it('with a wrong row are refused by file and line, as those of today are', () => {
    const files = unzipSync(bundleOfSchema1())
    const text = strFromU8(files['pieces.jsonl'] ?? new Uint8Array())
    files['pieces.jsonl'] = strToU8(text.replace('"title":"A seam"', '"title":7'))
    expect(() => readBundle(zipSync(files))).toThrow(/pieces\.jsonl, line 1: title/)
  })
})

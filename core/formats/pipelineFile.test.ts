import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { Pipeline, type WordList } from '../model'
import { anAccount, aPipeline, aRow, aSource } from '../model/samples'
import { NETWORKS } from '../networks'
import { readDayRule } from '../planning'
import { matchingFor, PipelineFile, pipelineOf, readPipeline, STARTERS, writePipeline } from '.'

const now = '2026-11-24T10:00:00.000Z'
const list: WordList = { id: 'l1', brand: 'brand', name: 'Not us', words: ['sale', 'prize'] }
const accounts = [
  anAccount({ id: 'a', handle: 'yard' }),
  anAccount({ id: 'b', network: 'guildhall', handle: 'hall' }),
]
const sources = [
  aSource({ id: 's1' }),
  aSource({ id: 's2', title: 'Films', url: 'https://films.example/feed' }),
]
const rich = aPipeline({
  takeIn: {
    ...aPipeline().takeIn,
    sources: ['s1', 's2', 'gone'],
    sieve: [
      { kind: 'words', need: 'none', words: ['x'], lists: ['l1'], where: 'the title' },
      { kind: 'source', take: true, sources: ['s2'] },
    ],
  },
  release: [
    aRow({
      id: 'r1',
      accounts: ['b', 'a'],
      pieces: { kind: 'that', rules: [{ kind: 'source', take: true, sources: ['s1'] }] },
    }),
    aRow({ id: 'r2', accounts: ['a'], pieces: { kind: 'rest' }, by: { kind: 'soon', hours: 3 } }),
  ],
  follows: [
    { kind: 'sheet', id: 'f1', title: 'Archive' },
    { kind: 'pipeline', id: 'f2', pipeline: 'p2', takes: 'the finished piece' },
    { kind: 'pipeline', id: 'f3', pipeline: 'gone', takes: 'the published posts' },
  ],
})
let n = 0
const taken = (
  text: string,
  around: {
    accounts: typeof accounts
    sources: typeof sources
    lists?: WordList[]
    pipelines?: { id: string; name: string }[]
  },
) => {
  const file = readPipeline(text)
  return pipelineOf(file, matchingFor(file, { pipelines: [], ...around }), {
    id: 'new',
    brand: 'other',
    name: file.name,
    now,
    newId: () => `id-${n++}`,
    lists: around.lists ?? [],
  })
}

describe('a pipeline’s file', () => {
  const text = writePipeline(rich, {
    accounts,
    sources,
    lists: [list],
    pipelines: [{ id: 'p2', name: 'The community round' }],
  })

  it('names no record of the brand it comes from', () => {
    const { recipe } = JSON.parse(text) as PipelineFile
    expect(recipe.takeIn.sources).toEqual(['source 1', 'source 2'])
    expect(recipe.release.map((r) => r.accounts)).toEqual([['account 2', 'account 1'], ['account 1']])
    expect(text).not.toMatch(/"(?:s1|s2|l1|gone|brand)"/)
  })

  it('comes back into its own brand as it was, switched off', () => {
    const { pipeline, lists } = taken(text, { accounts, sources, lists: [list] })
    expect(lists).toEqual([])
    expect(Pipeline.parse(pipeline)).toMatchObject({ on: false, name: 'Journal', brand: 'other', version: 1 })
    expect(pipeline.takeIn).toEqual({ ...rich.takeIn, sources: ['s1', 's2'], since: now })
    expect(pipeline.release.map((r) => ({ ...r, id: '' }))).toEqual(
      rich.release.map((r) => ({ ...r, id: '' })),
    )
    expect(pipeline.make).toEqual(rich.make)
  })

  it('goes into another brand by what suits there: its accounts by network, its word lists made anew', () => {
    const theirs = [anAccount({ id: 'x', handle: 'huts' }), anAccount({ id: 'y', handle: 'more.huts' })]
    const { pipeline, lists } = taken(text, {
      accounts: theirs,
      sources: [aSource({ id: 'z', url: 'https://huts.example/feed', title: 'Huts' })],
    })
    // The one on the network that suits stands for the account; there is none on the other network.
    expect(pipeline.release.map((r) => r.accounts)).toEqual([['x'], ['x']])
    expect(pipeline.takeIn.sources).toEqual([])
    expect(lists).toMatchObject([{ brand: 'other', name: 'Not us', words: ['sale', 'prize'] }])
    expect(pipeline.takeIn.sieve[0]).toMatchObject({ lists: [lists[0]?.id] })
  })

  it('hands on to the brand’s pipeline of the same name, and to nobody where there is none', () => {
    const follows = (pipelines: { id: string; name: string }[]) =>
      taken(text, { accounts, sources, pipelines }).pipeline.follows.map((f) => [
        f.kind,
        'pipeline' in f ? f.pipeline : null,
      ])
    expect(follows([{ id: 'mine', name: 'The community round' }])).toEqual([
      ['sheet', null],
      ['pipeline', 'mine'],
    ])
    expect(follows([{ id: 'mine', name: 'Another' }])).toEqual([['sheet', null]])
  })

  it('of a time when nothing followed is read as one after which nothing follows', () => {
    const old = JSON.parse(text) as { pipelines?: unknown; recipe: { follows?: unknown } }
    delete old.pipelines
    delete old.recipe.follows
    expect(readPipeline(JSON.stringify(old))).toMatchObject({ pipelines: [], recipe: { follows: [] } })
  })

  it('that is none, or wrong, is refused with what is wrong and where', () => {
    expect(() => readPipeline('hello')).toThrow(/it is not JSON/)
    expect(() => readPipeline('{"format":"x"}')).toThrow(/does not say/)
    expect(() => readPipeline('null')).toThrow(/does not say/)
    const broken = text.replace('"kind": "soon"', '"kind": "later"')
    expect(() => readPipeline(broken)).toThrow(/recipe\.release\.1\.by/)
    expect(() => readPipeline(text.replace('"schema": 1', '"schema": 2'))).toThrow(/at schema/)
  })

  /* `npx vitest run core/formats/pipelineFile -u` writes it anew. */
  it('is described by the schema that stands in the documents', async () => {
    const schema = z.toJSONSchema(PipelineFile, { io: 'input' })
    await expect(`${JSON.stringify(schema, null, 2)}\n`).toMatchFileSnapshot(
      '../../docs/pipeline.schema.json',
    )
  })
})

describe('the starters', () => {
  const all = NETWORKS.map((p) => anAccount({ id: p.id, network: p.id, handle: p.id }))
  const several = [
    aSource({ id: 'feed' }),
    aSource({ id: 'sheet', kind: 'sheet', url: null, title: 'Dates' }),
  ]

  it('are the files of their folder', () => {
    expect(STARTERS).toHaveLength(readdirSync(join(import.meta.dirname, 'starters')).length)
    expect(new Set(STARTERS.map((s) => s.name)).size).toBe(STARTERS.length)
  })

  it.each(STARTERS.map((s) => [s.name, s] as const))(
    '%s finds its accounts and sources in a full brand',
    (_, file) => {
      const networks = new Set(NETWORKS.map((p) => p.id))
      for (const a of file.accounts) expect(a.networks.filter((id) => !networks.has(id))).toEqual([])
      const { pipeline } = taken(JSON.stringify(file), { accounts: all, sources: several })
      expect(Pipeline.parse(pipeline).takeIn.sources.length).toBeGreaterThan(0)
      expect(pipeline.release.every((r) => r.accounts.length > 0)).toBe(true)
      for (const { by } of pipeline.release) if (by.kind === 'rule') readDayRule(by.rule)
      // Nothing is asked for that the recipe does not use, and no key is left in it.
      const said = JSON.stringify(file.recipe)
      for (const { key } of [...file.accounts, ...file.sources]) expect(said).toContain(`"${key}"`)
      expect(pipeline.release.flatMap((r) => r.accounts).filter((id) => !networks.has(id))).toEqual([])
      expect(pipeline.takeIn.sources.filter((id) => !several.some((x) => x.id === id))).toEqual([])
    },
  )
})

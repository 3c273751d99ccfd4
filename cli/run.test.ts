import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { network, NETWORKS } from '../core/networks'
import { FaultBody } from '../core/model'
import { CaptionRow, CardOutput, MaterialRow, PassageRow, ReadOutput } from './output'
import { run } from './run'

const folder = mkdtempSync(join(tmpdir(), 'dripline-cli-'))
const file = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}

const ARTICLE = `# Keeping a sourdough alive

A starter is flour, water and patience. Feed it every day at the same hour, with equal weights of flour and water.

## When it smells of vinegar

A sharp smell means hunger, not death. Throw half of the starter away and feed the rest twice in one day. By the second evening it will have doubled, and the smell will be of apples again.

Most starters that people throw away were alive. They had been left for ten days behind the milk, and nobody had looked under the grey liquid.

## How much to keep

Keep fifty grams. A bigger jar does not make a better loaf; it makes more waste. We bake twelve loaves on a Saturday from one spoonful that was fed on Thursday night.

If you go away for a month, dry a thin layer of starter on baking paper. It keeps for two years in an envelope, and it wakes in three days.
`

const FEED = `<?xml version="1.0"?><rss version="2.0"><channel><title>Bench notes</title><link>https://bench.example/</link>
<item><title>On glue</title><link>/glue</link><guid isPermaLink="false">g1</guid><pubDate>Mon, 02 Nov 2026 10:00:00 +0100</pubDate>
<description><![CDATA[<p>Hide glue sets in four minutes at twenty degrees. Warm the wood first, and you have ten. We warm every joint with a hair dryer until it feels like a hand.</p><p>A joint that was glued cold looks perfect for a year. Then the first dry winter opens it along the whole seam, and no clamp will close it again.</p>]]></description></item></channel></rss>`

/** Runs a command line and gives what it printed, parsed, and its status. */
async function cli(...args: string[]): Promise<{ status: number; out: unknown[]; err: unknown[] }> {
  const out: string[] = []
  const err: string[] = []
  const status = await run(args, { out: (l) => out.push(l), err: (l) => err.push(l) })
  const parse = (lines: string[]): unknown[] => lines.map((l) => (/^[[{]/.test(l) ? JSON.parse(l) : l))
  return { status, out: parse(out), err: parse(err) }
}

let article: string
let feed: string
beforeAll(() => {
  article = file('starter.md', ARTICLE)
  feed = file('feed.xml', FEED)
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

describe('read', () => {
  it('recognises a feed and makes its addresses absolute and its dates UTC', async () => {
    const { status, out } = await cli('read', feed, '--url', 'https://bench.example/feed')
    expect(status).toBe(0)
    const result = ReadOutput.parse(out[0])
    expect(result).toMatchObject({
      kind: 'feed',
      feed: {
        title: 'Bench notes',
        items: [
          {
            title: 'On glue',
            id: 'g1',
            url: 'https://bench.example/glue',
            publishedAt: '2026-11-02T09:00:00.000Z',
          },
        ],
      },
    })
  })

  it('reads writing into a piece whose every place cuts its own words out of the text', async () => {
    const { out } = await cli('read', article)
    const result = ReadOutput.parse(out[0])
    if (result.kind !== 'piece') throw new Error('not a piece')
    const { piece } = result
    expect(piece.title).toBe('Keeping a sourdough alive')
    expect(piece.blocks.map((b) => piece.text.slice(b.start, b.end)).join('\n\n')).toBe(piece.text)
    expect(piece.sentences.map((s) => piece.text.slice(s.start, s.end))).toContain(
      'A sharp smell means hunger, not death.',
    )
  })

  it('reads a transcript with times when told to', async () => {
    const path = file(
      'talk.txt',
      '00:01.000 --> 00:03.000\nWe begin with the keel.\n\n00:03.500 --> 00:05.000\nThen the frames.',
    )
    const { out } = await cli('read', path, '--as', 'transcript')
    expect(out[0]).toMatchObject({ kind: 'piece', piece: { sentences: [{ from: 1 }, { from: 3.5, to: 5 }] } })
  })
})

describe('passages', () => {
  it('gives whole sentences of the text, best first, as many as asked for', async () => {
    const { out } = await cli('passages', article, '--count', '2')
    const rows = PassageRow.array().parse(out[0])
    expect(rows).toHaveLength(2)
    expect([...rows].sort((a, b) => b.score - a.score)).toEqual(rows)
    const read = ReadOutput.parse((await cli('read', article)).out[0])
    if (read.kind !== 'piece') throw new Error('not a piece')
    for (const row of rows) expect(read.piece.text.slice(row.start, row.end)).toBe(row.text)
  })
})

describe('material', () => {
  it('gives what angles are made of, each in its place, in the order of the text', async () => {
    const { out } = await cli('material', article)
    const rows = MaterialRow.array().parse(out[0])
    const read = ReadOutput.parse((await cli('read', article)).out[0])
    if (read.kind !== 'piece') throw new Error('not a piece')
    expect(rows.map((r) => r.start)).toEqual(rows.map((r) => r.start).sort((a, b) => a - b))
    const lessons = rows.filter((r) => r.kind === 'lesson').map((r) => read.piece.text.slice(r.start, r.end))
    expect(lessons).toContain('A sharp smell means hunger, not death.')
    expect(rows.filter((r) => r.kind === 'claim')).toHaveLength(1)
  })
})

describe('captions', () => {
  it('gives a row for every beat and network, within the limit, the same for the same seed', async () => {
    const args = ['captions', article, '--networks', 'murmur,guildhall', '--rhythm', 'swell', '--seed', '4']
    const { out } = await cli(...args)
    const rows = CaptionRow.array().parse(out[0])
    expect(rows).toHaveLength(12)
    expect(rows.filter((r) => r.text !== null).length).toBeGreaterThan(1)
    for (const row of rows)
      expect(row.length).toBeLessThanOrEqual(network(row.network).text.limit ?? Infinity)
    expect((await cli(...args)).out).toEqual(out)
  })

  it('writes where a network demands a picture the piece has not got, and says that it is missing', async () => {
    const { out } = await cli('captions', article, '--networks', 'shutterleaf', '--rhythm', 'Echo')
    const rows = CaptionRow.array().parse(out[0])
    expect(rows.some((r) => r.text !== null)).toBe(true)
    for (const row of rows.filter((r) => r.text !== null))
      expect(row.checks).toContainEqual(expect.objectContaining({ code: 'no-media', severity: 'block' }))
  })

  it('writes for all nine networks, with titles, summaries and tags where they have them', async () => {
    const { out } = await cli('captions', article, '--rhythm', 'Echo', '--url', 'https://bread.example/a')
    const rows = CaptionRow.array().parse(out[0])
    expect(new Set(rows.map((r) => r.network))).toEqual(new Set(NETWORKS.map((n) => n.id)))
    for (const row of rows.filter((r) => r.text !== null)) {
      const profile = network(row.network)
      expect(row.title !== undefined, row.network).toBe(profile.title !== null)
      expect(row.tags !== undefined && row.tags.length > 0).toBe(profile.tags !== null)
      expect(profile.formats).toContain(row.format)
      expect(row.limit).toBe(profile.text.limit)
    }
  })

  it('goes by a brief: its length, its angle, no link; and adds other wordings where asked', async () => {
    const brief = file(
      'brief.json',
      JSON.stringify({ network: 'murmur', length: { least: 40, most: 200 }, link: 'none', hashtags: 0 }),
    )
    const args = ['captions', article, '--networks', 'murmur', '--brief', brief, '--wordings', '2']
    const rows = CaptionRow.array().parse((await cli(...args)).out[0])
    const texts = rows.flatMap((r) => r.text ?? [])
    expect(texts.length).toBeGreaterThan(0)
    for (const text of texts) {
      expect(text.length).toBeLessThanOrEqual(200)
      expect(text).not.toMatch(/https?:|#/)
    }
    expect(rows.some((r) => (r.wordings?.length ?? 0) > 0)).toBe(true)
    expect(rows.every((r) => (r.wordings?.length ?? 0) <= 2)).toBe(true)
    const orders = CaptionRow.array().parse((await cli(...args, '--angle', 'how-to')).out[0])
    for (const row of orders.filter((r) => r.text !== null)) expect(row.angle).toBe('how-to')
  })

  it('says a piece is too thin rather than filling the beats', async () => {
    const thin = file('thin.md', 'Oil the hinge twice a year, and the gate will outlive you.')
    const { out } = await cli('captions', thin, '--networks', 'murmur', '--rhythm', 'Tide')
    const rows = CaptionRow.array().parse(out[0])
    expect(rows).toHaveLength(7)
    expect(
      rows.filter((r) => r.text === null).every((r) => r.checks.some((c) => c.code === 'too-thin')),
    ).toBe(true)
    expect(rows.some((r) => r.text === null)).toBe(true)
  })

  it('never says what the house style forbids, and takes its standing hashtags', async () => {
    const house = file(
      'house.json',
      JSON.stringify({ neverSay: ['starter'], hashtags: ['SlowBread'], brand: 'Crumb' }),
    )
    const { out } = await cli('captions', article, '--networks', 'murmur', '--house', house)
    const texts = CaptionRow.array()
      .parse(out[0])
      .flatMap((r) => r.text ?? [])
    expect(texts.length).toBeGreaterThan(0)
    for (const text of texts) expect(text).not.toMatch(/starter/i)
    expect(texts.some((t) => t.includes('#SlowBread'))).toBe(true)
  })

  it('takes one item of a feed by its number and refuses to guess', async () => {
    const chosen = await cli('captions', feed, '--item', '1', '--networks', 'murmur', '--rhythm', 'Echo')
    expect(chosen.status).toBe(0)
    const unsaid = await cli('captions', feed, '--networks', 'murmur')
    expect(unsaid).toMatchObject({ status: 2, err: [{ code: 'needs-item', where: 'item' }] })
    expect(await cli('captions', feed, '--item', '9')).toMatchObject({
      status: 2,
      err: [{ code: 'needs-item' }],
    })
  })
})

describe('plan', () => {
  it('places posts in the slots and says why where it cannot', async () => {
    const path = file(
      'plan.json',
      JSON.stringify({
        now: '2026-11-24T08:00:00Z',
        accounts: [
          { id: 'a', network: 'murmur', zone: 'Europe/Lisbon', slots: [{ weekday: 3, at: '09:00' }] },
        ],
        posts: [
          { id: 'p', account: 'a', wished: '2026-11-25', latest: '2026-11-30' },
          { id: 'q', account: 'a', wished: '2026-11-25', latest: '2026-11-30' },
        ],
      }),
    )
    const { out } = await cli('plan', path)
    expect(out[0]).toMatchObject({
      posts: [
        { id: 'p', at: '2026-11-25T09:00:00.000Z' },
        { id: 'q', at: null, reasons: [{ code: 'taken' }, { code: 'room' }] },
      ],
    })
  })

  it('names the field of a wrong plan', async () => {
    const path = file('wrong.json', '{"now":"2026-11-24T08:00:00Z","accounts":[{"id":"a"}],"posts":[]}')
    expect(await cli('plan', path)).toMatchObject({
      status: 2,
      err: [{ code: 'bad-plan', where: 'accounts.0.network' }],
    })
    expect(await cli('plan', file('broken.json', '{"now":'))).toMatchObject({
      status: 2,
      err: [{ code: 'bad-plan' }],
    })
  })
})

describe('the command line itself', () => {
  it('gives every fault as one object with a sentence, and status 2', async () => {
    const wrong: [string[], string][] = [
      [['fly', article], 'bad-request'],
      [['read'], 'bad-request'],
      [['read', join(folder, 'nothing.md')], 'bad-file'],
      [['read', file('empty.md', '  ')], 'bad-file'],
      [['read', file('binary.bin', 'a\0b\0c')], 'bad-file'],
      [['read', article, '--as', 'poem'], 'bad-request'],
      [['read', article, '--loud'], 'bad-request'],
      [['passages', article, '--count', 'many'], 'bad-request'],
      [['captions', article, '--networks', 'nowhere'], 'unknown-network'],
      [['captions', article, '--rhythm', 'Waltz'], 'bad-request'],
      [['captions', article, '--angle', 'obtuse'], 'bad-request'],
      [['captions', article, '--brief', file('b.json', '{"network":"nowhere"}')], 'unknown-network'],
      [['captions', article, '--brief', file('b2.json', '{"length":3}')], 'bad-file'],
      [['captions', article, '--house', file('h.json', '{"hashtags":["two words"]}')], 'bad-file'],
      [['captions', article, '--house', file('h2.json', '{')], 'bad-file'],
    ]
    for (const [args, code] of wrong) {
      const { status, out, err } = await cli(...args)
      expect([args[0], status, out]).toEqual([args[0], 2, []])
      const fault = FaultBody.parse(err[0])
      expect(fault.code).toBe(code)
      expect(fault.message).toMatch(/^[A-Z/“-].*\.$/s)
    }
  })

  it('goes on after a bad file and ends with status 2', async () => {
    const { status, out } = await cli('passages', article, join(folder, 'gone.md'), feed, '--item', '1')
    expect(status).toBe(2)
    expect(out).toHaveLength(3)
    expect(out[0]).toMatchObject({ file: article, result: expect.any(Array) })
    expect(out[1]).toMatchObject({ error: { code: 'bad-file' } })
    expect(out[2]).toMatchObject({ file: feed, result: expect.any(Array) })
  })

  it('draws a card in a look and a shape, the same each time, and says what a card or look lacks', async () => {
    const words = file(
      'card.json',
      '{"layout": "number", "head": "18 per cent", "text": "A plank 船 swells."}',
    )
    const look = file('look.json', '{"accent": "#a8432d", "sign": "The yard"}')
    const { status, out } = await cli('card', words, '--look', look, '--shape', '4:5')
    expect(status).toBe(0)
    expect(out[0]).toMatchObject({ width: 1080, height: 1350, missing: ['船'] })
    const { svg } = CardOutput.parse(out[0])
    expect(svg).toContain('fill="#a8432d"')
    expect(svg).not.toContain('<text')
    expect((await cli('card', words, '--look', look, '--shape', '4:5')).out).toEqual(out)
    const bad = async (...args: string[]): Promise<unknown> => (await cli('card', ...args)).err[0]
    expect(await bad(file('half.json', '{"layout": "number", "text": "A plank."}'))).toMatchObject({
      message: expect.stringMatching(/Number with its unit.+empty/),
    })
    expect(await bad(words, '--look', file('bad.json', '{"ground": "paper"}'))).toMatchObject({
      message: expect.stringMatching(/^The look is not right at ground/),
    })
    expect(await bad(words, '--look', file('face.json', '{"words": "Unknown"}'))).toMatchObject({
      message: expect.stringMatching(/^The look is not right at words/),
    })
    expect(await bad(words, '--shape', 'tall')).toMatchObject({ where: 'shape' })
  })

  it('documents every verb with an example', async () => {
    const { status, out } = await cli('--help')
    expect(status).toBe(0)
    for (const verb of ['read', 'passages', 'captions', 'card', 'plan'])
      expect(out[0]).toContain(`dripline ${verb} `)
    expect((await cli()).status).toBe(2)
  })

  it('runs as a program: JSON on one stream, the fault on the other', () => {
    const bin = join(import.meta.dirname, '../bin/dripline.mjs')
    const good = spawnSync(process.execPath, [bin, 'read', article], { encoding: 'utf8' })
    expect([good.status, good.stderr]).toEqual([0, ''])
    expect(JSON.parse(good.stdout)).toMatchObject({ kind: 'piece' })
    const bad = spawnSync(process.execPath, [bin, 'read', join(folder, 'gone.md')], { encoding: 'utf8' })
    expect([bad.status, bad.stdout]).toEqual([2, ''])
    expect(JSON.parse(bad.stderr)).toMatchObject({ code: 'bad-file' })
  })
})

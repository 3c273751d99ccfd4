import { createHash } from 'node:crypto'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { adoptRows, SCHEMA, readBundle, writeBundle, type Bundle } from '.'
import { TABLE_NAMES, type Post, type Rows } from '../model'
import { aBrand, aDrip, aPiece, aPost, aRecurrence, aText, anAccount, aWorkspace } from '../model/samples'

const PICTURE = new Uint8Array([1, 2, 3, 4])
const HASH = createHash('sha256').update(PICTURE).digest('hex')

function sample(change: Partial<Rows> = {}): Bundle {
  const rows = Object.fromEntries(TABLE_NAMES.map((t) => [t, []])) as unknown as Rows
  return {
    workspace: 'ws',
    madeAt: '2026-11-24T10:00:00.000Z',
    rows: {
      ...rows,
      workspace: [aWorkspace()],
      brands: [aBrand()],
      accounts: [anAccount()],
      pieces: [aPiece()],
      texts: [aText()],
      drips: [aDrip()],
      posts: [aPost()],
      media: [{ id: HASH, type: 'image/png', width: 3, height: 2, bytes: 4 }],
      ...change,
    },
    media: new Map([[HASH, PICTURE]]),
  }
}

/** A bundle's bytes with one of its files changed, or taken out. */
function tampered(name: string, change: (text: string) => string | null): Uint8Array {
  const files = unzipSync(writeBundle(sample()))
  const after = change(strFromU8(files[name] ?? new Uint8Array()))
  if (after === null) delete files[name]
  else files[name] = strToU8(after)
  return zipSync(files)
}

const refusal = (bytes: Uint8Array): { code: string; message: string; where: string | null } => {
  try {
    readBundle(bytes)
  } catch (error) {
    return error as { code: string; message: string; where: string | null }
  }
  throw new Error('The bundle was taken.')
}

describe('a bundle', () => {
  it('comes back as it went out, media and all', () => {
    const bundle = sample()
    expect(readBundle(writeBundle(bundle))).toEqual(bundle)
  })

  it('is the same bytes for the same workspace at the same moment, whatever the order of rows', () => {
    const two = [aPost({ id: 'a' }), aPost({ id: 'b' })]
    expect(writeBundle(sample({ posts: two }))).toEqual(writeBundle(sample({ posts: [...two].reverse() })))
  })

  it('is a plain zip of JSON Lines that other programs can read', () => {
    const files = unzipSync(writeBundle(sample()))
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining(['dripline.json', 'posts.jsonl', `media/${HASH}`]),
    )
    expect(JSON.parse(strFromU8(files['posts.jsonl'] ?? new Uint8Array()).trim())).toMatchObject({
      id: 'post',
    })
  })

  it('holds no token and no key', () => {
    const files = unzipSync(writeBundle(sample()))
    for (const [name, bytes] of Object.entries(files))
      expect([name, /token|secret|password/i.test(strFromU8(bytes))]).toEqual([name, false])
  })
})

describe('a broken bundle', () => {
  it('that is no zip, or was cut off, is refused with a sentence', () => {
    const whole = writeBundle(sample())
    for (const bytes of [new Uint8Array(), strToU8('PK but not really'), whole.slice(0, whole.length / 2)])
      expect(refusal(bytes)).toMatchObject({
        code: 'bad-bundle',
        message: expect.stringMatching(/nothing was changed/),
      })
  })

  it('without its header, or of another program, is refused', () => {
    expect(refusal(tampered('dripline.json', () => null)).message).toMatch(/not a Dripline bundle/)
    expect(refusal(tampered('dripline.json', () => '{"format":"other"}')).where).toBe('dripline.json')
  })

  it('of a newer Dripline says so', () => {
    const bytes = tampered('dripline.json', (t) => t.replace(`"schema":${SCHEMA}`, '"schema":99'))
    expect(refusal(bytes).message).toMatch(/newer Dripline \(schema 99.*Update first/)
  })

  it('with a wrong row names the file, the line and the field', () => {
    const bytes = tampered('posts.jsonl', (t) => `${t}${t.replace('"state":"approved"', '"state":"flying"')}`)
    const fault = refusal(bytes)
    expect(fault.where).toBe('posts.jsonl, line 2')
    expect(fault.message).toMatch(/damaged in \d places: posts\.jsonl, line 2: state /)
    expect(refusal(tampered('posts.jsonl', () => '{oops')).message).toMatch(/line 1 is not JSON/)
  })

  it('with a table, a reference or a picture missing is refused whole', () => {
    expect(refusal(tampered('drips.jsonl', () => null)).message).toMatch(/drips\.jsonl is missing/)
    expect(refusal(tampered('pieces.jsonl', () => '')).message).toMatch(
      /points at pieces piece, which is not in it/,
    )
    expect(refusal(tampered(`media/${HASH}`, () => null)).message).toMatch(/the picture is missing/)
    expect(refusal(tampered('workspace.jsonl', () => '')).message).toMatch(/holds no workspace/)
    expect(refusal(tampered('brands.jsonl', (t) => t.replace('Lisbon', 'Nowhere'))).code).toBe('bad-bundle')
  })
})

describe('a damaged bundle', () => {
  it('is refused, whichever single bit of it is another', () => {
    const whole = writeBundle(sample({ posts: [aPost({ id: 'a' }), aPost({ id: 'b' })] }))
    const taken: string[] = []
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(7), (at, bit) => {
        const bytes = whole.slice()
        bytes[at] = (bytes[at] ?? 0) ^ (1 << bit)
        try {
          readBundle(bytes)
          taken.push(`${at}.${bit}`)
        } catch (error) {
          expect(error).toMatchObject({
            code: 'bad-bundle',
            message: expect.stringMatching(/nothing was changed/i),
          })
        }
      }),
      { numRuns: 800 },
    )
    expect(taken).toEqual([])
  })

  it('whose header has lost its last byte is refused: the container says nothing of it', () => {
    expect(refusal(tampered('dripline.json', (t) => t.trimEnd())).message).toMatch(/header is not as it was/)
  })

  it('with another picture under a name, a row twice, or a file too much is refused by name', () => {
    expect(refusal(tampered(`media/${HASH}`, () => 'other')).message).toMatch(
      /a picture is another than its name/,
    )
    expect(refusal(tampered('media/more', () => 'more')).message).toMatch(
      /media\/more is not in the manifest/,
    )
    const twice = sample({ drips: [aDrip(), aDrip()] })
    expect(refusal(writeBundle(twice)).message).toMatch(/drips drip stands in it twice/)
  })

  it('that would unpack to far more than it is, is not opened', () => {
    const bomb = zipSync({ 'dripline.json': strToU8('{}'), 'posts.jsonl': new Uint8Array(40_000_000) })
    expect(bomb.length).toBeLessThan(200_000)
    expect(refusal(bomb).message).toMatch(/far more than a bundle can hold/)
  })

  it('packed anew by another program is whole as long as its files are', () => {
    expect(readBundle(zipSync(unzipSync(writeBundle(sample()))))).toEqual(sample())
    expect(readBundle(zipSync(unzipSync(writeBundle(sample())), { level: 0 }))).toEqual(sample())
  })
})

describe('taking a bundle in', () => {
  const states = (rows: Rows): [Post['state'], boolean][] => rows.posts.map((p) => [p.state, p.held !== null])
  const posts = (['draft', 'approved', 'handed over', 'published'] as const).map((state) =>
    aPost({ id: state, state }),
  )
  const now = '2026-12-01T00:00:00.000Z'

  it('in its own workspace keeps what was approved going, and hands over anew what was handed over', () => {
    const rows = adoptRows(sample({ posts }), 'ws', now)
    expect(states(rows)).toEqual([
      ['draft', false],
      ['approved', false],
      ['approved', false],
      ['published', false],
    ])
  })

  it('in another workspace holds what might already have gone out there', () => {
    const rows = adoptRows(sample({ posts }), 'elsewhere', now)
    expect(states(rows)).toEqual([
      ['draft', false],
      ['approved', true],
      ['approved', true],
      ['published', false],
    ])
    expect(rows.workspace[0]).toMatchObject({ id: 'elsewhere', receiptCursor: 0 })
    const again = { recurrences: [aRecurrence()] }
    expect(adoptRows(sample(again), 'elsewhere', now).recurrences[0]?.held?.since).toBe(now)
    expect(adoptRows(sample(again), 'ws', now).recurrences[0]?.held).toBeNull()
  })
})

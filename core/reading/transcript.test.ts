import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { findChapters, read, readTranscript } from '.'
import { parseCues } from './transcript'

const stamp = (s: number): string =>
  `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}.000`
const vtt = (...cues: [from: number, to: number, text: string][]): string =>
  `WEBVTT\n\n${cues.map(([a, b, text]) => `${stamp(a)} --> ${stamp(b)}\n${text}`).join('\n\n')}`
const words = (text: string): string[] => parseCues(text).map((c) => c.text)
const talk = (text: string) => readTranscript(text, { title: 'A talk' })

describe('the forms of timed text', () => {
  const said = [
    [1, 4, 'Rake the seam.'],
    [4, 6.5, 'Then brush it.'],
  ]
  it.each([
    [
      'WebVTT',
      'WEBVTT\n\n00:01.000 --> 00:04.000\nRake the seam.\n\n00:04.000 --> 00:06.500\nThen brush it.',
    ],
    [
      'WebVTT with notes, styles, names and settings',
      'WEBVTT - seams\nKind: captions\n\nNOTE made by hand\n\nSTYLE\n::cue { color: red }\n\nfirst\n00:01.000 --> 00:04.000 align:start position:0%\n<c.yellow>Rake</c> the <00:00:02.000>seam.\n\n00:04.000 --> 00:06.500\nThen brush it.',
    ],
    [
      'SubRip with Windows line ends and a byte-order mark',
      '\uFEFF1\r\n00:00:01,000 --> 00:00:04,000\r\n<i>Rake the seam.</i>\r\n\r\n2\r\n00:00:04,000 --> 00:00:06,500\r\n{\\an8}Then brush it.\r\n',
    ],
    [
      'SubRip without blank lines',
      '1\n00:00:01,000 --> 00:00:04,000\nRake the seam.\n2\n00:00:04,000 --> 00:00:06,500\nThen brush it.',
    ],
    [
      'two times and a comma',
      '0:00:01.000,0:00:04.000\nRake the seam.\n\n0:00:04.000,0:00:06.500\nThen brush it.',
    ],
    [
      'the JSON of the podcast namespace',
      '{"version":"1.0.0","segments":[{"startTime":1,"endTime":4,"body":"Rake the seam."},{"startTime":4,"endTime":6.5,"body":"Then brush it."}]}',
    ],
    ['out of order', vtt([4, 6, 'Then brush it.'], [1, 4, 'Rake the seam.']).replace('06.000', '06.500')],
  ])('%s is read', (_, text) => {
    expect(parseCues(text).map((c) => [c.from, c.to, c.text])).toEqual(said)
  })

  it('lines that begin with a time last until the next, or as long as their words take', () => {
    expect(parseCues('0:01 Rake the seam.\n(0:04) Then\nbrush it.\n[0:30] – Stop.')).toMatchObject([
      { from: 1, to: 3, text: 'Rake the seam.' },
      { from: 4, to: 6, text: 'Then brush it.' },
      { from: 30, to: 32, text: 'Stop.' },
    ])
  })

  it.each([
    ['words without times', 'Rake the seam.'],
    ['nothing', ''],
    ['a header alone', 'WEBVTT\n\nNOTE nothing yet'],
    ['times without words', vtt([1, 4, '']).trim()],
    ['a cue that ends before it begins', vtt([9, 4, 'Rake the seam.'])],
    ['a page', '<html><body><p>Rake the seam.</p></body></html>'],
    ['JSON of something else', '{"cues":[{"start":1}]}'],
    ['JSON that is cut off', '{"segments":[{"startTime":1,'],
    ['a time that is none', 'aa:bb --> cc:dd\nRake the seam.'],
  ])('%s: refused with a sentence', (_, text) => {
    expect(() => parseCues(text)).toThrow(/no timed lines|not a transcript/)
  })
})

describe('captions that roll', () => {
  it('lose the line they show again', () => {
    expect(
      words(
        vtt(
          [0, 2, 'we pull the old'],
          [2, 4, 'we pull the old\ncotton out with a'],
          [4, 6, 'cotton out with a\nbent file'],
        ),
      ),
    ).toEqual(['we pull the old', 'cotton out with a', 'bent file'])
  })

  it('that grow word by word come out once', () => {
    expect(
      words(vtt([0, 1, 'a seam'], [1, 2, 'a seam wants two'], [2, 3, 'a seam wants two strands'])),
    ).toEqual(['a seam', 'wants two', 'strands'])
  })

  it('do not swallow a word that is said twice, or said again later', () => {
    expect(words(vtt([0, 1, 'No.'], [1, 2, 'No.'], [20, 22, 'Rake it.'], [40, 42, 'Rake it.']))).toEqual([
      'No.',
      'No.',
      'Rake it.',
      'Rake it.',
    ])
  })

  it('say the same as the captions they were made from, however many lines they show', () => {
    const line = fc.array(fc.constantFrom('oak', 'tar', 'seam', 'plank', 'cold', 'the', 'drive'), {
      minLength: 3,
      maxLength: 6,
    })
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 1, max: 3 }),
        (said, shown) => {
          // Each line is numbered, so that none repeats another by chance.
          const lines = said.map((l, i) => `${l.join(' ')} ${i}`)
          const rolling = lines.map((_, i): [number, number, string] => [
            i * 2,
            i * 2 + 2,
            lines.slice(Math.max(0, i - shown + 1), i + 1).join('\n'),
          ])
          expect(words(vtt(...rolling)).join(' ')).toBe(lines.join(' '))
        },
      ),
    )
  })
})

describe('speakers', () => {
  it('are taken off the words where their names come back, and kept with their paragraphs', () => {
    const piece = talk(
      vtt(
        [0, 2, 'RITA VANCE: How do you know it is dry?'],
        [2, 4, 'Tomas: You lay your palm on it.'],
        [4, 6, 'If it is cold it is wet.'],
        [6, 8, 'RITA VANCE: And in the winter?'],
      ),
    )
    expect(piece.blocks.map((b) => [b.speaker, piece.text.slice(b.start, b.end)])).toEqual([
      ['Rita Vance', 'How do you know it is dry?'],
      ['Tomas', 'You lay your palm on it. If it is cold it is wet.'],
      ['Rita Vance', 'And in the winter?'],
    ])
  })

  it('are not what a speaker announces, nor a thing that is talked of', () => {
    const cues = parseCues(
      vtt(
        [0, 2, 'Rita: How do you begin?'],
        [2, 4, 'Tomas: With the boards.'],
        [4, 6, 'Remember: sand first.'],
        [6, 8, 'Varnish: two coats of it, and good varnish wants a day.'],
        [8, 10, 'Rita: And then?'],
        [10, 12, 'Tomas: Then you wait.'],
      ),
    )
    expect(cues.map((c) => [c.speaker, c.text])).toEqual([
      ['Rita', 'How do you begin?'],
      ['Tomas', 'With the boards.'],
      ['Tomas', 'Remember: sand first.'],
      ['Tomas', 'Varnish: two coats of it, and good varnish wants a day.'],
      ['Rita', 'And then?'],
      ['Tomas', 'Then you wait.'],
    ])
  })

  it('are read from voice tags', () => {
    expect(parseCues(vtt([0, 2, '<v Rita Vance>Rake it.'], [2, 3, 'Then stop.']))).toMatchObject([
      { speaker: 'Rita Vance', text: 'Rake it.' },
      { speaker: 'Rita Vance', text: 'Then stop.' },
    ])
  })

  it('a word before a colon is no speaker', () => {
    const cues = parseCues(vtt([0, 2, 'Remember: rake first.'], [2, 4, 'One rule: never push.']))
    expect(cues.map((c) => [c.speaker, c.text])).toEqual([
      [null, 'Remember: rake first.'],
      [null, 'One rule: never push.'],
    ])
  })
})

describe('sentences in time', () => {
  it('never run backwards, and stand inside the talk, whatever the cues', () => {
    const cue = fc.tuple(
      fc.integer({ min: 1, max: 9 }),
      fc.integer({ min: 0, max: 5 }),
      fc.array(fc.constantFrom('Rake', 'it', 'now.', 'Cold', 'oak,', 'wet?', 'and'), {
        minLength: 1,
        maxLength: 9,
      }),
    )
    fc.assert(
      fc.property(fc.array(cue, { minLength: 1, maxLength: 20 }), (cues) => {
        let at = 0
        const timed = cues.map(([length, gap, said]): [number, number, string] => {
          const from = at
          at += length + gap
          return [from, from + length, said.join(' ')]
        })
        const { sentences } = talk(vtt(...timed))
        for (const [i, s] of sentences.entries()) {
          expect(s.to ?? -1).toBeGreaterThanOrEqual(s.from ?? 0)
          expect(s.from ?? -1).toBeGreaterThanOrEqual(sentences[i - 1]?.from ?? 0)
          expect(s.to).toBeLessThanOrEqual(at)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('without punctuation are parted where the speaker draws breath', () => {
    const piece = talk(vtt([0, 3, 'first you rake the seam out'], [4, 7, 'then you brush the dust off']))
    expect(piece.blocks).toHaveLength(2)
  })

  it('do not run over the border of a chapter', () => {
    const text = vtt([0, 3, 'We rake.'], [3, 6, 'We drive.'], [6, 9, 'We pay.'])
    const chapters = [
      { at: 0, title: 'Raking' },
      { at: 6, title: 'Paying' },
    ]
    const piece = readTranscript(text, { title: 'A talk' }, chapters)
    expect(piece.blocks.map((b) => piece.text.slice(b.start, b.end))).toEqual([
      'We rake. We drive.',
      'We pay.',
    ])
  })
})

describe('a talk’s greeting and farewell', () => {
  it('are furniture, at their times, and nothing else is', () => {
    const piece = talk(
      vtt(
        [0, 4, 'Okay, so, hello everybody.'],
        [4, 8, 'Today I want to talk about mice. A mouse gets through nine millimetres.'],
        [8, 12, 'That’s it in a nutshell, and it works.'],
        [20, 24, 'Never open the hive to look. That’s it for today.'],
        [24, 28, 'I’ll see you in March.'],
      ),
    )
    expect(piece.blocks.map((b) => [piece.text.slice(b.start, b.end), b.furniture])).toEqual([
      ['Okay, so, hello everybody. Today I want to talk about mice.', 'greeting'],
      ['A mouse gets through nine millimetres. That’s it in a nutshell, and it works.', null],
      ['Never open the hive to look.', null],
      ['That’s it for today. I’ll see you in March.', 'farewell'],
    ])
    expect(piece.sentences.map((s) => Math.round(s.from ?? -1))).toEqual([0, 4, 6, 8, 20, 22, 24])
  })
})

it('a talk may end on a comparison; only a plea to like it is a farewell', () => {
  const ends = (last: string) =>
    talk(vtt([0, 6, 'A hazel is small.'], [6, 10, last])).blocks.at(-1)?.furniture
  expect(ends('Like a nut, it wants cracking.')).toBeNull()
  expect(ends('Like this video if it helped.')).toBe('farewell')
  expect(ends('Please subscribe.')).toBe('farewell')
})

describe('chapters found by topic', () => {
  const about = (topic: string[], from: number): [number, number, string][] =>
    Array.from({ length: 16 }, (_, i): [number, number, string] => [
      from + i * 8,
      from + i * 8 + 7,
      `The ${topic[i % 4] ?? ''} of the ${topic[(i + 1) % 4] ?? ''} shows a ${topic[(i + 2) % 4] ?? ''}.`,
    ])
  const two = vtt(
    ...about(['iron', 'stone', 'edge', 'burr'], 0),
    ...about(['kettle', 'cook', 'soup', 'onion'], 128),
  )

  it('stand where the words change, and are called after what is said in them', () => {
    const chapters = findChapters(talk(two))
    expect(chapters).toHaveLength(2)
    expect(chapters[0]?.at).toBe(0)
    expect(Math.abs((chapters[1]?.at ?? 0) - 128)).toBeLessThan(20)
    expect(chapters[0]?.title).toMatch(/iron|stone|edge|burr/i)
    expect(chapters[1]?.title).toMatch(/kettle|cook|soup|onion/i)
  })

  it('are not made up for a talk that holds together, or is short', () => {
    expect(findChapters(talk(vtt(...about(['iron', 'stone', 'edge', 'burr'], 0))))).toEqual([])
    expect(findChapters(talk(vtt([0, 4, 'A short word about oak.'])))).toEqual([])
  })
})

describe('a transcript from hostile hands', () => {
  const vtt = (words: string): string => `WEBVTT\n\n00:00:01.000 --> 00:00:04.000\n${words}\n`

  it('has its entities decoded, whatever they are', () => {
    expect(parseCues(vtt('Tom &amp; Ann &lt;sand&gt; it&#8217;s&nbsp;edge.'))[0]?.text).toBe(
      'Tom & Ann <sand> it’s edge.',
    )
  })

  it('of the podcast namespace is known for one without being told', async () => {
    const json =
      '{"version":"1.0.0","segments":[{"startTime":1,"endTime":4,"body":"Rake the seam out first."}]}'
    const found = await read(new TextEncoder().encode(json))
    expect(found.kind === 'piece' && found.piece.text).toBe('Rake the seam out first.')
  })

  it('keeps a time that is said as words', () => {
    const cues = parseCues('0:01 First we sand.\n12:30 is when we stop for lunch.\n0:15 Then we oil it.\n')
    expect(cues.map((c) => [c.from, c.text])).toEqual([
      [1, 'First we sand. 12:30 is when we stop for lunch.'],
      [15, 'Then we oil it.'],
    ])
  })

  it('takes times that begin anew, as a second part has them, for times', () => {
    const cues = parseCues('0:30 First we sand it.\n0:40 Then we oil it.\n0:05 The second part.\n')
    expect(cues.map((c) => c.from)).toEqual([5, 30, 40])
  })
})

import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Resvg } from '@resvg/resvg-js'
import { openFaces } from '../cli/faces'
import { facesOf, strokesOf, toSvg, type Faces } from '../core/cards'
import { usualLook } from '../core/model'
import { captionsOf, type Caption, type Recording } from '../world'
import { filmTexts, talkTexts, type FilmText } from '../demo/content'
import { pictureSvg } from '../demo/pictures'

/*
 * npm run films: makes the films of the demo's channel, and the huts' talks, from their texts. They are spoken by espeak-ng, a sentence at a time,
 * so that it is known when each caption is said, drawn as slides with a hand at work before them, and packed by ffmpeg. Both
 * programs come with Debian; they are needed only here. Films and the times of their captions lie in demo/films, talks in demo/talks.
 */

const FOLDER = join(import.meta.dirname, '../demo/films')
const TALKS = join(import.meta.dirname, '../demo/talks')
const WIDTH = 640
const HEIGHT = 360
const RATE = 8
/** Samples a second of what is spoken. */
const SOUND = 22_050
/** Seconds of silence after a sentence, and after a paragraph. */
const BREATH = 0.3
const PAUSE = 0.8
/** Who speaks how: voice, pitch and words a minute. */
const VOICES: Readonly<Record<string, readonly string[]>> = {
  Rita: ['-v', 'en-gb+f3', '-p', '52', '-s', '122'],
  Tomas: ['-v', 'en-gb+m3', '-p', '42', '-s', '116'],
  Joren: ['-v', 'en-gb+m7', '-p', '38', '-s', '128'],
}
/** What a film shows, a slide a part; a film of one part shows them in turn. */
const SLIDES: Readonly<Record<string, readonly string[]>> = {
  'first-day-afloat': ['launch-slip', 'bilge-dry', 'bailer-bucket', 'slip-morning'],
  'paying-a-seam': ['seam-payed', 'brush-tin', 'seam-section', 'mallet-iron', 'tool-row'],
  'reading-a-plank': ['loft-planks', 'board-end', 'two-boards', 'scarf-joint', 'screwdriver-plank'],
  'sharpening-an-iron': ['plane-shavings', 'block-plane', 'tool-row', 'mallet-iron', 'plane-shavings'],
}

interface Spoken {
  caption: Caption
  from: number
  to: number
}

/** Speaks a film; gives its sound as 16-bit samples and when each caption is said. */
function speak(captions: readonly Caption[], speaker: string): { sound: Buffer; spoken: Spoken[] } {
  const parts: Buffer[] = []
  const spoken: Spoken[] = []
  let clock = 0
  const add = (samples: Buffer): void => {
    parts.push(samples)
    clock += samples.length / 2 / SOUND
  }
  let sentence: Caption[] = []
  for (const caption of captions) {
    sentence.push(caption)
    if (!caption.ends && !/[.?!]$/.test(caption.text)) continue
    const text = sentence.map((c) => c.text).join(' ')
    const samples = sayIt(text, caption.speaker ?? speaker)
    const length = samples.length / 2 / SOUND
    let at = clock
    for (const part of sentence) {
      const to = at + (length * part.text.length) / sentence.reduce((sum, c) => sum + c.text.length, 0)
      spoken.push({ caption: part, from: at, to })
      at = to
    }
    add(samples)
    add(Buffer.alloc(2 * Math.round((caption.ends ? PAUSE : BREATH) * SOUND)))
    sentence = []
  }
  return { sound: Buffer.concat(parts), spoken }
}

/** One sentence without the silence at its ends. */
function sayIt(text: string, speaker: string): Buffer {
  const [name = ''] = speaker.split(' ')
  const voice = VOICES[name] ?? VOICES['Tomas'] ?? []
  const { stdout, status } = spawnSync('espeak-ng', [...voice, '--stdout', text], { maxBuffer: 1 << 28 })
  if (status !== 0) throw new Error('espeak-ng is missing or failed: install Debian’s package espeak-ng.')
  // Samples follow the header of 44 bytes.
  const samples = stdout.subarray(44)
  const loud = (i: number): boolean => Math.abs(samples.readInt16LE(i)) > 120
  let [from, to] = [0, samples.length - 2]
  while (from < to && !loud(from)) from += 2
  while (to > from && !loud(to)) to -= 2
  return Buffer.from(samples.subarray(from, to + 2))
}

/** A sleeve with a hand that holds a pencil, where a moment has it. */
function hand(at: number, speaking: boolean): string {
  const swing = speaking ? 1 : 0.15
  const x = 880 + swing * (70 * Math.sin(at * 2.1) + 30 * Math.sin(at * 5.3))
  const y = 390 + swing * (36 * Math.sin(at * 3.7) + 14 * Math.cos(at * 6.1))
  return `<g transform="translate(${x.toFixed(1)} ${y.toFixed(1)}) rotate(-14)"><path d="M60 60 L420 130 L420 330 L40 170 Z" fill="#2c4a4a"/><rect x="-30" y="20" width="130" height="140" rx="52" fill="#d9a77f"/><path d="M-60 40 h120 a22 22 0 0 1 0 44 h-120 a22 22 0 0 1 0 -44 Z M-40 92 h110 a20 20 0 0 1 0 40 h-110 a20 20 0 0 1 0 -40 Z" fill="#d09a70"/><path d="M-150 -70 L-20 60 L-40 80 L-170 -50 Z" fill="#e0b13a"/><path d="M-150 -70 L-190 -88 L-170 -50 Z" fill="#222"/></g>`
}

/** One frame of a film as SVG: its slide, slowly nearer, the hand, and what its part is called. */
function frame(film: FilmText, spoken: readonly Spoken[], at: number, seconds: number, faces: Faces): string {
  const now = spoken.findLast((s) => s.from <= at) ?? spoken[0]
  const slides = SLIDES[film.slug] ?? [film.picture]
  const part = film.parts.length > 1 ? (now?.caption.part ?? 0) : Math.floor((at / seconds) * slides.length)
  const slide = slides[part % slides.length] ?? film.picture
  const near = 1 + 0.08 * (0.5 - 0.5 * Math.cos(at / 9))
  const [w, h] = [1200 / near, 675 / near]
  const inner = (pictureSvg(slide) ?? '').replace(/^<svg[^>]*>|<\/svg>$/g, '')
  const speaking = now !== undefined && at < now.to
  const title = film.parts[now?.caption.part ?? 0]?.chapter ?? film.title
  const words = toSvg({
    width: 1200,
    height: 675,
    strokes: strokesOf(faces.strongLabels.run(title), 48, 628, 40, '#f4efe2'),
    words: [],
    code: null,
    missing: [],
  }).replace(/^<svg[^>]*>|<\/svg>\s*$/g, '')
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 1200 675"><svg x="0" y="0" width="1200" height="675" viewBox="${600 - w / 2} ${400 - h / 2} ${w} ${h}">${inner}</svg>${hand(at, speaking)}<rect x="0" y="570" width="1200" height="105" fill="#22302e"/>${words}</svg>`
}

async function make(film: FilmText, faces: Faces): Promise<void> {
  const { sound, spoken } = speak(captionsOf(film), film.speaker)
  const seconds = sound.length / 2 / SOUND
  const scratch = mkdtempSync(join(tmpdir(), 'film-'))
  const raw = join(scratch, 'sound.raw')
  writeFileSync(raw, sound)
  const mp4 = film.slug === 'paying-a-seam'
  const file = join(FOLDER, `${film.slug}.${mp4 ? 'mp4' : 'webm'}`)
  const packed = mp4
    ? [
        '-c:v',
        'libx264',
        '-preset',
        'slow',
        '-crf',
        '30',
        '-pix_fmt',
        'yuv420p',
        '-c:a',
        'aac',
        '-b:a',
        '32k',
      ]
    : [
        '-c:v',
        'libvpx-vp9',
        '-crf',
        '44',
        '-b:v',
        '0',
        '-cpu-used',
        '3',
        '-row-mt',
        '1',
        '-c:a',
        'libopus',
        '-b:a',
        '20k',
      ]
  const ffmpeg = spawn(
    'ffmpeg',
    [
      ...[
        '-y',
        '-loglevel',
        'error',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'rgba',
        '-s',
        `${WIDTH}x${HEIGHT}`,
        '-r',
        String(RATE),
        '-i',
        '-',
      ],
      ...['-f', 's16le', '-ar', String(SOUND), '-ac', '1', '-i', raw],
      ...packed,
      ...[
        '-g',
        String(RATE * 4),
        '-movflags',
        '+faststart',
        '-map_metadata',
        '-1',
        '-fflags',
        '+bitexact',
        file,
      ],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  const ended = endOf(ffmpeg)
  for (let i = 0; i < Math.ceil(seconds * RATE); i++) {
    const pixels = new Resvg(frame(film, spoken, i / RATE, seconds, faces)).render().pixels
    if (!ffmpeg.stdin.write(pixels)) await new Promise((resolve) => ffmpeg.stdin.once('drain', resolve))
  }
  ffmpeg.stdin.end()
  await ended
  rmSync(scratch, { recursive: true })
  tell(FOLDER, film.slug, mp4 ? 'video/mp4' : 'video/webm', seconds, spoken)
}

/** When a run of ffmpeg has ended. */
function endOf(ffmpeg: ChildProcess): Promise<void> {
  return new Promise((resolve, reject) => {
    ffmpeg.on('error', () => reject(new Error('ffmpeg is missing: install Debian’s package ffmpeg.')))
    ffmpeg.on('close', (code) => (code === 0 ? resolve() : reject(new Error(`ffmpeg ended with ${code}.`))))
  })
}

/** Writes down what a recording is and when each of its captions is said. */
function tell(
  folder: string,
  slug: string,
  type: Recording['type'],
  seconds: number,
  spoken: readonly Spoken[],
): void {
  const lines = spoken.map(({ from, to }) => [from, to].map((t) => Math.round(t * 1000) / 1000))
  const told = { type, seconds: Math.round(seconds * 1000) / 1000, lines }
  writeFileSync(join(folder, `${slug}.json`), `${JSON.stringify(told)}\n`)
  console.log(`${slug}: ${Math.round(seconds)} s`)
}

/** Makes a talk, which is only heard: an MP3. */
async function makeTalk(talk: FilmText): Promise<void> {
  const { sound, spoken } = speak(captionsOf(talk), talk.speaker)
  const file = join(TALKS, `${talk.slug}.mp3`)
  const packed = ['-c:a', 'libmp3lame', '-b:a', '24k', '-map_metadata', '-1', '-fflags', '+bitexact', file]
  const ffmpeg = spawn(
    'ffmpeg',
    ['-y', '-loglevel', 'error', '-f', 's16le', '-ar', String(SOUND), '-ac', '1', '-i', '-', ...packed],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  const ended = endOf(ffmpeg)
  ffmpeg.stdin.end(sound)
  await ended
  tell(TALKS, talk.slug, 'audio/mpeg', sound.length / 2 / SOUND, spoken)
}

const look = usualLook('Oakum Yard')
const faces = facesOf(look, await openFaces())
const only = process.argv[2]
for (const film of filmTexts()) if (!only || film.slug === only) await make(film, faces)
for (const talk of talkTexts()) if (!only || talk.slug === only) await makeTalk(talk)

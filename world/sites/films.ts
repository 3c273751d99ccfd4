import { escape } from '../html'

/** A film of a stand-in channel: what is said in it, in paragraphs, under its chapters. */
export interface SiteFilm {
  slug: string
  title: string
  speaker: string
  day: number
  picture: string
  tags: string[]
  about: string
  /** Whether its feed names the chapters. */
  chaptered: boolean
  /** Whether its feed names the transcript; else it lies on the page for people to take. */
  transcribed: boolean
  parts: readonly { chapter: string | null; paragraphs: readonly string[] }[]
  recording: Recording
}

/** A film as it was recorded: its bytes, and from when to when each caption is said, in seconds. */
export interface Recording {
  type: 'video/webm' | 'video/mp4' | 'audio/mpeg'
  seconds: number
  lines: readonly (readonly [from: number, to: number])[]
  bytes: () => Buffer
}

/** Words a caption holds at most. */
const LINE = 9

/** What is said in one caption of a film, by whom, and in which part of it. */
export interface Caption {
  text: string
  speaker: string | null
  part: number
  /** Whether it is the last one of its paragraph. */
  ends: boolean
}

/** What is said in a film in captions of at most nine words, ended by punctuation where there is any. */
export function captionsOf({ parts }: Pick<SiteFilm, 'parts'>): Caption[] {
  return parts.flatMap(({ paragraphs }, part) =>
    paragraphs.flatMap((paragraph) => {
      const named = /^([A-Z]\w+): (.*)$/s.exec(paragraph)
      const words = (named?.[2] ?? paragraph).split(/\s+/)
      const captions: Caption[] = []
      for (let i = 0; i < words.length;) {
        let end = Math.min(words.length, i + LINE)
        for (let k = i + 3; k < end; k++) if (/[.?!]$/.test(words[k - 1] ?? '')) end = k
        const text = words.slice(i, end).join(' ')
        captions.push({ text, speaker: named?.[1] ?? null, part, ends: end === words.length })
        i = end
      }
      return captions
    }),
  )
}

interface Line extends Caption {
  from: number
  to: number
}

/** What is said when, as it was recorded. */
function timed(film: SiteFilm): { lines: Line[]; chapters: { at: number; title: string }[] } {
  const lines = captionsOf(film).map((caption, i): Line => {
    const [from, to] = film.recording.lines[i] ?? [film.recording.seconds, film.recording.seconds]
    return { ...caption, from, to }
  })
  const chapters = film.parts.flatMap(({ chapter }, part) => {
    const first = lines.find((l) => l.part === part)
    return chapter && first ? [{ at: part === 0 ? 0 : Math.floor(first.from), title: chapter }] : []
  })
  return { lines, chapters }
}

export function webvtt(film: SiteFilm): string {
  const cues = timed(film).lines.map(
    (l, i) =>
      `${i + 1}\n${stamp(l.from)} --> ${stamp(l.to)}\n${l.speaker ? `<v ${l.speaker}>` : ''}${l.text}${l.speaker ? '</v>' : ''}\n`,
  )
  return `WEBVTT\n\n${cues.join('\n')}`
}

/** How long a film plays, in whole seconds. */
const secondsOf = ({ recording }: SiteFilm): number => Math.round(recording.seconds)

/** How the file of a recording ends. */
export function endingOf(type: Recording['type']): string {
  return type === 'audio/mpeg' ? 'mp3' : type.replace('video/', '')
}

/** The film itself, or the talk, as its feed and its page name it. */
export const fileOf = ({ slug, recording }: SiteFilm): string =>
  `/${recording.type === 'audio/mpeg' ? 'talks' : 'films'}/${slug}.${endingOf(recording.type)}`

/** The text below a film: what it is about, and its chapters where it names them. */
function describe(film: SiteFilm): string {
  const { chapters } = timed(film)
  return film.chaptered && chapters.length
    ? `${film.about}\n\n${chapters.map((c) => `${short(c.at)} ${c.title}`).join('\n')}`
    : film.about
}

/** The channel's feed: Atom with media tags, its transcripts where they are named. */
export function channelFeed(
  title: string,
  films: readonly (SiteFilm & { at: number })[],
  base: string,
): string {
  return `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom" xmlns:media="http://search.yahoo.com/mrss/" xml:lang="en"><title>${escape(title)}: films</title>
<id>${base}/films</id><link href="${base}/films"/><link rel="self" href="${base}/films/feed.xml"/><updated>${new Date(films[0]?.at ?? 0).toISOString()}</updated>
${films
  .map(
    (
      f,
    ) => `<entry><id>${base}/films/${f.slug}</id><title>${escape(f.title)}</title><link href="${base}/films/${f.slug}"/>
<published>${new Date(f.at).toISOString()}</published><updated>${new Date(f.at).toISOString()}</updated><author><name>${escape(f.speaker)}</name></author>
<media:group><media:title>${escape(f.title)}</media:title><media:content url="${base}${fileOf(f)}" type="${f.recording.type}" medium="video" duration="${secondsOf(f)}"/><media:thumbnail url="${base}/pictures/${f.picture}.png" width="1200" height="800"/><media:description>${escape(describe(f))}</media:description><media:keywords>${escape(f.tags.join(', '))}</media:keywords>${f.transcribed ? `<media:subTitle type="text/vtt" lang="en" href="${base}/films/${f.slug}.vtt"/>` : ''}<media:community><media:statistics views="${120 + f.title.length * 31}" favorites="${f.title.length}"/></media:community></media:group></entry>`,
  )
  .join('\n')}
</feed>`
}

/** A feed of talks that are only heard: RSS with enclosures, and their transcripts as the podcast namespace names them. */
export function talksFeed(
  title: string,
  talks: readonly (SiteFilm & { at: number })[],
  base: string,
): string {
  return `<?xml version="1.0" encoding="utf-8"?>
<rss version="2.0" xmlns:itunes="http://www.itunes.com/dtds/podcast-1.0.dtd" xmlns:podcast="https://podcastindex.org/namespace/1.0"><channel><title>${escape(title)}: talks</title><link>${base}/talks</link><description>Talks to be heard on the way up.</description><language>en</language>
${talks
  .map(
    (t) =>
      `<item><guid isPermaLink="true">${base}/talks/${t.slug}</guid><title>${escape(t.title)}</title><link>${base}/talks/${t.slug}</link><pubDate>${new Date(t.at).toUTCString()}</pubDate><itunes:author>${escape(t.speaker)}</itunes:author><description>${escape(t.about)}</description>${t.tags.map((tag) => `<category>${escape(tag)}</category>`).join('')}<enclosure url="${base}${fileOf(t)}" length="${t.recording.bytes().length}" type="${t.recording.type}"/><itunes:duration>${secondsOf(t)}</itunes:duration><podcast:transcript url="${base}/talks/${t.slug}.vtt" type="text/vtt"/></item>`,
  )
  .join('\n')}
</channel></rss>`
}

/** The page of a talk that is only heard. */
export function talkPage(talk: SiteFilm): string {
  return `<main><article><h1>${escape(talk.title)}</h1><p class="byline">${escape(talk.speaker)}</p><audio controls preload="metadata" src="${fileOf(talk)}" aria-label="${escape(talk.about)}"></audio>
<p>${escape(talk.about)}</p><p><a href="/talks/${talk.slug}.vtt">The transcript of this talk (WebVTT)</a></p></article></main>`
}

/** A film's page, with what it says of itself as linked data (schema.org). */
export function filmPage(film: SiteFilm): string {
  const data = {
    '@context': 'https://schema.org',
    '@type': 'VideoObject',
    name: film.title,
    description: describe(film),
    duration: `PT${secondsOf(film)}S`,
    contentUrl: fileOf(film),
    thumbnailUrl: `/pictures/${film.picture}.png`,
    author: { '@type': 'Person', name: film.speaker },
  }
  return `<script type="application/ld+json">${JSON.stringify(data).replace(/</g, '\\u003c')}</script><main><article><h1>${escape(film.title)}</h1><p class="byline">${escape(film.speaker)}</p><figure><video controls preload="metadata" src="${fileOf(film)}" poster="/pictures/${film.picture}.png" width="1200" height="675" aria-label="${escape(film.about)}"></video></figure>
<p>${escape(describe(film)).replace(/\n/g, '<br>')}</p>${film.transcribed ? `<p><a href="/films/${film.slug}.vtt">The transcript of this film (WebVTT)</a></p>` : ''}</article></main>`
}

const two = (n: number): string => String(n).padStart(2, '0')
const short = (seconds: number): string => `${Math.floor(seconds / 60)}:${two(Math.floor(seconds) % 60)}`
function stamp(seconds: number): string {
  const whole = Math.floor(seconds)
  const thousandths = String(Math.floor((seconds - whole) * 1000)).padStart(3, '0')
  return `${two(Math.floor(whole / 3600))}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}.${thousandths}`
}

import { network } from '../networks'
import {
  bounds,
  COUNTED_WORDS,
  effectName,
  figure,
  grownWords,
  growthWords,
  isCertain,
  more,
  type AskedReport,
  type Effect,
  type Estimate,
  type Followed,
  type Report,
  type Week,
} from '../results'
import { escape, htmlPage } from './html'

/** One of the best posts, as a page shows it. */
export interface ReportedPost {
  network: string
  handle: string
  text: string
  /** When it came out, in milliseconds since 1970. */
  at: number
  /** Its address in public, where it has one. */
  url: string | null
  /** A data URL of its picture or clip; null for none. */
  picture: string | null
  alt: string
  seen: number
  /** How many times what is usual for its account. */
  times: number
}

/** How many follow an account, as a page shows it. */
export interface ReportedFollowers extends Pick<Followed, 'followers' | 'day' | 'growth' | 'before'> {
  network: string
  handle: string
}

/** What a report is written of. */
export interface ReportPage {
  title: string
  /** Who made it, as it stands below the title; empty for nobody. */
  by: string
  /** Words of one's own above the figures, in paragraphs. */
  note: string
  zone: string
  asked: AskedReport
  report: Report
  best: readonly ReportedPost[]
  /** How many follow each account of those asked for. */
  followers: readonly ReportedFollowers[]
}

/**
 * Writes what the posts of a span did for somebody who has no Dripline: one HTML file with everything in it, which asks
 * nothing of any host and prints on A4.
 */
export function writeReport(page: ReportPage): string {
  const { title, by, note, report, asked, best, followers } = page
  const day = dayWords(page.zone)
  const body = `<header>
<h1>${escape(title)}</h1>
<p>${day(asked.from)} to ${day(asked.to - 1)}${by ? ` · ${escape(by)}` : ''}</p>
</header>
<main>
${paragraphs(note)}
<section>
<h2>In short</h2>
${inShort(report, asked)
  .map((s) => `<p>${escape(s)}</p>`)
  .join('\n')}
</section>
${report.totals.length ? totals(report) : ''}
${report.answer.groups.length > 1 ? byNetwork(report) : ''}
${followers.length ? whoFollows(followers, asked) : ''}
${report.out > 0 ? weeks(report.weeks, day) : ''}
${best.length ? `<section>\n<h2>The posts that did best, each for its account</h2>\n<div class="best">\n${best.map((b) => card(b, day)).join('\n')}\n</div>\n</section>` : ''}
${effects(report)}
${reading(report, asked)}
</main>`
  return htmlPage({ title, style: STYLE, body })
}

const dayWords = (zone: string): ((at: number) => string) => {
  const format = new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: zone,
  })
  return (at) => format.format(at)
}

function paragraphs(note: string): string {
  const each = note
    .split(/\n\s*\n/)
    .map((p) => p.trim())
    .filter(Boolean)
  return each.length
    ? `<section class="note">\n${each.map((p) => `<p>${escape(p)}</p>`).join('\n')}\n</section>`
    : ''
}

const many = (n: number, one: string, others = `${one}s`): string =>
  `${n.toLocaleString('en-GB')} ${n === 1 ? one : others}`

/** What happened, in sentences. */
function inShort({ out, networks, answer, totals }: Report, { age }: AskedReport): string[] {
  if (out === 0) return ['No post came out in these days.']
  const seen = totals.find((t) => t.measure === 'impressions')
  const clicks = totals.find((t) => t.measure === 'clicks') ?? totals.find((t) => t.measure === 'link clicks')
  const sentences = [`${many(out, 'post')} came out on ${many(networks, 'network')}.`]
  if (answer.mean === null || !seen)
    return [...sentences, `None of them has been counted ${AGE_WORDS[age]} yet.`]
  const links = clicks && clicks.sum > 0 ? `, and their links were followed ${many(clicks.sum, 'time')}` : ''
  sentences.push(
    `${capital(AGE_WORDS[age])} they had been seen ${many(seen.sum, 'time')}, ${figure(answer.mean, 'impressions')} a post${links}.`,
  )
  if (answer.times) sentences.push(compared(answer.times))
  return sentences
}

const AGE_WORDS: Readonly<Record<AskedReport['age'], string>> = {
  '1 h': 'an hour after each came out',
  '6 h': 'six hours after each came out',
  '1 d': 'a day after each came out',
  '3 d': 'three days after each came out',
  '7 d': 'seven days after each came out',
  '30 d': 'thirty days after each came out',
  '90 d': 'ninety days after each came out',
}

function compared(times: Estimate): string {
  return isCertain(times)
    ? `A post was seen ${more(times.at)} than in the same number of days before (${bounds(times)}).`
    : `Against the same number of days before, no difference can be told (${bounds(times)}).`
}

const cells = (...of: string[]): string => of.map((c) => `<td>${c}</td>`).join('')

function totals({ totals: all }: Report): string {
  const rows = all.map(({ measure, sum, posts, before }) => {
    // Where nothing was read, nought would say that nobody did it.
    const [whole, a] = posts ? [sum.toLocaleString('en-GB'), figure(sum / posts, measure)] : ['–', '–']
    const was = before.posts ? figure(before.sum / before.posts, measure) : '–'
    return `<tr><th scope="row">${COUNTED_WORDS[measure]}</th>${cells(whole, String(posts), a, was)}</tr>`
  })
  return `<section>
<h2>What readers did</h2>
<table><thead><tr><td></td><th scope="col">All</th><th scope="col">Posts counted</th><th scope="col">A post</th><th scope="col">Before</th></tr></thead>
<tbody>${rows.join('\n')}</tbody></table>
</section>`
}

function byNetwork({ answer }: Report): string {
  const rows = answer.groups.map(({ key, posts, mean, before, times }) => {
    const how = times ? (isCertain(times) ? more(times.at) : 'cannot be told') : 'too few posts'
    return `<tr><th scope="row">${escape(network(key).name)}</th>${cells(
      String(posts),
      figure(mean, 'impressions'),
      before ? figure(before.mean, 'impressions') : '–',
      how + (times ? ` <span>${bounds(times)}</span>` : ''),
    )}</tr>`
  })
  return `<section>
<h2>Network by network</h2>
<table><thead><tr><td></td><th scope="col">Posts counted</th><th scope="col">Seen a post</th><th scope="col">Before</th><th scope="col">Against before</th></tr></thead>
<tbody>${rows.join('\n')}</tbody></table>
</section>`
}

function whoFollows(followers: readonly ReportedFollowers[], { from }: AskedReport): string {
  const rows = followers.map(
    ({ network: id, handle, followers: count, day, growth, before }) =>
      `<tr><th scope="row">${escape(network(id).name)}, @${escape(handle)}</th>${cells(
        count.toLocaleString('en-GB'),
        grownWords({ day, growth }, from),
        before ? growthWords(before) : '–',
      )}</tr>`,
  )
  return `<section>
<h2>Who follows</h2>
<table class="whole"><thead><tr><td></td><th scope="col">Followers</th><th scope="col">In these days</th><th scope="col">Before</th></tr></thead>
<tbody>${rows.join('\n')}</tbody></table>
</section>`
}

const WIDE = 640
const HIGH = 150

/** Bars of what was seen of the posts of each step of the span, with how many posts stand behind each; and the same as a table. */
function weeks(all: readonly Week[], day: (at: number) => string): string {
  const most = Math.max(1, ...all.map((w) => w.sum))
  const wide = WIDE / all.length
  const bars = all.map(({ sum, posts }, i) => {
    const high = (sum / most) * HIGH
    const middle = ((i + 0.5) * wide).toFixed(1)
    return `<rect x="${(i * wide + wide * 0.14).toFixed(1)}" y="${(HIGH - high).toFixed(1)}" width="${(wide * 0.72).toFixed(1)}" height="${high.toFixed(1)}"/><text x="${middle}" y="${HIGH + 15}">${posts}</text>`
  })
  const rows = all.map(
    ({ from, to, posts, sum, read }) =>
      `<tr><th scope="row">${day(from)} to ${day(to - 1)}</th>${cells(String(posts), String(read), sum.toLocaleString('en-GB'))}</tr>`,
  )
  const step =
    all.length > 1 && (all[1] as Week).to - (all[1] as Week).from > 7 * 86_400_000 ? 'four weeks' : 'week'
  return `<section>
<h2>${step === 'week' ? 'Week by week' : 'Four weeks by four weeks'}</h2>
<svg viewBox="0 0 ${WIDE} ${HIGH + 22}" role="img" aria-label="How often the posts of each ${step} were seen; the table below has the figures.">${bars.join('')}<line x1="0" y1="${HIGH}" x2="${WIDE}" y2="${HIGH}"/></svg>
<p class="soft">How often the posts of each ${step} were seen, the tallest bar ${most.toLocaleString('en-GB')} times; below each how many posts came out.</p>
<details><summary>The figures</summary>
<table><thead><tr><td></td><th scope="col">Posts</th><th scope="col">Counted</th><th scope="col">Seen</th></tr></thead><tbody>${rows.join('\n')}</tbody></table>
</details>
</section>`
}

function card(
  { network: id, handle, text, at, url, picture, alt, seen, times }: ReportedPost,
  day: (at: number) => string,
): string {
  const shown = picture?.startsWith('data:video/')
    ? `<video controls playsinline src="${escape(picture)}" aria-label="${escape(alt)}"></video>`
    : picture
      ? `<img src="${escape(picture)}" alt="${escape(alt)}">`
      : ''
  const where = `${escape(network(id).name)}, @${escape(handle)}`
  return `<article>
${shown}
<p class="caption">${escape(text)}</p>
<p class="soft">${url?.startsWith('http') ? `<a href="${escape(url)}" rel="noreferrer">${where}</a>` : where}, ${day(at)}</p>
<p><b>Seen ${many(seen, 'time')}</b>, ${times.toFixed(1)} times what is usual there</p>
</article>`
}

/** So many of what made a difference are told, the largest first. */
const TOLD = 12

function effects({ effects: all }: Report): string {
  const large = ({ times }: Effect): number => Math.abs(Math.log(times.at))
  const named = all
    .flatMap(({ network: id, named: of }) => of.map((effect) => ({ id, effect })))
    .sort((a, b) => large(b.effect) - large(a.effect))
  if (named.length === 0) return ''
  const lines = named
    .slice(0, TOLD)
    .map(
      ({ id, effect }) =>
        `<li>${escape(effectName(effect))} earns ${more(effect.times.at)} on ${escape(network(id).name)} <span>${bounds(effect.times)}</span></li>`,
    )
  const rest = named.length - lines.length
  return `<section>
<h2>What made a difference, all else alike</h2>
<ul>
${lines.join('\n')}
</ul>
${rest > 0 ? `<p class="soft">${many(rest, 'smaller difference is', 'smaller differences are')} not told here.</p>` : ''}
</section>`
}

/** How the figures are to be read, and which posts are in none of them. */
function reading({ answer: { young, missing } }: Report, { age }: AskedReport): string {
  const left = [
    young > 0 && `${many(young, 'post is', 'posts are')} too young for that and in no figure yet`,
    missing > 0 && `of ${many(missing, 'post')} the network gave no figures at that age`,
  ].filter(Boolean)
  return `<section class="soft">
<h2>How to read this</h2>
<p>Old and new posts are compared as they stood ${AGE_WORDS[age]}.${left.length ? ` ${escape(capital(left.join('; ')))}.` : ''} “Before” is the same number of days just before. A span in small letters holds the true change 95 times in 100; where it holds both more and less, nothing is claimed. “Usual” is what the posts of the same account earned in these days.</p>
</section>`
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

const STYLE = `
body{margin:0;background:#fffdf8;color:#1e2925;font:15px/1.5 system-ui,sans-serif}
header,main{max-width:46rem;margin:0 auto;padding:1.6rem 1.25rem 0}main{padding-bottom:3rem}
h1{font:600 1.7rem/1.2 Georgia,serif;margin:0 0 .2rem}header p{margin:0;color:#5c6862}
h2{font-size:1.05rem;margin:1.8rem 0 .5rem}section p{margin:.3rem 0}
.note{border-left:4px solid #12666b;padding-left:.9rem;font-family:Georgia,serif;font-size:1.05rem}.soft,table span,li span{color:#5c6862}
table{border-collapse:collapse;width:100%;font-variant-numeric:tabular-nums}td,th{text-align:right;padding:.3rem .6rem;border-bottom:1px solid #ddd8ca;font-weight:400}
thead th{color:#5c6862;font-size:.85rem}tbody th{text-align:left;font-weight:600;padding-left:0}table span,li span{font-size:.82rem;margin-left:.4rem}
table.whole td{white-space:nowrap}
svg{width:100%;height:auto;display:block}rect{fill:#12666b}line{stroke:#1e2925}text{font-size:11px;fill:#5c6862;text-anchor:middle}
details{margin-top:.6rem}summary{cursor:pointer;color:#12666b}
.best{columns:2;column-gap:1rem}article{break-inside:avoid;border:1px solid #ddd8ca;border-radius:6px;padding:.8rem;margin:0 0 1rem;background:#fff}
article :is(img,video){width:100%;height:auto;border-radius:4px;display:block}.caption{font-family:Georgia,serif;white-space:pre-wrap;overflow-wrap:anywhere}a{color:#12666b}
@media (max-width:36rem){.best{columns:1}}
@page{size:A4;margin:16mm}
@media print{body{background:#fff;font-size:10.5pt}header,main{padding:0;max-width:none}h2{break-after:avoid}section{break-inside:auto}table,svg,li{break-inside:avoid}details:not([open]){display:none}}
`

import { z } from 'zod'
import { Fault, Id, Instant, openFlagsOf, type Account, type Post } from '../model'
import { network, sliceGraphemes } from '../networks'
import { flagName, reviewPrint } from './reviewPrint'
import { escape, htmlPage } from './html'

/*
 * A review packet: captions that wait, for somebody who does not use Dripline. One HTML file that works offline and
 * asks nothing of any host; it gives back a small file of decisions.
 */

/** One decision of a packet's reader. */
const Decision = z.object({
  post: Id,
  /** What the post said as the packet was made, so that nothing is approved that changed since. */
  print: z.string(),
  /** The doubts that stood beside it: what an approval accepts. */
  flags: z.array(z.string()),
  decision: z.enum(['approve', 'reject', 'open']),
  comment: z.string().max(4000),
})

export const Decisions = z.object({
  format: z.literal('dripline-decisions'),
  schema: z.literal(1),
  packet: Id,
  by: z.string().max(200),
  at: Instant,
  decisions: z.array(Decision).max(5000),
})
export type Decisions = z.infer<typeof Decisions>

export interface PacketPost {
  post: Post
  account: Pick<Account, 'handle' | 'name' | 'network'>
  /** When it would go out, in words of its account's clock; null while it has no place. */
  when: string | null
  /** Its picture as a data address. */
  picture: string | null
  /** The title of what it is made from. */
  piece: string | null
}

export interface Packet {
  id: string
  brand: string
  /** The day it is made, in words. */
  made: string
  /** A line of the sender's own. */
  note: string
  posts: readonly PacketPost[]
}

/** Writes a packet as one HTML file: a preview of each post, its open questions, approve, reject and a comment. */
export function writePacket(packet: Packet): string {
  const kept = packet.posts.map(({ post }) => ({
    post: post.id,
    print: reviewPrint(post),
    flags: openFlagsOf(post).map(flagName),
  }))
  const data = JSON.stringify({ packet: packet.id, brand: packet.brand, posts: kept }).replace(
    /</g,
    '\\u003c',
  )
  const body = `<header>
<h1>${escape(packet.brand)}: ${packet.posts.length} ${packet.posts.length === 1 ? 'caption' : 'captions'} to review</h1>
<p>Made on ${escape(packet.made)}. Nothing here is sent anywhere: decide, save your decisions as a file, and send that file back.</p>
${packet.note ? `<p class="note">${escape(packet.note)}</p>` : ''}
</header>
<main>
${packet.posts.map(card).join('\n')}
</main>
<footer>
<label>Your name <input id="by" autocomplete="name"></label>
<span id="count" role="status"></span>
<button id="save" type="button">Save the decisions</button>
</footer>
<script type="application/json" id="packet">${data}</script>
<script>${SCRIPT}</script>`
  return htmlPage({ title: `${packet.brand}: captions to review`, style: STYLE, body, mayRun: true })
}

/** A picture as it is seen, or a clip to be played, by its data URL. */
function shown(url: string, alt: string): string {
  return url.startsWith('data:video/')
    ? `<video controls playsinline src="${escape(url)}" aria-label="${escape(alt)}"></video>`
    : `<img src="${escape(url)}" alt="${escape(alt)}">`
}

function card({ post, account, when, picture, piece }: PacketPost, index: number): string {
  const profile = network(account.network)
  const { wording } = post
  const { fold } = profile.text
  const head = fold === null ? wording.text : sliceGraphemes(wording.text, fold)
  const rest = wording.text.slice(head.length)
  const alt = post.media[0]?.alt ?? ''
  const doubts = [...post.checks.filter((c) => c.severity === 'block'), ...openFlagsOf(post)]
  const name = `post-${index}`
  return `<article aria-labelledby="${name}">
<h2 id="${name}">${index + 1}. ${escape(profile.name)} <span>@${escape(account.handle)}</span></h2>
<p class="when">${escape(when ?? 'without a day yet')}${piece ? ` · from “${escape(piece)}”` : ''}</p>
<div class="post">
${wording.title ? `<h3>${escape(wording.title)}</h3>` : ''}
${picture ? shown(picture, alt) : ''}
<p class="caption">${escape(head)}${rest ? `<span class="fold" title="Readers see this once they open the post">${escape(rest)}</span>` : ''}</p>
${wording.parts.map((p) => `<p class="caption part">${escape(p)}</p>`).join('')}
${wording.poll.length ? `<ul>${wording.poll.map((o) => `<li>${escape(o)}</li>`).join('')}</ul>` : ''}
${wording.firstComment ? `<p class="first">First comment: ${escape(wording.firstComment)}</p>` : ''}
</div>
${doubts.length ? `<ul class="doubts">${doubts.map((c) => `<li>${escape(c.message)}</li>`).join('')}</ul>` : ''}
<fieldset>
<legend>Your decision</legend>
<label><input type="radio" name="${name}" value="approve"> Approve${doubts.length ? ', as it is' : ''}</label>
<label><input type="radio" name="${name}" value="reject"> Reject</label>
<label><input type="radio" name="${name}" value="open" checked> Leave open</label>
</fieldset>
<label class="comment">Comment<textarea name="${name}-comment" rows="2" maxlength="4000"></textarea></label>
</article>`
}

/** Reads a file of decisions; refuses (\`bad-file\`) what is none. */
export function readDecisions(text: string): Decisions {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new Fault(
      'bad-file',
      'This is no file of decisions: it is not JSON. Take the one that the review page saved.',
    )
  }
  const parsed = Decisions.safeParse(json)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  const where = issue?.path.join('.') ?? ''
  throw new Fault(
    'bad-file',
    `This is no file of decisions as a review page saves it${where ? `: ${where} is wrong` : ''}. Ask for it once more.`,
    where,
  )
}

const STYLE = `
body{margin:0;background:#f7f5ef;color:#1e2925;font:16px/1.5 system-ui,sans-serif}
header,main{max-width:46rem;margin:0 auto;padding:1.5rem 1.25rem 0}
h1{font-size:1.4rem;margin:0 0 .3rem}h2{font-size:1rem;margin:0}h2 span,.when,.first{color:#5c6862;font-weight:400}
.when{margin:.1rem 0 .6rem;font-size:.9rem}.note{border-left:4px solid #12666b;padding-left:.8rem;white-space:pre-wrap}
article{background:#fffdf8;border:1px solid #ddd8ca;border-radius:6px;padding:1.1rem;margin:0 0 1.1rem}
.post{font-family:Georgia,serif;border:1px solid #ddd8ca;border-radius:6px;padding:.9rem;margin-bottom:.8rem}
.caption{white-space:pre-wrap;overflow-wrap:anywhere;margin:.4rem 0}.part{border-top:1px solid #ddd8ca;padding-top:.5rem}
.fold{color:#5c6862}:is(img,video){max-width:100%;height:auto;border-radius:4px}
.doubts{color:#8a3b19;padding-left:1.2rem;margin:.4rem 0}
fieldset{border:0;padding:0;margin:0 0 .6rem;display:flex;gap:1.2rem;flex-wrap:wrap}legend{font-size:.85rem;color:#5c6862;padding:0;margin-bottom:.2rem}
.comment{display:block;font-size:.85rem;color:#5c6862}textarea,input:not([type=radio]){width:100%;box-sizing:border-box;font:inherit;color:#1e2925;border:1px solid #ddd8ca;border-radius:4px;padding:.4rem;background:#fff}
footer{position:sticky;bottom:0;background:#fffdf8;border-top:1px solid #ddd8ca;padding:.8rem 1.25rem;display:flex;gap:1rem;align-items:center;justify-content:center;flex-wrap:wrap}
footer input{width:14rem!important;margin-left:.5rem}button{font:inherit;font-weight:600;background:#12666b;color:#fff;border:0;border-radius:6px;padding:.5rem 1rem;cursor:pointer}
:focus-visible{outline:3px solid #12666b;outline-offset:2px}
@media print{footer{display:none}}
`

/* What the page does, in the words that every browser of the last ten years knows. Half-done work is kept where the browser lets it. */
const SCRIPT = `
(function () {
  var packet = JSON.parse(document.getElementById('packet').textContent)
  var key = 'dripline-review-' + packet.packet
  var all = function (s) { return Array.prototype.slice.call(document.querySelectorAll(s)) }
  var decisions = function () {
    return packet.posts.map(function (p, i) {
      var chosen = document.querySelector('input[name="post-' + i + '"]:checked')
      var comment = document.querySelector('textarea[name="post-' + i + '-comment"]').value.trim()
      return { post: p.post, print: p.print, flags: p.flags, decision: chosen ? chosen.value : 'open', comment: comment }
    })
  }
  var show = function () {
    var made = decisions()
    var of = function (d) { return made.filter(function (x) { return x.decision === d }).length }
    document.getElementById('count').textContent = of('approve') + ' approved, ' + of('reject') + ' rejected, ' + of('open') + ' open'
    try { localStorage.setItem(key, JSON.stringify({ by: document.getElementById('by').value, decisions: made })) } catch (e) {}
  }
  try {
    var kept = JSON.parse(localStorage.getItem(key) || 'null')
    if (kept) {
      document.getElementById('by').value = kept.by || ''
      kept.decisions.forEach(function (d, i) {
        var radio = document.querySelector('input[name="post-' + i + '"][value="' + d.decision + '"]')
        if (radio) radio.checked = true
        document.querySelector('textarea[name="post-' + i + '-comment"]').value = d.comment || ''
      })
    }
  } catch (e) {}
  all('input, textarea').forEach(function (f) { f.addEventListener('input', show) })
  document.getElementById('save').addEventListener('click', function () {
    var file = { format: 'dripline-decisions', schema: 1, packet: packet.packet, by: document.getElementById('by').value.trim(), at: new Date().toISOString(), decisions: decisions() }
    var link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([JSON.stringify(file, null, 2)], { type: 'application/json' }))
    link.download = packet.brand.toLowerCase().replace(/[^a-z0-9]+/g, '-') + '-decisions.json'
    document.body.appendChild(link)
    link.click()
    link.remove()
  })
  show()
})()
`

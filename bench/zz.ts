import { readFileSync } from 'node:fs'
import { readArticle } from '../demo/content'
import { readFragment } from '../core/reading'
import { takeWriting, toPassages, makeDrip } from '../core/pipeline'
import { aBrand, anAccount } from '../core/model/samples'
import { RHYTHMS, TRICKLE } from '../core/planning'
const article = readArticle(readFileSync('demo/content/oakum-yard/scarf-not-butt.md', 'utf8'))
const owner = { id: 'piece', brand: 'brand', source: 'source', now: '2026-11-24T10:00:00.000Z' }
const piece = takeWriting(readFragment(article.html, { title: article.title }), owner, { itemId: 'x', kind: 'manuscript' })
let n = 0
const passages = toPassages(piece, () => `p${n++}`)
const accounts = ['murmur', 'guildhall', 'shutterleaf'].map((network) => anAccount({ id: network, network }))
const run = (rhythm = TRICKLE, brand = aBrand()) => {
  const t = performance.now()
  const r = makeDrip({ now: owner.now, newId: () => `i${n++}`, brand, piece: structuredClone(piece), passages, accounts, rhythm, startDay: '2026-11-24', seed: 1, pipeline: null, gate: 'everything', allAccounts: accounts, allBrands: [brand], standing: [] })
  console.log(rhythm.name, r.posts.length, r.drip.missing.length, Math.round(performance.now() - t), 'ms')
}
run(); run(); run(RHYTHMS[1]); run(RHYTHMS[2]); run()
if (process.argv[2]) { for (let i = 0; i < 20; i++) run() }

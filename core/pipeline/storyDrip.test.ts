import { expect, it } from 'vitest'
import { oakumYard } from '../../demo/content'
import { asStories } from '../drips'
import type { WholePiece } from '../model'
import { aBrand, anAccount, aPost, aWholePiece } from '../model/samples'
import { formatOf } from '../networks'
import { readFragment } from '../reading'
import { makeDrip, singlePost, toPassages } from '.'
import { cardPictures, wholeCard } from './blank'

/* A release row may ask for stories: their words stand on a card as tall as a telephone, where the network has such. */

const ids = (name: string) => {
  let n = 0
  return () => `${name} ${n++}`
}
const accounts = ['shutterleaf', 'hearthside', 'murmur'].map((id) =>
  anAccount({ id, network: id, gapMinutes: 0 }),
)

/** An article with a picture that speaks of its first words. */
function pieceOf({ html, title }: { html: string; title: string }): WholePiece {
  const read = readFragment(html, { title })
  const picture = { url: 'https://yard.example/p.jpg', alt: read.text.slice(0, 200), caption: '' }
  return {
    ...aWholePiece(),
    ...read,
    images: [{ ...picture, width: 1200, height: 800, block: 0 }],
  }
}

function storiesOf(piece: WholePiece) {
  return makeDrip({
    now: '2026-11-24T10:00:00.000Z',
    newId: ids('post'),
    brand: aBrand(),
    piece,
    passages: toPassages(piece, ids('passage')).map((p) => ({ ...p, choice: 'kept' as const })),
    accounts,
    rhythm: { name: 'Mine', list: [0, 5, 12] },
    startDay: '2026-11-25',
    seed: 3,
    pipeline: null,
    row: { id: 'row', format: 'story' },
    gate: 'everything',
    allAccounts: accounts,
    allBrands: [aBrand()],
    standing: [],
  })
}

it('is dripped as stories to the networks that have them, and as usual to the others', () => {
  let told = 0
  const layouts = new Set<string>()
  for (const article of oakumYard().articles) {
    const piece = pieceOf(article)
    const { posts, drip } = storiesOf(piece)
    for (const post of posts) {
      if (post.network === 'murmur') {
        expect(formatOf(post)).not.toBe('story')
        continue
      }
      told++
      expect(formatOf(post)).toBe('story')
      expect(post.others.every((w) => w.format === 'story')).toBe(true)
      // One picture, a card: a photograph without words tells nothing.
      expect(post.media).toHaveLength(1)
      expect(post.media[0]).toMatchObject({ source: { from: 'card' }, shape: { width: 9, height: 16 } })
      const source = post.media[0]?.source
      layouts.add(source?.from === 'card' ? source.card.layout : 'none')
      expect(post.media[0]?.alt).not.toBe('')
      expect(post.checks.filter((c) => c.severity === 'block')).toEqual([])
    }
    // What would have no card is not made, and the drip says so.
    const made = (network: string): number => posts.filter((p) => p.network === network).length
    for (const network of ['shutterleaf', 'hearthside'])
      expect(made(network) + drip.missing.filter((m) => m.account === network).length).toBe(3)
  }
  expect(told).toBe(90)
  expect([...layouts]).not.toContain('title')
})

it('is no story where nothing stands on a card', () => {
  const written = { beat: 0, day: 0, account: 'a', network: 'hearthside', passage: null }
  const wording = aPost().wording
  const [bare] = asStories([
    { ...written, wording, others: [wording], link: null, checks: [], picture: null },
  ])
  expect(bare).toMatchObject({ wording: null, others: [], checks: [{ severity: 'block' }] })
  expect(bare?.checks[0]?.message).toContain('Hearthside')
})

it('shows a list whole, which a post is leafed through for', () => {
  const items = Array.from({ length: 5 }, (_, i) => `The tool that does the work of ${i + 2} others`)
  const card = { layout: 'list' as const, head: 'Seven tools', text: '', speaker: '', items }
  expect(cardPictures(card, 'shutterleaf', { sign: '' }).length).toBeGreaterThan(1)
  expect(wholeCard(card, 'shutterleaf', { sign: '' }).map((m) => m.source)).toEqual([{ from: 'card', card }])
})

it('is one more story too, on a network that has them', () => {
  const [article] = oakumYard().articles
  if (!article) throw new Error('There is no article.')
  const piece = pieceOf(article)
  const one = (account: (typeof accounts)[number], story: boolean) =>
    singlePost({
      now: '2026-11-24T10:00:00.000Z',
      newId: ids('post'),
      brand: aBrand(),
      piece,
      passages: toPassages(piece, ids('passage')),
      passage: null,
      account,
      pipeline: null,
      drip: null,
      beat: 0,
      wished: '2026-11-25T12:00:00.000Z',
      seed: 1,
      standing: [],
      story,
    })
  for (const account of accounts) {
    const [told, usual] = [one(account, true), one(account, false)]
    expect(formatOf(told) === 'story').toBe(account.network !== 'murmur')
    expect(formatOf(usual)).not.toBe('story')
    if (account.network !== 'murmur')
      expect(told.media).toMatchObject([{ source: { from: 'card' }, shape: { width: 9, height: 16 } }])
  }
})

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { PLAIN_HOUSE } from '../house'
import { findPassages } from '../passages'
import { read } from '../reading'
import { writeDrip } from '.'
import { faultsBetween, faultsOf, type ReadCaption } from './testing/judge'

/*
 * What the writer makes of some texts, as files, so that a change of any room is seen in what goes out: read
 * the difference, then `npx vitest run core/drips/golden -u`. The judge reads them as well.
 */

const TEXTS = [
  'essay-waiting-rooms.md',
  'interview-piano-tuner.html',
  'law-deposit.md',
  'medical-sprained-ankle.md',
  'museum-label-writing.md',
  'product-rain-jackets.md',
]
const NETWORKS = ['murmur', 'guildhall', 'hearthside', 'rackwell', 'broadside']

it.each(TEXTS)('%s', async (file) => {
  const result = await read(readFileSync(join(import.meta.dirname, '../../bench/corpus', file)), {
    name: file,
    url: `https://texts.example/${file}`,
  })
  if (result.kind !== 'piece') throw new Error(file)
  const { piece } = result
  const posts = writeDrip({
    piece,
    passages: findPassages(piece),
    accounts: NETWORKS.map((id) => ({ id, network: id })),
    days: [0, 7, 20],
    house: PLAIN_HOUSE,
    link: piece.url,
    seed: 1,
  })
  const made = posts.flatMap(({ account, network, wording }): (ReadCaption & { angle: string | null })[] =>
    wording ? [{ account, network, ...wording }] : [],
  )
  expect(made.flatMap((c) => faultsOf(c, piece))).toEqual([])
  expect(faultsBetween(made)).toEqual([])
  const written = made.map((c) => `[${c.network} · ${c.angle}]${c.title ? ` «${c.title}»` : ''}\n${c.text}`)
  await expect(`${written.join('\n\n')}\n`).toMatchFileSnapshot(
    `testing/golden/${file.replace(/\.\w+$/, '')}.txt`,
  )
})

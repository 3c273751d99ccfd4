import { z } from 'zod'
import { Counts, Fault } from '../../core/model'
import { callOutside, parseJson } from '../outside'

const Answer = z.object({ counts: z.array(Counts.nullable()) })

/**
 * How often pages were shared and commented on, asked of a share-count service: `POST {address}` with `{ "urls": [ … ] }`
 * gives `{ "counts": [ … ] }`, one each in their order, null for a page that it does not know. Without an address nothing
 * is known of any. Throws `unreachable` where the service does not answer.
 */
export async function shareCounts(
  address: string | undefined,
  urls: readonly string[],
): Promise<(Counts | null)[]> {
  if (!address) return urls.map(() => null)
  // Of what is no address nobody counts anything.
  const asked = urls.filter((u) => URL.canParse(u))
  const answer = await callOutside(
    address,
    {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ urls: asked }),
    },
    { milliseconds: 10_000 },
  ).catch(() => null)
  const counted = answer?.ok ? Answer.safeParse(parseJson(answer.text)) : null
  if (!counted?.success || counted.data.counts.length !== asked.length)
    throw new Fault('unreachable', 'The share-count service does not answer. Its counts stay as they were.')
  const known = new Map(asked.map((url, i) => [url, counted.data.counts[i] ?? null]))
  return urls.map((url) => known.get(url) ?? null)
}

import { briefOf, inHouse } from '../house'
import { inVoice } from '../language'
import type { FoundPassage, Wording } from '../model'
import { network } from '../networks'
import { isBlocked } from '../judging'
import {
  featuresOf,
  linkFor,
  pollsOf,
  runAt,
  threadOf,
  wholeThread,
  type Order,
  type Recipient,
  type Stock,
  type Thread,
} from '../writers'
import { angleOf } from '../angles'
import { contextOf } from './rank'

/** What a thread and a poll are scored: they are for a person to choose. */
const SCORE = { whole: 0.45, thread: 0.4, poll: 0.3 }

/**
 * Forms of a piece that a person may choose for one account: the whole piece as a thread, the part around
 * each passage as one, and polls of the alternatives it puts.
 */
export function formsOf(
  order: Order,
  stock: Stock,
  account: Recipient,
  passages: readonly FoundPassage[],
): { wording: Wording; passage: FoundPassage }[] {
  const profile = network(account.network)
  const brief = briefOf(profile, order.house)
  const said = (text: string): string => inHouse(inVoice(text, brief.voice), order.house.style, profile.id)
  const link = linkFor({ order, account, beat: 0 }, 'lesson')
  const blank = {
    by: 'built-in' as const,
    title: null,
    summary: null,
    tags: [],
    firstComment: null,
    hashtags: [],
    closing: null,
  }
  const asThread = (
    { parts: [first = '', ...parts], spans }: Thread,
    angle: Wording['angle'],
    score: number,
  ): Wording => ({
    ...blank,
    angle,
    format: 'thread',
    text: said(first),
    parts: parts.map(said),
    poll: [],
    spans,
    score,
  })
  const made: { wording: Wording; passage: FoundPassage }[] = []
  const whole = wholeThread(stock, profile, link)
  for (const passage of passages) {
    const run = runAt(stock, passage)
    const angle = passage.kind === 'steps' ? 'checklist' : run ? angleOf(featuresOf(stock, run)) : 'lesson'
    const thread = threadOf(stock, passage, profile, brief, link)
    if (whole) made.push({ passage, wording: asThread(whole, 'checklist', SCORE.whole) })
    if (thread) made.push({ passage, wording: asThread(thread, angle, SCORE.thread) })
    for (const poll of pollsOf(stock.piece, profile)) {
      const text = [said(poll.question), brief.link === 'text' ? link : null].filter(Boolean).join(' ')
      const spans = poll.span ? [poll.span] : []
      const wording = {
        ...blank,
        angle: 'question' as const,
        format: 'poll',
        text,
        parts: [],
        spans,
        score: SCORE.poll,
      }
      made.push({ passage, wording: { ...wording, poll: poll.answers.map(said) } })
    }
  }
  const context = contextOf({ order, account }, [], null)
  return made
    .filter(({ wording }) => !isBlocked(wording.text, { ...context, beside: wording }))
    .sort((a, b) => b.wording.score - a.wording.score)
}

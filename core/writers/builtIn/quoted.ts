import { interviewOf, SPEAKS } from '../../angles'
import type { Place } from '../../model'
import { plainly, type Draft } from '../../setting'
import type { Stock } from '../stock'

/** Whether a place is somebody's words who is not the brand: a quotation or turn of a talk with a name. */
export function speakerOf({ piece }: Stock, place: Pick<Place, 'start'>): string | null {
  const block = piece.blocks.find((b) => b.start <= place.start && place.start < b.end)
  return block?.kind === 'quotation' ? (block.speaker ?? null) : null
}

/**
 * A draft as it may go out under the brand's name: what somebody else says becomes a quotation with name
 * and role, in one paragraph; null where nobody is named, or quotation marks would stand in quotation marks.
 */
export function saidBy(stock: Stock, draft: Draft): Draft | null {
  const { piece } = stock
  const speakers = new Set(draft.spans.map((s) => speakerOf(stock, s)))
  const [speaker] = speakers
  if (speakers.size > 1) return null
  if (speaker) return quotation(draft, speaker)
  const interview = interviewOf(piece)
  if (!interview || !draft.spans.some((s) => interview.answers(s))) return draft
  if (interview.name === piece.author) return draft
  if (interview.name !== null) return quotation(draft, interview.name)
  // Nobody is named: only what speaks of itself cannot be the brand's own word.
  return SPEAKS.test(
    draft.paragraphs
      .map(plainly)
      .join('\n')
      .replace(/“[^”]*”/g, ''),
  )
    ? null
    : draft
}

function quotation(draft: Draft, name: string): Draft | null {
  const [only, more] = draft.paragraphs
  if (only?.kind !== 'prose' || more || draft.whole || draft.angle === 'question') return null
  const text = plainly(only)
  if (/[“”"\n]/.test(text)) return null
  return { ...draft, angle: 'quotation', paragraphs: [{ kind: 'prose', sentences: [`“${text}” — ${name}`] }] }
}

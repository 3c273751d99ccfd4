import { CARD_MOST, type Card } from '../model'
import { placesOf } from '../text'

const NONE = { head: '', text: '', items: [], speaker: '' }

/**
 * A list or steps as slides, in order: what it is of, to make readers go on, then a point on each, and the brand's own line
 * last, where it has one; a code of the card stands on the last, and what stands out on it does so on its slide. Null for any
 * other card, and where there would be more than `most`.
 */
export function slidesOf(card: Card, line: string, most: number): Card[] | null {
  if ((card.layout !== 'list' && card.layout !== 'steps') || card.head === '') return null
  const points = card.items.map((text, i): Card => {
    const marked = card.marked?.filter((phrase) => placesOf([phrase], text).length > 0) ?? []
    const words = { ...NONE, text, ...(marked.length > 0 ? { marked } : {}) }
    return card.layout === 'steps'
      ? { ...words, layout: 'number', head: String(i + 1) }
      : { ...words, layout: 'words' }
  })
  const last = line.trim().slice(0, CARD_MOST.text)
  const slides: Card[] = [
    { ...NONE, layout: 'title', text: card.head },
    ...points,
    ...(last ? [{ ...NONE, layout: 'title' as const, text: last }] : []),
  ]
  if (slides.length > most) return null
  return card.code ? slides.with(-1, { ...(slides.at(-1) as Card), code: true }) : slides
}

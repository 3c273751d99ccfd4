const escaped = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&')

/**
 * Where phrases stand in a text, by its characters, the end not included, in order and without those that overlap an earlier one: the
 * first place of each, of whole words, however they are written in capitals and however many spaces stand between them.
 */
export function placesOf(phrases: readonly string[], text: string): { from: number; to: number }[] {
  const found = phrases.flatMap((phrase) => {
    const words = phrase.trim().split(/\s+/).map(escaped)
    if (words[0] === '') return []
    const place = new RegExp(`(?<![\\p{L}\\p{N}])${words.join('\\s+')}(?![\\p{L}\\p{N}])`, 'iu').exec(text)
    return place ? [{ from: place.index, to: place.index + place[0].length }] : []
  })
  const inOrder = found.toSorted((a, b) => a.from - b.from || b.to - a.to)
  let end = 0
  return inOrder.filter(({ from, to }) => {
    const isFree = from >= end
    if (isFree) end = to
    return isFree
  })
}

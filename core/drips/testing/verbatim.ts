/*
 * What judges shares nothing with what is judged: these few lines import nothing. They say which
 * sentences of a caption are not the piece's.
 */

const bare = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '')
const words = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []
const sentences = (text: string): string[] =>
  text.split(/(?<=[.!?…:]["”’)]?)\s+|\n+/u).filter((s) => /\p{L}/u.test(s))

/** A caption's own words: without its address, tags, marks of lists and the line that says where the link is. */
export function ownWords(caption: string): string {
  return caption
    .replace(/\[[^\]]*\]\(https?:[^)]*\)/g, '')
    .replace(/https?:\S+/g, '')
    .replace(/(?<=^|\s)#[\p{L}\p{N}_]+/gu, '')
    .replace(/^Link in the (?:first comment|profile)\.$/gm, '')
    .replace(/” — [^\n]+$/gm, '”')
    .replace(/^(?:By [^\n]{2,60}\.|\d+:\d\d(?::\d\d)? [^\n]*)$/gm, '')
    .replace(/^(?:[–>✅-]|⚠️|#+|\d+\.) /gmu, '')
    .trim()
}

/** The sentences of a caption that stand nowhere in a text, letter by letter, and are not made of one of its sentences either. */
export function strangeSentences(caption: string, source: string): string[] {
  const all = bare(source)
  const known = sentences(source).map((s) => new Set(words(s)))
  return sentences(ownWords(caption)).filter(
    (s) => !all.includes(bare(s)) && !known.some((k) => words(s).every((w) => k.has(w))),
  )
}

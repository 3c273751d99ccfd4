/** A word without its ending, roughly, so that a tag is found in another form: "boats", "boating", "boat". */
export function tagForms(word: string): string {
  const lower = word.toLowerCase()
  if (lower.length < 4) return lower
  const bare = lower.replace(/(?:ies|ied)$/, 'y').replace(/(?:ings?|ers?|ed|es|s|e)$/, '')
  return bare.length >= 3 ? bare : lower
}

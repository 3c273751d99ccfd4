/**
 * The entries of a word list that a text holds, as they stand in the list. An entry is a word, a
 * phrase, or a beginning that ends in `*`; letters are compared without case, marks count as
 * spaces, and a word matches whole words only.
 */
export function matchingWords(text: string, entries: readonly string[]): string[] {
  const plain = ` ${plainWords(text)} `
  return entries.filter((entry) => {
    const beginning = entry.trim().endsWith('*')
    const wanted = plainWords(entry.replace(/\*+\s*$/, ''))
    return wanted !== '' && plain.includes(beginning ? ` ${wanted}` : ` ${wanted} `)
  })
}

/** A text as words apart by one space. An apostrophe counts within a word only, and `#` and `+` only at its end: “C#” is not “c”. */
function plainWords(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFC')
    .replace(/[‘’']/g, "'")
    .replace(/(?<![\p{L}\p{N}])'|'(?![\p{L}\p{N}])/gu, ' ')
    .replace(/(?<![\p{L}\p{N}#+])[#+]+|[#+]+(?=[\p{L}\p{N}])/gu, ' ')
    .replace(/[^\p{L}\p{N}'#+]+/gu, ' ')
    .trim()
}

/** The first number in a text, as people write it: `1,250 kg`, `12.50 €`, `€ 12,50`; null where there is none. */
export function firstNumber(text: string): number | null {
  const match = /-?\d[\d.,  ’]*/.exec(text)
  if (!match) return null
  let digits = match[0].replace(/[\s  ’]+(?=\d)/g, '').replace(/[.,\s  ’]+$/, '')
  const comma = digits.lastIndexOf(',')
  const point = digits.lastIndexOf('.')
  if (comma >= 0 && point >= 0) {
    // The later of the two is the decimal mark.
    digits = comma > point ? digits.replace(/\./g, '').replace(',', '.') : digits.replace(/,/g, '')
  } else if (comma >= 0) {
    digits = /^-?\d{1,3}(?:,\d{3})+$/.test(digits) ? digits.replace(/,/g, '') : digits.replace(',', '.')
  } else if (/^-?\d{1,3}(?:\.\d{3}){2,}$/.test(digits)) digits = digits.replace(/\./g, '')
  const value = Number(digits)
  return Number.isNaN(value) ? null : value
}

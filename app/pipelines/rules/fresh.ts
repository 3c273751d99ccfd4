import type { SieveRule } from '../../../core/model'

/** The rule of each kind that a person begins with, and what it is about. */
export const FRESH: Record<SieveRule['kind'], { words: string; rule: SieveRule }> = {
  words: {
    words: 'words in it',
    rule: { kind: 'words', need: 'any', words: [], lists: [], where: 'the title and the text' },
  },
  tags: { words: 'its tags', rule: { kind: 'tags', take: true, tags: [] } },
  kind: { words: 'its kind', rule: { kind: 'kind', kinds: ['article'] } },
  source: { words: 'its source', rule: { kind: 'source', take: false, sources: [] } },
  domain: { words: 'its site', rule: { kind: 'domain', take: true, domains: [] } },
  length: { words: 'its length', rule: { kind: 'length', least: 400, most: null } },
  age: { words: 'its age', rule: { kind: 'age', mostDays: 365 } },
  date: { words: 'its date', rule: { kind: 'date', from: null, until: null } },
  keeps: { words: 'how long it keeps', rule: { kind: 'keeps', atLeast: 'about a year' } },
  language: { words: 'its language', rule: { kind: 'language', languages: ['en'] } },
  picture: { words: 'a picture', rule: { kind: 'picture' } },
  popularity: {
    words: 'its popularity',
    rule: { kind: 'popularity', measure: 'shares', least: null, top: 0.1 },
  },
  field: { words: 'a number in a field', rule: { kind: 'field', name: '', least: null, most: null } },
}

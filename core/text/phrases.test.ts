import { describe, expect, it } from 'vitest'
import { placesOf } from '.'

const found = (phrases: string[], text: string): string[] =>
  placesOf(phrases, text).map(({ from, to }) => text.slice(from, to))

describe('where phrases stand', () => {
  it.each<[string[], string, string[]]>([
    [['ring'], 'A spring is no ring.', ['ring']],
    [['1,400 miles (or so)'], 'It is 1,400  miles (or so) long.', ['1,400  miles (or so)']],
    [['oak', 'THE KEEL'], 'The keel is of oak, and oak lasts.', ['The keel', 'oak']],
    [['£400'], 'It costs £400, not £4000.', ['£400']],
    [['of oak', 'keel of'], 'The keel of oak.', ['keel of']],
    [['keel', 'keel of oak'], 'The keel of oak.', ['keel of oak']],
    [['', '  '], 'Nothing is asked.', []],
    [['naïve'], 'Naïve, they said.', ['Naïve']],
  ])('%j in “%s”', (phrases, text, expected) => {
    expect(found(phrases, text)).toEqual(expected)
  })
})

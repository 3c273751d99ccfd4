import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addressesIn,
  bareWords,
  countWords,
  endsSentence,
  firstSentence,
  printOf,
  tagsIn,
  withoutAddresses,
  withoutTags,
} from '.'

describe('addresses', () => {
  it.each([
    ['See https://a.example/tar.', 'https://a.example/tar'],
    ['(see https://a.example/tar)', 'https://a.example/tar'],
    ['https://a.example/Lamb_(food), roasted', 'https://a.example/Lamb_(food)'],
    ['(https://a.example/Lamb_(food))', 'https://a.example/Lamb_(food)'],
    ['“https://a.example/x”', 'https://a.example/x'],
    ['‘https://a.example/x’', 'https://a.example/x'],
    ['https://a.example/x—and more', 'https://a.example/x'],
    ['https://a.example/x – and more', 'https://a.example/x'],
    ['HTTPS://A.EXAMPLE/x?y=1&z=[2]', 'HTTPS://A.EXAMPLE/x?y=1&z=[2]'],
    ['Really https://a.example/x?!', 'https://a.example/x'],
    ['https://a.example/käse#teil-2…', 'https://a.example/käse#teil-2'],
    ['<https://a.example/x>', 'https://a.example/x'],
  ])('%s', (text, address) => {
    expect(addressesIn(text).map((a) => a.text)).toEqual([address])
    expect(text.slice(addressesIn(text)[0]?.start, addressesIn(text)[0]?.end)).toBe(address)
  })

  it('finds none in what only begins like one', () => {
    expect(addressesIn('http:// and https:///x and ahttp and “https://”')).toEqual([])
  })

  it('are what the URL standard takes, and nothing of the sentence is lost with them', () => {
    fc.assert(
      fc.property(
        fc.webUrl({ withQueryParameters: true }),
        fc.constantFrom('.', ', then', '!', '”', ' – so'),
        (url, after) => {
          const text = `Read “this” ${url}${after}`
          const [found] = addressesIn(text)
          expect(found && URL.canParse(found.text)).toBe(true)
          // Marks at the very end of an address cannot be told from the sentence's own.
          if (/[\w/]$/.test(url)) expect(found?.text).toBe(url)
          expect(withoutAddresses(text, () => found?.text ?? '')).toBe(text)
        },
      ),
    )
  })
})

it('tags begin with their sign, not inside a word or an entity', () => {
  expect(tagsIn('A #Boat, C#sharp, &#39; and #Öl_2')).toEqual(['#Boat', '#Öl_2'])
  expect(withoutTags('A #Boat of #Oak', (tag) => tag.toLowerCase())).toBe('A #boat of #oak')
})

it('words are counted as one reads them', () => {
  expect(countWords('It’s a well-known cat’s 35-litre pot — 𝒳 of naïve Öl.')).toBe(10)
  expect(countWords('')).toBe(0)
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      expect(countWords(text)).toBe(text.match(/[\p{L}\p{N}]+(?:[’'-][\p{L}\p{N}]+)*/gu)?.length ?? 0)
    }),
  )
})

it('texts are held together without case, marks, tags and addresses', () => {
  expect(printOf(' “Well, well!” – said  Öl ')).toBe('well well said öl')
  expect(bareWords('Oak bends. #Oak https://a.example/x')).toBe('oakbends')
})

it('sentences end on their mark and what closes after it', () => {
  expect(['So.', 'So?”', '(So.)', 'So…'].every(endsSentence)).toBe(true)
  expect(['So', 'So:', 'So. And'].some(endsSentence)).toBe(false)
  expect(firstSentence('He said “so.” Then 3.5 litres.')).toBe('He said “so.”')
  expect(firstSentence('No end')).toBe('No end')
})

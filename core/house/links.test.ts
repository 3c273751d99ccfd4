import { expect, it } from 'vitest'
import { linkOf, taggedLink, USUAL_TAGS } from './links'

const facts = {
  brand: 'Oakum Yard',
  network: 'murmur',
  pipeline: 'Evergreen & new',
  angle: 'how-to',
  account: 'oakum',
  beat: 3,
}

it('fills a house’s link tags, keeps what an address has, and replaces a tag it has already', () => {
  expect(taggedLink('https://yard.example/seam?page=2#end', USUAL_TAGS, facts)).toBe(
    'https://yard.example/seam?page=2&utm_source=murmur&utm_medium=social&utm_campaign=evergreen-new&utm_content=how-to-3#end',
  )
  const twice = taggedLink(taggedLink('https://yard.example/', USUAL_TAGS, facts), USUAL_TAGS, {
    ...facts,
    network: 'guildhall',
  })
  expect(new URL(twice).searchParams.getAll('utm_source')).toEqual(['guildhall'])
})

it('leaves an address alone where there are no tags, nothing to fill, or no address', () => {
  expect(taggedLink('https://yard.example/a?b=c', [], facts)).toBe('https://yard.example/a?b=c')
  expect(
    taggedLink('https://yard.example/', [{ name: 'utm_term', value: '{pipeline}' }], {
      ...facts,
      pipeline: '',
    }),
  ).toBe('https://yard.example/')
  expect(taggedLink('not an address', USUAL_TAGS, facts)).toBe('not an address')
})

it('finds the link that a wording carries, also in its first comment', () => {
  const link = 'https://yard.example/seam'
  const nothing = { text: 'A seam.', parts: [], firstComment: null }
  expect(linkOf({ ...nothing, text: `A seam. ${link}?utm_source=murmur #Seam` }, link)).toBe(
    `${link}?utm_source=murmur`,
  )
  expect(linkOf({ ...nothing, firstComment: `Seams\n${link}?utm_source=guildhall` }, link)).toBe(
    `${link}?utm_source=guildhall`,
  )
  expect(linkOf(nothing, link)).toBe(link)
  expect(linkOf({ ...nothing, text: 'https://other.example/' }, link)).toBe(link)
  expect(linkOf(nothing, null)).toBeNull()
})

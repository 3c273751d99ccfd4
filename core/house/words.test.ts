import { describe, expect, it } from 'vitest'
import { PLAIN_HOUSE } from './brief'
import { inHouse, wordsFound, swapWords } from './words'

describe('the house’s words', () => {
  it('swaps a word in its form, with the article that it wants, and its own quotations not', () => {
    const swaps = [
      { from: 'article', to: 'thread' },
      { from: 'utilise', to: 'use' },
    ]
    expect(swapWords('An article on articles. Articles!', swaps)).toBe('A thread on threads. Threads!')
    expect(swapWords('We utilised it, utilising two.', swaps)).toBe('We used it, using two.')
    expect(swapWords('A particle of art.', swaps)).toBe('A particle of art.')
    const style = { ...PLAIN_HOUSE.style, swaps: [{ from: 'boat', to: 'vessel', network: null }] }
    expect(inHouse('The boat said “boat”.', style, 'murmur')).toBe('The vessel said “boat”.')
  })

  it('prefers the swap of the network to the brand’s', () => {
    const style = {
      ...PLAIN_HOUSE.style,
      swaps: [
        { from: 'article', to: 'piece', network: null },
        { from: 'article', to: 'letter', network: 'broadside' },
      ],
    }
    expect(inHouse('This article.', style, 'broadside')).toBe('This letter.')
    expect(inHouse('This article.', style, 'murmur')).toBe('This piece.')
  })

  it('finds what is never said in every form, by pattern too, and inside no other word', () => {
    expect(wordsFound('Five game-changing hacks', 'game changing')).toBe('game-changing')
    expect(wordsFound('They were hacking away', 'hack')).toBe('hacking')
    expect(wordsFound('Hackney carriages', 'hack')).toBeNull()
    expect(wordsFound('It is 100 % safe', '/\\d+ ?%/')).toBe('100 %')
    expect(() => wordsFound('x', '/(/')).toThrow(/no pattern that works/)
  })
})

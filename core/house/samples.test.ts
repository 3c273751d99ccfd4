import { describe, expect, it } from 'vitest'
import { measureVoice, partPosts } from './samples'

describe('posts that a brand has written', () => {
  it('are parted at blank lines or marks', () => {
    expect(partPosts('One post.\nStill one.\n\nTwo.\n---\nThree.\n\n')).toEqual([
      'One post.\nStill one.',
      'Two.',
      'Three.',
    ])
  })

  it('tell a casual, warm voice that says we from a formal one that says nothing of itself', () => {
    const casual = measureVoice([
      'We’ve put the kettle on – come by! You’ll find us in the shed. #Boats',
      'It’s raining, so we’re varnishing nothing. Don’t you love a dry day? 🙂',
      'Thanks to everyone who came! We can’t wait to see you again – there’s soup.',
    ])
    expect(casual?.voice).toMatchObject({ formality: -2, speaker: 'we' })
    expect(casual?.voice.warmth).toBeGreaterThan(0)
    expect(casual?.voice.vividness).toBeGreaterThan(0)
    const formal = measureVoice([
      'The deposit is not returned in the last fourteen days. It is held by the scheme.',
      'A clause that does not name a sum is void. The court will not enforce it.',
      'Tenants are not obliged to pay for cleaning. It is the inventory that decides.',
    ])
    expect(formal?.voice).toMatchObject({ formality: 2, speaker: 'nobody' })
    expect(formal?.voice.warmth).toBeLessThan(0)
  })

  it('tell lengths and tags, and say nothing of two', () => {
    const posts = [60, 100, 120, 150, 400].map((n) => `${'oak '.repeat(n / 4).trim()} #Oak #Wood`)
    const found = measureVoice(posts)
    expect(found).toMatchObject({ hashtags: 2, posts: 5 })
    expect(found?.length.least).toBeLessThanOrEqual(60)
    expect(found?.length.most).toBeGreaterThanOrEqual(150)
    expect(measureVoice(posts.slice(0, 2))).toBeNull()
  })
})

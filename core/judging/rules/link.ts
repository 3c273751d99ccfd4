import { addressesIn, withoutAddresses } from '../../text'
import { when, type Rule } from '../rule'

/** Whether the link is there where it is wanted, and leads somewhere. */
export const link: Rule = {
  code: 'no-link',
  english: false,
  blocks: true,
  finds: (_, { profile, link: address, linkTrouble, source, codes = 0 }) => [
    ...when(profile.link.required && address === null, () => ({
      severity: 'block',
      message: `${profile.name} wants a link and the ${source === null ? 'post has none' : 'piece has no address'}. Give it one, or set the post aside.`,
    })),
    ...when(codes > 0 && !address, () => ({
      code: 'code-without-link',
      severity: 'flag',
      message:
        'A card is to carry the link as a code, and this post has no link. Give it one, or take the code off.',
    })),
    ...when(linkTrouble, () => ({
      code: 'link-broken',
      severity: 'flag',
      message: `The link leads nowhere: ${linkTrouble}`,
      ...(address ? { words: address } : {}),
    })),
  ],
}

/** Whether a link stands in the text of a network that does nothing with it. */
export const liveLink: Rule = {
  code: 'link-not-live',
  english: false,
  blocks: false,
  finds: ({ text }, { profile }) => {
    const [address] = addressesIn(text)
    return when(profile.link.live === false && address, () => ({
      severity: 'flag',
      message: `A link in the text does nothing on ${profile.name}. Put it in the profile.`,
      words: address?.text ?? '',
      remedy: 'Take the link out',
    }))
  },
  mends: (text) =>
    withoutAddresses(text)
      .replace(/[ \t]{2,}/g, ' ')
      .replace(/\n{3,}/g, '\n\n')
      .trim(),
}

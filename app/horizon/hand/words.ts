import { ownPictureHash, type HandWords } from '../../../core/model'

export const EMPTY_WORDS: HandWords = { title: null, text: '', link: null, picture: null }

/** Whether an address is whole, as a link of a post has to be. */
export function isAddress(text: string): boolean {
  return /^https?:\/\/[^\s.]+\.?\S+$/i.test(text) && URL.canParse(text)
}

/** Whether a picture can be had by an address: from the web, or out of the workspace itself. */
export function isPictureAddress(url: string): boolean {
  return isAddress(url) || ownPictureHash(url) !== null
}

/** Words without an address that is not whole yet. */
export function soundWords(words: HandWords): HandWords {
  return {
    ...words,
    link: words.link && isAddress(words.link) ? words.link : null,
    picture: words.picture && isPictureAddress(words.picture.url) ? words.picture : null,
  }
}

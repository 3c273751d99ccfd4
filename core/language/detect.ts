import { francAll } from 'franc-min'
import { STOP_WORDS } from './en'

/** ISO 639-3 codes of the detector as the two letters that feeds and pages use. */
const TWO: Record<string, string> = {
  eng: 'en',
  fra: 'fr',
  deu: 'de',
  spa: 'es',
  por: 'pt',
  ita: 'it',
  nld: 'nl',
  swe: 'sv',
  pol: 'pl',
  tur: 'tr',
  ron: 'ro',
  hun: 'hu',
  ces: 'cs',
  rus: 'ru',
  ukr: 'uk',
  ell: 'el',
  ind: 'id',
  vie: 'vi',
  jpn: 'ja',
  kor: 'ko',
  cmn: 'zh',
  arb: 'ar',
  heb: 'he',
  hin: 'hi',
  tha: 'th',
  bul: 'bg',
  srp: 'sr',
  hrv: 'hr',
}

/** The share of words that only do grammar in English, in the first two thousand characters. */
function englishShare(text: string): number {
  const words =
    text
      .slice(0, 2000)
      .toLowerCase()
      .match(/\p{L}+/gu) ?? []
  return words.length ? words.filter((w) => STOP_WORDS.has(w)).length / words.length : 0
}

/** From this share a text is English without a further look; below the other it is not, whatever it declares. */
const ENGLISH = { surely: 0.35, hardly: 0.15 }

/**
 * The language of a text as two letters: what it declares, else by the trigrams of its first
 * two thousand characters (franc, after Cavnar and Trenkle 1994); null where they do not decide. A page
 * that declares English and holds hardly a word of it is looked at again, for themes often do.
 */
export function languageOf(text: string, declared: string | null): string | null {
  const own = declared?.trim().toLowerCase().slice(0, 2)
  const stated = own && /^[a-z]{2}$/.test(own) ? own : null
  if (text.length < 60) return stated
  const share = englishShare(text)
  if (stated && (stated !== 'en' || share > ENGLISH.hardly)) return stated
  if (share >= ENGLISH.surely) return 'en'
  const [first] = francAll(text.slice(0, 2000))
  return (first && TWO[first[0]]) ?? stated
}

/** Whether a piece is read and written for by the rules of English; what declares nothing is taken for it. */
export function isEnglish(language: string | null): boolean {
  return language === null || language.toLowerCase().startsWith('en')
}

/** The English name of a language: "German" for "de". */
export function languageName(language: string): string {
  try {
    return new Intl.DisplayNames(['en'], { type: 'language' }).of(language) ?? language
  } catch {
    return language
  }
}

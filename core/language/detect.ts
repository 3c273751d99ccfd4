import { francAll } from 'franc-min'

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

/**
 * The language of a text as two letters: what it declares, else by the trigrams of its first
 * two thousand characters (franc, after Cavnar and Trenkle 1994); null where they do not decide.
 */
export function languageOf(text: string, declared: string | null): string | null {
  const own = declared?.trim().toLowerCase().slice(0, 2)
  if (own && /^[a-z]{2}$/.test(own)) return own
  if (text.length < 60) return null
  const [first] = francAll(text.slice(0, 2000))
  return first ? (TWO[first[0]] ?? null) : null
}

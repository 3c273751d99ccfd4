export { compare, Doubles, foldDoubles, shingles, sketchOf } from './doubles'
export {
  fieldOf,
  languageName,
  readsText,
  sieve,
  spanInWords,
  type SieveContext,
  type Sieved,
  type SieveResult,
} from './judge'
export { firstNumber, matchingWords } from './words'
export { isFor, judge, sieveContext, sourcesOf } from './takeIn'
export { findDoubles } from './find'
export { nearDoubles } from './near'
export { byNeed, haystack, matches, pieceState, waitingPieces, type PieceState } from './state'

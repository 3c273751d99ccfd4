export { compare, Doubles, foldDoubles, shingles, sketchOf, type Candidate, type Told } from './doubles'
export {
  languageName,
  listed,
  readsText,
  sieve,
  spanInWords,
  topBound,
  type Sieved,
  type SieveContext,
  type SieveResult,
} from './judge'
export { firstNumber, matchingWords } from './words'
export { judge, sieveContext, sourcesOf } from './takeIn'
export { findDoubles } from './find'
export { nearDoubles } from './near'
export { byNeed, haystack, matches, pieceState, waitingPieces, type PieceState } from './state'

export { blankPost, cardPictures, clipMedia, nothingYet } from './blank'
export { earlierCaptions } from './earlier'
export { makeDrip, gateState, isInReach, wishedAt, type DripRequest, type DripResult } from './drip'
export { handPosts, wordsOf, type HandPost, type HandRequest, type HandRow, type When } from './hand'
export {
  accountsOf,
  beatsOf,
  postsEach,
  releasedTo,
  rowsFor,
  rulesOf,
  type Beats,
  type RowVerdict,
} from './release'
export { renewalOf, renewed, type Renewal } from './recurring'
export { lookBack } from './lookBack'
export { differs } from './differ'
export {
  circle,
  filledIn,
  FILLED_IN,
  FILLINGS,
  followsSince,
  followWords,
  isFinished,
  MESSAGES,
  unfilled,
} from './follows'
export { pieceOfPost } from './handOn'
export { exampleCards, mediaAfter, pictureOptions, type ExampleCards, type PictureOption } from './pictures'
export { piecesWords, timingWords } from './words'
export { singlePost, type SingleRequest } from './single'
export { contextFor, datedLine, linkedPage, neighboursOf } from './recheck'
export {
  carriesFullText,
  finishPiece,
  itemPrint,
  relocate,
  revisePiece,
  takePiece,
  takeRow,
  takeWriting,
  toPassages,
  withTranscript,
  type Document,
  type Fetched,
  type Owner,
  type TakenPiece,
} from './take'

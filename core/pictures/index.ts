export { proposedAlt, standsWith } from './alt'
export { cardsFor } from './cards'
export { scenesOf, secondsOf } from './scenes'
export { filmPartOf, movedSubtitles, subtitleFile } from './films'
export { barsOf, clipMoment, filmMoment, partSeconds, pausesOf, shownParts } from './shownParts'
export { slidesOf } from './slides'
export { choosePictures, rankPictures, type PictureWish } from './choose'
export { plainFile } from './plainFile'
export { LOOKED_AT, textLines } from './textLines'
export { aroundParts, headOf } from './wholeParts'
export { greyOf, PRINT_SIDE, printOf } from './print'
export {
  findIn,
  libraryOf,
  ORDERS,
  ORIGINS,
  type LibraryEntry,
  type LibraryQuery,
  type Origin,
} from './library'
export { orderOf, orderSize, USUAL_PICTURE, type OrderFor } from './order'

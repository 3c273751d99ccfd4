export { proposedAlt } from './alt'
export { cardsFor } from './cards'
export { choosePictures, rankPictures, type PictureWish } from './choose'

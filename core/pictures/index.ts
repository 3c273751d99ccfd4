export { proposedAlt } from './alt'
export { cardsFor } from './cards'
export { slidesOf } from './slides'
export { choosePictures, rankPictures, type PictureWish } from './choose'

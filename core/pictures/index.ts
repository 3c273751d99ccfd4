export { cardAlt, cardsFor } from './cards'
export { choosePictures, type PictureWish, type Showing } from './choose'

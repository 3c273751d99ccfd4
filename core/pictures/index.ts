export { choosePictures, type PictureWish, type Showing } from './choose'

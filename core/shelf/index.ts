export { Shelf, type Shelved } from './shelf'
export {
  choicesFor,
  ordered,
  SHELF_PRIORITY,
  takenBy,
  wishesOf,
  type ShelfChoice,
  type ShelfWish,
} from './choose'

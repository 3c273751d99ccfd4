export { Shelf, whyOff, type Shelved } from './shelf'
export {
  choicesFor,
  firstOf,
  ordered,
  SHELF_PRIORITY,
  takenBy,
  wishesOf,
  type ShelfChoice,
  type ShelfWish,
} from './choose'

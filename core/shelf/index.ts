export { Shelf, whyOff, type Shelved } from './shelf'
export {
  choicesFor,
  firstOf,
  NETWORK_DAYS,
  ordered,
  SHELF_PRIORITY,
  takenBy,
  wishesOf,
  type ShelfChoice,
  type ShelfWish,
} from './choose'

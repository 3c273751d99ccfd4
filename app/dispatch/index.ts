export { AccountSheet } from './AccountSheet'
export { differenceWords, MovesList } from './MovesList'
export { SlotGrid } from './SlotGrid'

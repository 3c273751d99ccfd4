export { AccountSheet } from './AccountSheet'
export { differenceWords, MovesBeside, MovesList } from './MovesList'
export { SlotGrid } from './SlotGrid'

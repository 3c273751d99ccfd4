export { followsRhythm, inRhythm, thinnedSlots, toAccount, withRhythm, type Change } from './change'
export { rehearse, type Comparison, type Rehearsal, type RehearsalRequest } from './rehearse'

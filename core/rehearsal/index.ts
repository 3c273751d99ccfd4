export { followsRhythm, inRhythm, thinnedSlots, toAccount, withRhythm, type Change } from './change'
export { rehearse } from './rehearse'
export type { Comparison, Rehearsal, RehearsalRequest } from './request'

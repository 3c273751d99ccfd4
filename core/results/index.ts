export type { Estimate } from './estimate'
export { factsOf, type Fact, type FactPost } from './facts'
export { COLUMNS_FORMAT, type KeptColumns, type ReadUntil } from './columns'
export { FactBase } from './factBase'
export {
  COUNTED,
  GROUPINGS,
  worthOf,
  type Asked,
  type Counted,
  type Group,
  type Grouping,
  type HourCell,
  type Ranked,
} from './answer'
export { bestTimes, type BestTimes } from './times'
export { hourTrialsOf, type Trying } from './hourTrials'
export type { Effect } from './effects'
export {
  lineChange,
  resultsOf,
  tellingApart,
  toldApart,
  type AskedEffects,
  type NetworkEffects,
  type Results,
  type ToldApart,
} from './results'
export { followingsToDrop, MOST_FOLLOWINGS, MOST_READINGS, readingsToDrop } from './thin'
export { followersOf, type Followed } from './followers'
export { tiringOf, type Tiring } from './tiring'
export { leaningsOf } from './learn'
export { expectedOf, type Expected, type Planned } from './expected'
export { reportOf, type AskedReport, type Report, type Week } from './report'
export {
  bounds,
  COUNTED_WORDS,
  effectName,
  expectedWords,
  figure,
  groupName,
  grownWords,
  growthWords,
  isCertain,
  more,
  type Names,
} from './words'

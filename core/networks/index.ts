export { NetworkProfile, type LinkPlace } from './profile'
export {
  cardShape,
  clipShape,
  formatOf,
  isDocument,
  mediaIn,
  mostSlides,
  noStory,
  shownIn,
  STORY,
} from './formats'
export { graphemes, measure, sliceGraphemes } from './measure'
export {
  chooseShape,
  cropAboutCentre,
  cutIn,
  mayMove,
  movedCut,
  staysMoving,
  type MayMove,
  type Shape,
} from './shape'
export {
  NETWORKS,
  SERVED,
  proposedLimits,
  network,
  servicePath,
  longestClip,
  shownOn,
  clipBound,
  type ServedNetwork,
} from './known'

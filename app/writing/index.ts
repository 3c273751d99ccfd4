export { Troubles } from './post/Troubles'
export { PostSheet } from './post/PostSheet'
export { BriefFields } from './BriefFields'
export { TakeAway } from './TakeAway'

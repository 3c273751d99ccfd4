export { HeldNotice } from './post/HeldNotice'
export { PostSheet } from './post/PostSheet'

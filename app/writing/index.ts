export { HeldNotice, PostSheet } from './PostSheet'

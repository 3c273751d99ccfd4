export { PostSheet } from './PostSheet'

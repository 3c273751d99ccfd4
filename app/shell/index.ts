export { useWork } from './work'

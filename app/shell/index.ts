export { EndedNotice, Holding } from './Holding'
export { useWork } from './work'

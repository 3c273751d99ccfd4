export { EndedNotice, Holding } from './Holding'
export { Popover } from './Popover'
export { useWork } from './work'

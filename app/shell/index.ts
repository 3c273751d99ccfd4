export { applyTheme, storedTheme, type Theme } from './colours'
export { EndedNotice, Holding } from './Holding'
export { Popover } from './Popover'
export { useWork } from './work'

export { fillersIn, withoutFillers } from './fillers'

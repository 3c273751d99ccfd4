export { fillersIn, hesitationsIn, withoutFillers } from './fillers'
export { LEVEL_SECONDS, toLeaveOut } from './pauses'

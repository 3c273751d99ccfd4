export { writeDrip } from './write'
export type { EarlierCaption, WrittenPost } from './request'
export { asPosts, ASKED_OF, type AskedOf, type SeriesPost } from './series'
export { reword, rewordSelection, WAYS, type RewordRequest, type Way } from './reword'

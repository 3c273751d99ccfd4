export { readPage, readFragment, type Known } from './html'
export { read, KINDS, type ReadKind, type ReadResult } from './read'
export { analyse, countWords, type ReadSentence } from './piece'
export type { Token } from './language'

export { makeDrip, gateState, wishedAt, type DripRequest, type DripResult } from './drip'
export { placePosts, isSettled } from './place'
export { carriesFullText, takePiece, toPassages } from './take'
export { contextFor } from './recheck'

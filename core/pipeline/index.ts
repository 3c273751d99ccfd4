export { makeDrip, gateState, type DripRequest, type DripResult } from './drip'
export { placePosts } from './place'
export { carriesFullText, takePiece, toPassages } from './take'
export { contextFor } from './recheck'

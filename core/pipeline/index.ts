export { earlierCaptions, makeDrip, gateState, type DripRequest, type DripResult } from './drip'
export { contextFor } from './recheck'
export {
  carriesFullText,
  finishPiece,
  itemPrint,
  relocate,
  revisePiece,
  takePiece,
  takeRow,
  takeWriting,
  toPassages,
  withTranscript,
  type Document,
  type Fetched,
  type Owner,
  type TakenPiece,
} from './take'

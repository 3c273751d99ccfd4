export {
  adoptAccount,
  chooseTargets,
  linkPlainly,
  saveTimes,
  timesOf,
  withTimes,
  type AccountTimes,
} from './actions/accounts'
export { checkAccount, endsSoon, linkAgainPath, linkPath, useLinkable, useLinked } from './linking'
export { copyBrand, makeBrand, saveBrand } from './actions/brands'
export {
  anglesFor,
  anotherAngle,
  exampleOf,
  headlinesOf,
  nextWording,
  otherWordings,
  remedied,
  replaceIn,
  rewordedSelection,
  seriesOf,
  takeWording,
  type Option,
} from './actions/captions'
export { takeAway } from './actions/takeAway'
export { orderColumns, startDrip, tryDrip } from './actions/drips'
export { copyPost, replaceByNext } from './actions/copies'
export { end, goOn, plannedOf, setAsideBy, type Endable, type Planned } from './actions/ending'
export { keepHandPosts, openPostSheet, readPosts, tryHandPosts } from './actions/hand'
export { hold, lift, type Holdable } from './actions/holds'
export {
  addPassage,
  choosePassage,
  choosePassagesConnected,
  joinPassage,
  removePassage,
  stretchPassage,
} from './actions/passages'
export {
  dealWith,
  leaveChanged,
  keepForGood,
  letThrough,
  makeAgain,
  openPostsOf,
  saveWordList,
  unfold,
} from './actions/pieces'
export {
  addPipeline,
  dropDraft,
  goBack,
  putToWork,
  removePipeline,
  repeatable,
  repeatRun,
  savePipeline,
  switchOff,
  switchOn,
  type PipelineChange,
  type WhenOff,
  workDifference,
} from './actions/pipelines'
export {
  clearing,
  clearPictures,
  removePicture,
  takePicture,
  tellPicture,
  titleOfFile,
  type Clearing,
} from './actions/library'
export {
  applyMoves,
  difference,
  pinPosts,
  placedAnew,
  placesFor,
  putAt,
  readCalendar,
  saveWeights,
  shifted,
  startsFor,
  swapped,
  wishedAt,
  type Move,
} from './actions/plan'
export {
  acceptFlag,
  anotherWording,
  approve,
  approveAsItIs,
  boundPost,
  bringBack,
  checkWording,
  decideLate,
  sayItIsOut,
  standingOf,
  editText,
  setAside,
  takeDown,
  tryAgain,
  type Approval,
} from './actions/posts'
export { useLineChange } from './results'
export {
  addListedFeeds,
  addSource,
  changeAddress,
  editSource,
  lookAt,
  removeSource,
  visitEvery,
  type Looked,
} from './actions/sources'
export { takeOver, tryRehearsal } from './actions/rehearsal'
export { makePacket, takeDecisions, type Decided } from './actions/review'
export { visitSource } from './actions/visit'
export {
  giveTranscript,
  importSheet,
  openFile,
  readPasted,
  type Borrowed,
  takePage,
  takeWriting,
  trySheet,
  type OpenedFile,
} from './actions/writing'
export { outSince, standing } from './actions/notices'
export { claimNotices, claimSummary, handOverAhead, noteVisit, saveNotices } from './actions/workspace'
export { boot, claim, restartDemo, type Boot } from './boot'
export { addBrands, exportBundle, importBundle, removeBrand } from './bundle'
export { clockNow, nowIso, useClock } from './clock'
export {
  useAccounts,
  useCard,
  useCut,
  useMedia,
  useSmallPicture,
  useOpenAccounts,
  usePicture,
  useRow,
  useRows,
  useTable,
  useWholePiece,
} from './hooks'
export { textsOf } from './store'
export { during, jump, startRunner, useActivity } from './runner'
export { undo } from './undo'
export { canWriteFolders, chooseWeekly, download } from './weekly'
export { deliverTrial } from './runner/handOver'
export { archiveOf, useDocumentAddress } from './runner/documents'
export {
  connectChat,
  connectShortener,
  connectWriter,
  disconnectChat,
  disconnectShortener,
  disconnectWriter,
  sayInChat,
  sayLines,
  tryWriter,
  useChat,
  useClicks,
  useShortener,
  useWriter,
} from './services'
export { connectedWording } from './actions/connected'
export { calendarAddress, endCalendar, renewCalendar } from './runner/calendars'
export { pageLinks } from './runner/pages'
export {
  connectMaker,
  connectStock,
  disconnectMaker,
  disconnectStock,
  orderPicture,
  searchStock,
  takeFromStock,
  useMaker,
  useStock,
} from './pictureServices'

export { adoptAccount, saveAccounts } from './actions/accounts'
export { makeBrand, saveBrand } from './actions/brands'
export { endDrip, startDrip, tryDrip } from './actions/drips'
export { hold, lift, type Holdable } from './actions/holds'
export { addPassage, choosePassage, removePassage, stretchPassage } from './actions/passages'
export { dealWith } from './actions/pieces'
export { addPipeline, removePipeline, savePipeline, switchPipeline } from './actions/pipelines'
export { difference, type Move } from './actions/plan'
export {
  acceptFlag,
  anotherWording,
  approve,
  checkWording,
  decideLate,
  editText,
  setAside,
  takeDown,
  tryAgain,
} from './actions/posts'
export {
  addSource,
  editSource,
  findFeeds,
  removeSource,
  visitSource,
  type FoundFeed,
} from './actions/sources'
export { noteVisit } from './actions/workspace'
export { boot, claim, restartDemo, type Boot } from './boot'
export { exportBundle, importBundle } from './bundle'
export { clockNow, nowIso, useClock } from './clock'
export { useAccounts, useRow, useRows, useTable } from './hooks'
export { during, jump, startRunner, useActivity } from './runner'
export { undo } from './undo'
export { canWriteFolders, chooseWeekly, download } from './weekly'

/** The second face of this folder: what only some screens need, so that the first one does not load it. */
export {
  changeHook,
  changeSubtitles,
  clipFrame,
  clipLasts,
  clipPlate,
  clipSaid,
  clipWave,
  fillClip,
  keepStill,
  letMove,
  moveClip,
  tightenClip,
} from './actions/clips'
export { makeClip } from './actions/pictures'
export { filmShown, giveFilm } from './actions/films'
export { clipOrder } from './actions/madeClip'
export { addFace, removeFace, setMark } from './actions/faces'
export { coloursOfFile, saveLook } from './actions/look'
export { coloursOfAddress } from './actions/pageColours'
export {
  asSlides,
  asStory,
  changeCard,
  exampleCards,
  describePicture,
  nextPicture,
  pictureOptions,
  showFile,
  showOwn,
  cutPicture,
  showPictures,
} from './actions/postPictures'
export {
  changeRecurrence,
  startRecurrence,
  tryRecurrence,
  type Changed,
  type RecurrenceDraft,
} from './actions/recurring'
export {
  learnedTimes,
  useEffects,
  useExpected,
  useFollowers,
  useReport,
  useResults,
  useTiring,
} from './results'
export { keepCollection, shortTextsOfFile } from './actions/collection'
export { dripAgain } from './actions/copies'
export {
  changeOccasion,
  keepOccasions,
  occasionSheet,
  readOccasionFile,
  removeOccasions,
  todayOf,
  yearOf,
  type OccasionOn,
} from './actions/occasions'
export { nearTo, writeOccasions, type OccasionsWritten } from './actions/occasionPosts'
export { shelve, useShelf, useShelfFor } from './shelf'

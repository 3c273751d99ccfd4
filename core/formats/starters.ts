import { PipelineFile } from './pipelineFile'
import beforeTheDay from './starters/before-the-day.json'
import changedSaidAgain from './starters/changed-said-again.json'
import goodWorkKeptGoing from './starters/good-work-kept-going.json'
import knowledgeToArchive from './starters/knowledge-to-archive.json'
import longAndThin from './starters/long-and-thin.json'
import newsFastRestSlow from './starters/news-fast-rest-slow.json'
import oldArchive from './starters/old-archive.json'
import partnerNews from './starters/partner-news.json'
import videoIntoText from './starters/video-into-text.json'

/** The pipelines that ship for common wishes, each a file like any other, in the order in which they are shown. */
export const STARTERS: readonly PipelineFile[] = [
  longAndThin,
  goodWorkKeptGoing,
  newsFastRestSlow,
  videoIntoText,
  partnerNews,
  changedSaidAgain,
  knowledgeToArchive,
  oldArchive,
  beforeTheDay,
].map((file) => PipelineFile.parse(file))

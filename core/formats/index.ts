export { isAbout, ledgerLines, ledgerSheet, type LedgerLine } from './ledger'
export { readShortTexts, shortTextsOf, type ShortTexts } from './shortTexts'
export { followersSheet, resultsSheet } from './resultsSheet'
export { writeReport, type ReportedFollowers, type ReportedPost } from './reportPage'
export { belongsTo, filesIn, rowsOfBrand } from './brandBundle'
export { adoptRows, readBundle, writeBundle, type Bundle } from './bundle'
export { linkPage, linksAt } from './linkPage'
export { SCHEMA, UPGRADES, upgradeRows, type RawRows } from './upgrade'
export {
  guessReading,
  mergeRows,
  parseSheet,
  readSheet,
  type RowFault,
  type SheetMerge,
  type SheetTable,
} from './sheet'
export { nextRow } from './nextRow'
export { calendarEntries } from './entries'
export { writeCalendar } from './calendar'
export { readOccasionCalendar, readQuietDays, type NamedQuietDay } from './readCalendar'
export { readOccasionSheet, writeOccasionSheet, type SheetOccasion } from './occasionSheet'
export { readPlanSheet, writePlanSheet } from './planSheet'
export {
  emptyPostSheet,
  guessPostColumns,
  POST_FIELDS,
  readPostSheet,
  type PostField,
  type PostSheetReading,
} from './postSheet'
export {
  freshPipeline,
  matchingFor,
  PipelineFile,
  pipelineOf,
  readPipeline,
  renamed,
  writePipeline,
  type Matching,
} from './pipelineFile'
export { publicationsOf } from './publications'
export { DOCUMENT_TYPES, writeArchive, writePublished } from './published'
export { STARTERS } from './starters'
export { readDecisions, writePacket, type Decisions, type Packet, type PacketPost } from './reviewPacket'
export { flagName, reviewPrint } from './reviewPrint'
export { awayCaption, awayCredits, awayPosts, awaySheet, fileNames } from './takeAway'

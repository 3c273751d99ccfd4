export * from './en'
export { isEnglish, languageName, languageOf } from './detect'
export { plainSentences } from './plain'

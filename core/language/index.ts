export * from './en'
export { languageOf } from './detect'

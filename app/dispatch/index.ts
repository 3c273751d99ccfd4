export { AccountSheet } from './AccountSheet'

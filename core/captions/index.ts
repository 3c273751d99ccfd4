export { PLAIN_HOUSE, type House } from './brief'
export { checkCaption, type CheckContext } from './checks'
export { likeness, LIKENESS_BOUND, opening } from './likeness'
export { writeDrip, sourceText, type WrittenPost } from './write'

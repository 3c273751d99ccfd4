export { briefOf, houseOf, PLAIN_HOUSE, type House, type WholeBrief } from './brief'
export { inHouse, wordsFound } from './words'
export { linkOf, taggedLink, USUAL_TAGS } from './links'
export { measureVoice, partPosts, type MeasuredVoice } from './samples'

export { decodeText } from './decode'
export { canonicalAddress, resolveAddress } from './address'
export { parseFeed, looksLikeFeed, Feed, FeedItem } from './parse'
export { discoverFeeds } from './discover'

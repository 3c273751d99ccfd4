import type { PageLook } from '../html'

const SANS = 'system-ui, sans-serif'
const SERIF = 'Georgia, serif'

/** A look for each network: its colour, its letters, and how posts stand. */
const LOOKS: Readonly<Record<string, PageLook>> = {
  murmur: { accent: '#3b6ea5', font: SANS, posts: 'stream', ground: '#f7fafc' },
  guildhall: { accent: '#6b4f2a', font: SERIF, posts: 'stream', ground: '#fbf8f2' },
  shutterleaf: { accent: '#2f7d4f', font: SANS, posts: 'plates', ground: '#ffffff' },
  hearthside: { accent: '#a4472f', font: SANS, posts: 'stream', ground: '#fdf6f2' },
  rackwell: { accent: '#7a4b8a', font: SANS, posts: 'plates', ground: '#faf7fb' },
  loopyard: { accent: '#16666b', font: SANS, posts: 'plates', ground: '#f2f9f9' },
  longwave: { accent: '#27408b', font: SANS, posts: 'plates', ground: '#f6f7fc' },
  courier: { accent: '#8a6d00', font: 'ui-monospace, monospace', posts: 'stream', ground: '#fcfaf0' },
  broadside: { accent: '#333333', font: SERIF, posts: 'letters', ground: '#fffdf8' },
}

/** The look of a network, and a plain one for those that a user added. */
export function lookOf(network: string): PageLook {
  return LOOKS[network] ?? { accent: '#5c6862', font: SANS, posts: 'stream', ground: '#fbfaf7' }
}

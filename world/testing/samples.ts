import type { WorldPost } from '../posts'

/** A post of the stand-in world, for tests. */
export function aWorldPost(id: string, change: Partial<WorldPost> = {}): WorldPost {
  return {
    id,
    network: 'murmur',
    account: 'one',
    key: `key ${id}`,
    at: 0,
    visibleFrom: 0,
    gone: false,
    format: '',
    target: null,
    title: null,
    summary: null,
    tags: [],
    text: `The words of ${id}.`,
    parts: [],
    poll: [],
    firstComment: null,
    link: null,
    media: [],
    ...change,
  }
}

import type { Fact } from '../facts'

/** A published post as results see it: plain words on Murmur, on a Monday at nine. */
export function aFact(change: Partial<Fact> = {}): Fact {
  return {
    post: 'post',
    account: 'a',
    network: 'murmur',
    piece: null,
    pipeline: null,
    passage: null,
    passageKind: null,
    picture: null,
    at: 0,
    hour: 9,
    weekday: 1,
    angle: 'tip',
    format: 'post',
    length: 'usual',
    shows: 'nothing',
    opening: 'a statement',
    listed: false,
    tags: [],
    readings: {},
    ...change,
  }
}

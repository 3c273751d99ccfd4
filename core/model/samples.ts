import type { Account } from './account'
import type { Brand } from './brand'
import { usualLook } from './card'
import { HouseStyle } from './house'
import type { Drip } from './drip'
import type { Passage } from './passage'
import type { Piece, PieceText, WholePiece } from './piece'
import { NO_LIMITS, PLAIN_MAKE, type FromShelf, type Pipeline, type ReleaseRow } from './pipeline'
import type { Post, Wording } from './post'
import type { Recurrence } from './recurrence'
import { freshSource, type SheetRow, type Source } from './source'
import { Payload } from './spool'
import { USUAL_WEIGHTS } from './weights'
import { freshWorkspace, type Workspace } from './workspace'

/*
 * One plain record of each kind, whole and consistent with the others, from which tests make what
 * they are about by changing a field or two. Nothing but tests imports this file.
 */

const T0 = '2026-11-24T10:00:00.000Z'

export function aPayload(change: Partial<Payload> = {}): Payload {
  return {
    ...Payload.parse({ text: 'Green oak bends.', firstComment: null, link: null, media: [] }),
    ...change,
  }
}

export function aWorkspace(change: Partial<Workspace> = {}): Workspace {
  return { ...freshWorkspace('ws', null, T0), ...change }
}

export function aBrand(change: Partial<Brand> = {}): Brand {
  return {
    id: 'brand',
    name: 'The Yard',
    zone: 'Europe/Lisbon',
    quiet: [],
    slots: [],
    weights: USUAL_WEIGHTS,
    houseStyle: HouseStyle.parse({}),
    look: usualLook('The yard'),
    briefs: [],
    held: null,
    endedAt: null,
    createdAt: T0,
    ...change,
  }
}

/** An account that may post every day at nine and at five. */
export function anAccount(change: Partial<Account> = {}): Account {
  const days = [1, 2, 3, 4, 5, 6, 7]
  return {
    id: 'account',
    brand: 'brand',
    network: 'murmur',
    connector: 'stand-in',
    remoteId: 'remote',
    target: null,
    handle: 'the.yard',
    name: 'The Yard',
    profileUrl: 'http://localhost/@the.yard',
    groups: [],
    zone: 'Europe/Lisbon',
    slots: days.flatMap((weekday) => [
      { weekday, at: '09:00' },
      { weekday, at: '17:00' },
    ]),
    quiet: [],
    openedOn: null,
    warmUp: null,
    maxPerDay: 2,
    maxPerWeek: 14,
    gapMinutes: 120,
    health: { state: 'linked', since: T0, message: 'Linked.', endsAt: null },
    held: null,
    endedAt: null,
    linkedAt: T0,
    ...change,
  }
}

export function aSource(change: Partial<Source> = {}): Source {
  return freshSource({
    id: 'source',
    brand: 'brand',
    kind: 'feed',
    title: 'The journal',
    url: 'http://journal.localhost/feed.xml',
    nextVisitAt: T0,
    createdAt: T0,
    ...change,
  })
}

export function aSheetRow(change: Partial<SheetRow> = {}): SheetRow {
  return {
    id: 'row',
    brand: 'brand',
    source: 'source',
    address: 'http://journal.localhost/seam',
    title: 'A seam',
    status: 'ready',
    ready: true,
    categories: [],
    notes: '',
    fields: {},
    place: 0,
    piece: null,
    trouble: null,
    ...change,
  }
}

const WORDS = 'A seam wants two strands of cotton and no more. Pay it the same day.'

export function aPiece(change: Partial<Piece> = {}): Piece {
  return {
    id: 'piece',
    brand: 'brand',
    source: 'source',
    kind: 'article',
    itemId: 'http://journal.localhost/seam',
    address: 'http://journal.localhost/seam',
    revision: 1,
    fingerprint: '0',
    itemPrint: '0',
    takenAt: T0,
    changedAt: null,
    keeps: { span: 'evergreen', until: null, phrases: [] },
    counts: {},
    place: null,
    fields: {},
    notes: '',
    double: null,
    unfolded: false,
    verdicts: [],
    letThrough: false,
    dealt: null,
    linkCheck: null,
    trouble: null,
    seenBy: [],
    handedTo: [],
    through: [],
    title: 'A seam',
    url: 'http://journal.localhost/seam',
    author: null,
    publishedAt: T0,
    language: 'en',
    categories: [],
    summary: '',
    words: 14,
    images: [],
    video: null,
    ...change,
  }
}

/** The words of the sample piece's first revision. */
export function aText(change: Partial<PieceText> = {}): PieceText {
  return {
    id: 'piece.1',
    brand: 'brand',
    piece: 'piece',
    revision: 1,
    text: WORDS,
    blocks: [{ kind: 'paragraph', start: 0, end: WORDS.length, furniture: null }],
    sentences: [
      { start: 0, end: 47, block: 0 },
      { start: 48, end: WORDS.length, block: 0 },
    ],
    ...change,
  }
}

export function aWholePiece(change: Partial<WholePiece> = {}): WholePiece {
  const { text, blocks, sentences } = aText()
  return { ...aPiece(), text, blocks, sentences, ...change }
}

export function aPassage(change: Partial<Passage> = {}): Passage {
  return {
    id: 'passage',
    brand: 'brand',
    piece: 'piece',
    revision: 1,
    start: 0,
    end: 47,
    text: 'A seam wants two strands of cotton and no more.',
    kind: 'number',
    score: 0.8,
    reasons: ['stands alone'],
    before: '',
    after: ' Pay it the same day.',
    choice: 'kept',
    by: 'machine',
    lostPlace: false,
    ...change,
  }
}

/** A row that drips every piece twice. */
export function aRow(change: Partial<ReleaseRow> = {}): ReleaseRow {
  return {
    id: 'row',
    pieces: { kind: 'all' },
    format: null,
    accounts: ['account'],
    groups: [],
    by: { kind: 'rhythm', rhythm: { name: 'Echo', list: [0, 3] } },
    again: null,
    ...change,
  }
}

/** Two posts a week from the shelf. */
export function aShelf(change: Partial<FromShelf> = {}): FromShelf {
  return {
    kind: 'shelf',
    posts: 2,
    per: 'week',
    order: 'the longest unseen first',
    restDays: 90,
    earned: null,
    ...change,
  }
}

export function aPipeline(change: Partial<Pipeline> = {}): Pipeline {
  return {
    id: 'pipeline',
    brand: 'brand',
    name: 'Journal',
    hue: 'sky',
    on: true,
    takeIn: {
      sources: ['source'],
      groups: [],
      sieve: [],
      since: T0,
      aRun: null,
      aWeek: null,
      changed: false,
    },
    make: PLAIN_MAKE,
    release: [aRow()],
    gate: 'what is flagged',
    limits: NO_LIMITS,
    follows: [],
    priority: 0,
    held: null,
    endedAt: null,
    draft: null,
    versions: [],
    version: 1,
    savedAt: T0,
    createdAt: T0,
    ...change,
  }
}

export function aDrip(change: Partial<Drip> = {}): Drip {
  return {
    id: 'drip',
    brand: 'brand',
    piece: 'piece',
    revision: 1,
    pipeline: null,
    row: null,
    time: 0,
    rhythm: { name: 'Echo', list: [0, 3] },
    startDay: '2026-11-25',
    accounts: ['account'],
    days: [0, 3],
    missing: [],
    until: null,
    seed: 1,
    followed: [],
    held: null,
    endedAt: null,
    createdAt: T0,
    ...change,
  }
}

export function aWording(change: Partial<Wording> = {}): Wording {
  return {
    by: 'built-in',
    angle: 'number',
    format: 'post',
    title: null,
    summary: null,
    text: 'A seam wants two strands of cotton and no more.',
    parts: [],
    tags: [],
    poll: [],
    firstComment: null,
    hashtags: [],
    spans: [{ start: 0, end: 47 }],
    closing: null,
    score: 0.8,
    ...change,
  }
}

export function aPost(change: Partial<Post> = {}): Post {
  return {
    id: 'post',
    brand: 'brand',
    drip: 'drip',
    pipeline: null,
    piece: 'piece',
    pieceRevision: 1,
    beat: 0,
    recurrence: null,
    occurrence: null,
    account: 'account',
    network: 'murmur',
    passage: 'passage',
    wording: aWording(),
    others: [],
    edited: false,
    fallback: null,
    shortLink: null,
    linkCheck: null,
    link: null,
    media: [],
    checks: [],
    accepted: [],
    remarks: [],
    wished: '2026-11-25T12:00:00.000Z',
    at: '2026-11-25T09:00:00.000Z',
    reasons: [],
    state: 'approved',
    held: null,
    pinned: false,
    earliest: null,
    latest: null,
    priority: 0,
    generation: 1,
    revision: 0,
    publishedAt: null,
    publicUrl: null,
    visibility: null,
    followed: [],
    failure: null,
    ...change,
  }
}

export function aRecurrence(change: Partial<Recurrence> = {}): Recurrence {
  return {
    id: 'recurrence',
    brand: 'brand',
    words: { title: null, text: 'Open on Saturdays.', link: null, picture: null },
    accounts: ['account'],
    rule: 'FREQ=WEEKLY;BYDAY=SA',
    from: '2026-11-28',
    time: '10:00',
    madeUntil: null,
    held: null,
    endedAt: null,
    createdAt: T0,
    ...change,
  }
}

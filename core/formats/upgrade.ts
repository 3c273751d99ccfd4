import { sameAddress } from '../feeds'
import { HouseStyle, NO_LIMITS, PLAIN_MAKE, textId, usualLook, USUAL_NOTICES, USUAL_WEIGHTS } from '../model'

type Raw = Record<string, unknown> & { id: string }

/** The rows of a workspace before they are checked: of any schema, by table. */
export type RawRows = Record<string, Raw[]>

/**
 * What turns the rows of one schema into those of the next, whole tables at a time. Bundles and
 * the browser's database are brought up by the same steps; `to` is the schema they lead to.
 */
export const UPGRADES: readonly { to: number; rows: (rows: RawRows) => RawRows }[] = [
  { to: 2, rows: partWordsFromPieces },
  { to: 3, rows: giveVoices },
  { to: 4, rows: nameWriters },
  { to: 5, rows: boundPosts },
  { to: 6, rows: letThingsEnd },
  { to: 7, rows: takeOffGlue },
  { to: 8, rows: sayMore },
  { to: 9, rows: letThingsFollow },
  { to: 10, rows: linkByOthers },
  { to: 11, rows: readMeasures },
  { to: 12, rows: showSeveral },
  { to: 13, rows: keepPictures },
  { to: 14, rows: keepOccasions },
  { to: 15, rows: countFollowers },
]

/** The schema of the tables as they are now. */
export const SCHEMA = Math.max(...UPGRADES.map((u) => u.to))

/** Rows of an older schema as a later one writes them, that of today unless another is named. */
export function upgradeRows(rows: RawRows, from: number, to = SCHEMA): RawRows {
  return UPGRADES.filter((u) => u.to > from && u.to <= to).reduce((sum, u) => u.rows(sum), rows)
}

/** Schema 2: a piece's words lie apart from it, sources are of several kinds, pipelines have a sieve. */
function partWordsFromPieces(rows: RawRows): RawRows {
  const texts: Raw[] = []
  const pieces = (rows['pieces'] ?? []).map((row): Raw => {
    const { text, blocks, sentences, ...head } = row
    const revision = Number(head['revision'])
    texts.push({
      id: textId(row.id, revision),
      brand: head['brand'],
      piece: row.id,
      revision,
      text,
      blocks,
      sentences,
    })
    return {
      ...head,
      video: null,
      kind: 'article',
      address: typeof head['url'] === 'string' ? sameAddress(head['url']) : null,
      itemPrint: '',
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
    }
  })
  const sources = (rows['sources'] ?? []).map((row): Raw => {
    const visit = row['lastVisit'] as Record<string, unknown> | null
    return {
      ...row,
      group: null,
      mostNew: 40,
      backlog: { kind: 'everything' },
      passedOver: [],
      movedFrom: null,
      sheet: null,
      lastVisit: visit && { ...visit, notes: [] },
    }
  })
  const pipelines = (rows['pipelines'] ?? []).map((row): Raw => ({ ...row, groups: [], sieve: [] }))
  const drips = new Map((rows['drips'] ?? []).map((d) => [d.id, d['revision']]))
  const posts = (rows['posts'] ?? []).map((row): Raw => ({
    ...row,
    pieceRevision: drips.get(String(row['drip'])) ?? 1,
  }))
  return { ...rows, pieces, posts, sources, pipelines, texts, sketches: [], sheetRows: [], wordLists: [] }
}

/** Schema 3: a house has a voice, a brand has briefs, a caption may have more fields than its text. */
function giveVoices(rows: RawRows): RawRows {
  const house = HouseStyle.parse({})
  const wording = (made: unknown): object => ({
    format: 'post',
    title: null,
    summary: null,
    parts: [],
    tags: [],
    poll: [],
    frame: null,
    closing: null,
    ...(made as object),
  })
  const brands = (rows['brands'] ?? []).map((row): Raw => ({
    briefs: [],
    ...row,
    houseStyle: { ...house, ...(row['houseStyle'] as object) },
  }))
  const posts = (rows['posts'] ?? []).map((row): Raw => ({
    ...row,
    wording: wording(row['wording']),
    others: ((row['others'] ?? []) as unknown[]).map(wording),
  }))
  return { ...rows, brands, posts }
}

/**
 * Schema 7: nothing stands in a caption that is neither the piece's nor the brand's: closing lines have a
 * condition, no brief asks for a closing question of ours, and wordings have no opener.
 */
function takeOffGlue(rows: RawRows): RawRows {
  const brands = (rows['brands'] ?? []).map((row): Raw => {
    const house = (row['houseStyle'] ?? {}) as { closingLines?: unknown[] }
    const lines = (house.closingLines ?? []).map((l) => (typeof l === 'string' ? { text: l, where: [] } : l))
    const briefs = ((row['briefs'] ?? []) as { closing?: unknown }[]).map((b) => ({
      ...b,
      closing: b.closing === 'a question' ? 'a line of the house' : b.closing,
    }))
    return { ...row, briefs, houseStyle: { ...house, closingLines: lines } }
  })
  const unframed = (wording: unknown): object => {
    const { frame: _, ...rest } = (wording ?? {}) as Record<string, unknown>
    return rest
  }
  const posts = (rows['posts'] ?? []).map((row): Raw => ({
    ...row,
    wording: unframed(row['wording']),
    others: ((row['others'] ?? []) as unknown[]).map(unframed),
  }))
  return { ...rows, brands, posts }
}

/** Schema 4: a caption says who wrote it, links can be short, and the pages they lead to are looked at. */
function nameWriters(rows: RawRows): RawRows {
  const brands = (rows['brands'] ?? []).map((row): Raw => ({
    ...row,
    briefs: ((row['briefs'] ?? []) as object[]).map((b) => ({ hashtagsIn: 'text', ...b })),
    houseStyle: { shortLinks: false, writer: 'built-in', ...(row['houseStyle'] as object) },
  }))
  const wording = (made: unknown): object => ({ by: 'built-in', ...(made as object) })
  const posts = (rows['posts'] ?? []).map((row): Raw => ({
    fallback: null,
    shortLink: null,
    ...row,
    wording: wording(row['wording']),
    others: ((row['others'] ?? []) as unknown[]).map(wording),
  }))
  const pieces = (rows['pieces'] ?? []).map((row): Raw => ({ linkCheck: null, ...row }))
  return { ...rows, brands, posts, pieces }
}

/**
 * Schema 5: a post has its first and last day and may stand by itself, pipelines and drips end,
 * accounts warm up, and a brand says what the planner's soft rules count. A post of a piece that
 * ages may go out up to the day on which it is no longer true.
 */
function boundPosts(rows: RawRows): RawRows {
  const give = (table: string, fields: (row: Raw) => object): Raw[] =>
    (rows[table] ?? []).map((row): Raw => ({ ...fields(row), ...row }))
  const until = new Map(
    (rows['pieces'] ?? []).map((p) => [
      p.id,
      (p['keeps'] as { until?: string | null } | undefined)?.until ?? null,
    ]),
  )
  return {
    ...rows,
    brands: give('brands', () => ({ slots: [], weights: USUAL_WEIGHTS })),
    accounts: give('accounts', () => ({ openedOn: null, warmUp: null })),
    pipelines: give('pipelines', () => ({ window: { from: null, to: null }, priority: 0 })),
    drips: give('drips', () => ({ until: null })),
    posts: give('posts', (p) => ({
      earliest: null,
      latest: until.get(String(p['piece'])) ?? null,
      priority: 0,
    })),
  }
}

/** Schema 6: accounts stand in groups, posts may come again by a rule, and what was begun can be ended. */
function letThingsEnd(rows: RawRows): RawRows {
  const give = (table: string, fields: object): Raw[] =>
    (rows[table] ?? []).map((row): Raw => ({ ...fields, ...row }))
  return {
    ...rows,
    brands: give('brands', { endedAt: null }),
    accounts: give('accounts', { endedAt: null, groups: [] }),
    pipelines: give('pipelines', { endedAt: null }),
    drips: give('drips', { endedAt: null }),
    posts: give('posts', { recurrence: null, occurrence: null, linkCheck: null }),
    recurrences: rows['recurrences'] ?? [],
  }
}

/** Schema 8: a pipeline says what it takes in, makes and releases; its one rhythm becomes a row for every piece. Posts carry remarks. */
function sayMore(rows: RawRows): RawRows {
  const pipelines = (rows['pipelines'] ?? []).map((row): Raw => {
    const { sources, groups, sieve, since, accounts, rhythm, window, ...rest } = row
    return {
      ...rest,
      takeIn: { sources, groups, sieve, since, aRun: null, aWeek: null, changed: false },
      // As it was before there were cards.
      make: { ...PLAIN_MAKE, pictures: 'from the piece' },
      release: [
        {
          id: FIRST_ROW,
          pieces: { kind: 'all' },
          format: null,
          accounts,
          groups: [],
          by: { kind: 'rhythm', rhythm },
          again: null,
        },
      ],
      limits: { ...NO_LIMITS, ...(window as object) },
      draft: null,
      versions: [],
    }
  })
  const drips = (rows['drips'] ?? []).map((row): Raw => ({
    row: row['pipeline'] ? FIRST_ROW : null,
    time: 0,
    ...row,
  }))
  const posts = (rows['posts'] ?? []).map((row): Raw => ({ remarks: [], ...row }))
  return { ...rows, pipelines, drips, posts, runs: rows['runs'] ?? [] }
}

/** Schema 9: things follow what a pipeline does, pipelines hand pieces on, and a person is given notice. */
function letThingsFollow(rows: RawRows): RawRows {
  const give = (table: string, fields: object): Raw[] =>
    (rows[table] ?? []).map((row): Raw => ({ ...fields, ...row }))
  const recipe = (raw: unknown): object => ({ follows: [], ...(raw as object) })
  const pipelines = (rows['pipelines'] ?? []).map((row): Raw => ({
    follows: [],
    ...row,
    draft: row['draft'] && recipe(row['draft']),
    versions: ((row['versions'] ?? []) as { recipe: unknown }[]).map((v) => ({
      ...v,
      recipe: recipe(v.recipe),
    })),
  }))
  return {
    ...rows,
    pipelines,
    workspace: give('workspace', { visitBefore: null, notices: USUAL_NOTICES, aheadDays: 30 }),
    pieces: give('pieces', { handedTo: [], through: [] }),
    drips: give('drips', { followed: [] }),
    posts: give('posts', { followed: [] }),
  }
}

/** Schema 10: an account is reached by one of several connectors, and may be one of the places of its login. */
function linkByOthers(rows: RawRows): RawRows {
  const accounts = (rows['accounts'] ?? []).map((row): Raw => ({
    connector: 'stand-in',
    target: null,
    ...row,
    health: { endsAt: null, ...(row['health'] as object) },
  }))
  return { ...rows, accounts }
}

/** Schema 11: what readers do with published posts is read and kept. */
function readMeasures(rows: RawRows): RawRows {
  const workspace = (rows['workspace'] ?? []).map((row): Raw => ({ readingCursor: 0, ...row }))
  return { ...rows, workspace, readings: rows['readings'] ?? [] }
}

/** Schema 12: a post has pictures in order, each with where it comes from; a brand says how its cards look. */
function showSeveral(rows: RawRows): RawRows {
  const posts = (rows['posts'] ?? []).map((row): Raw => {
    const media = row['media'] as ({ sourceUrl: string } & Record<string, unknown>) | null | undefined
    if (!media) return { ...row, media: [] }
    const { sourceUrl, ...rest } = media
    return { ...row, media: [{ source: { from: 'address', url: sourceUrl }, ...rest }] }
  })
  const brands = (rows['brands'] ?? []).map((row): Raw => ({ look: usualLook(String(row['name'])), ...row }))
  return { ...rows, posts, brands }
}

/** Schema 13: a brand has a library of pictures. */
function keepPictures(rows: RawRows): RawRows {
  return { ...rows, pictures: rows['pictures'] ?? [] }
}

/** Schema 14: a brand has occasions, days of the year worth a post. */
function keepOccasions(rows: RawRows): RawRows {
  return { ...rows, occasions: rows['occasions'] ?? [] }
}

/** Schema 15: how many follow each account is read day by day. */
function countFollowers(rows: RawRows): RawRows {
  const workspace = (rows['workspace'] ?? []).map((row): Raw => ({
    followingCursor: 0,
    thinned: null,
    ...row,
  }))
  return { ...rows, workspace, followings: rows['followings'] ?? [] }
}

const FIRST_ROW = 'row-1'

import { z } from 'zod'
import {
  Fault,
  Hue,
  Recipe,
  asEdited,
  recipeOf,
  Source,
  type Account,
  type Follow,
  type Pipeline,
  type SieveRule,
  type WordList,
} from '../model'

/*
 * A pipeline as a file of its own (JSON), to be kept, passed on, and taken into another brand. Where the recipe
 * names an account, a source, a word list or another pipeline, it names a key of the lists beside it, which say in words what is
 * meant; whoever takes the file in says which of theirs each key stands for.
 */

const Needed = z.object({
  key: z.string().min(1).max(80),
  /** What is meant, in words. */
  words: z.string().min(1).max(200),
})

export const PipelineFile = z.object({
  $schema: z.string().optional(),
  format: z.literal('dripline-pipeline'),
  schema: z.literal(1),
  name: z.string().min(1).max(80),
  /** What it is for, in a sentence or two. */
  about: z.string().max(400),
  hue: Hue,
  /** `networks` are those that suit, all where it is empty; `handle` is one account's name. */
  accounts: z.array(Needed.extend({ networks: z.array(z.string()), handle: z.string().nullable() })),
  /** `kind` is the kind of source that suits; `url` where it lies. */
  sources: z.array(Needed.extend({ kind: Source.shape.kind.nullable(), url: z.string().nullable() })),
  lists: z.array(Needed.extend({ list: z.array(z.string()) })),
  /** Pipelines that it hands on to. */
  pipelines: z.array(Needed).default([]),
  recipe: Recipe,
})
export type PipelineFile = z.infer<typeof PipelineFile>

/** Which of a brand's accounts, sources and pipelines each key of a file stands for; none, one or several. */
export interface Matching {
  accounts: Readonly<Record<string, readonly string[]>>
  sources: Readonly<Record<string, readonly string[]>>
  pipelines: Readonly<Record<string, readonly string[]>>
}

interface Around {
  accounts: readonly Account[]
  sources: readonly Source[]
  lists: readonly WordList[]
  /** The brand's pipelines, to which others may hand on. */
  pipelines: readonly Pick<Pipeline, 'id' | 'name'>[]
}

/** A recipe whose accounts, sources, lists and pipelines go by other names, each by none, one or several. */
export function renamed(
  recipe: Recipe,
  to: {
    account: (id: string) => readonly string[]
    source: (id: string) => readonly string[]
    list: (id: string) => readonly string[]
    pipeline: (id: string) => readonly string[]
  },
): Recipe {
  const all = (ids: readonly string[], map: (id: string) => readonly string[]): string[] => [
    ...new Set(ids.flatMap(map)),
  ]
  const rules = (list: readonly SieveRule[]): SieveRule[] =>
    list.map((rule) =>
      rule.kind === 'words'
        ? { ...rule, lists: all(rule.lists, to.list) }
        : rule.kind === 'source'
          ? { ...rule, sources: all(rule.sources, to.source) }
          : rule,
    )
  return {
    ...recipe,
    takeIn: {
      ...recipe.takeIn,
      sources: all(recipe.takeIn.sources, to.source),
      sieve: rules(recipe.takeIn.sieve),
    },
    release: recipe.release.map((row) => ({
      ...row,
      accounts: all(row.accounts, to.account),
      pieces: row.pieces.kind === 'that' ? { kind: 'that', rules: rules(row.pieces.rules) } : row.pieces,
    })),
    // What hands on to nobody follows no more.
    follows: recipe.follows.flatMap((f): Follow[] => {
      if (f.kind !== 'pipeline') return [f]
      const [next] = to.pipeline(f.pipeline)
      return next === undefined ? [] : [{ ...f, pipeline: next }]
    }),
  }
}

/** A pipeline as its file. What it names that is no longer there is left out. */
export function writePipeline(pipeline: Pipeline, { accounts, sources, lists, pipelines }: Around): string {
  const used = {
    accounts: new Set<string>(),
    sources: new Set<string>(),
    lists: new Set<string>(),
    pipelines: new Set<string>(),
  }
  const keyed =
    (into: Set<string>, known: readonly { id: string }[], word: string) =>
    (id: string): string[] => {
      const index = known.findIndex((k) => k.id === id)
      if (index < 0) return []
      into.add(id)
      return [`${word} ${index + 1}`]
    }
  const account = keyed(used.accounts, accounts, 'account')
  const source = keyed(used.sources, sources, 'source')
  const list = keyed(used.lists, lists, 'list')
  const next = keyed(used.pipelines, pipelines, 'pipeline')
  const recipe = renamed(recipeOf(asEdited(pipeline)), { account, source, list, pipeline: next })
  const file: PipelineFile = {
    $schema: 'pipeline.schema.json',
    format: 'dripline-pipeline',
    schema: 1,
    name: pipeline.name,
    about: '',
    hue: pipeline.hue,
    accounts: accounts
      .filter((a) => used.accounts.has(a.id))
      .map((a) => ({
        key: account(a.id)[0] ?? '',
        words: `@${a.handle}`,
        networks: [a.network],
        handle: a.handle,
      })),
    sources: sources
      .filter((s) => used.sources.has(s.id))
      .map((s) => ({ key: source(s.id)[0] ?? '', words: s.title, kind: s.kind, url: s.url })),
    lists: lists
      .filter((l) => used.lists.has(l.id))
      .map((l) => ({ key: list(l.id)[0] ?? '', words: l.name, list: l.words })),
    pipelines: pipelines
      .filter((p) => used.pipelines.has(p.id))
      .map((p) => ({ key: next(p.id)[0] ?? '', words: p.name })),
    recipe,
  }
  return `${JSON.stringify(file, null, 2)}\n`
}

/** Reads a pipeline's file; refuses (`bad-file`) what is none, with the place in it that is wrong. */
export function readPipeline(text: string): PipelineFile {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    throw new Fault(
      'bad-file',
      `This is no pipeline file: it is not JSON (${error instanceof Error ? error.message : 'unreadable'}).`,
    )
  }
  const format = (json as { format?: unknown } | null)?.format
  if (format !== 'dripline-pipeline')
    throw new Fault('bad-file', 'This is no pipeline file: it does not say “format”: “dripline-pipeline”.')
  const parsed = PipelineFile.safeParse(json)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  const where = issue?.path.join('.') ?? ''
  throw new Fault(
    'bad-file',
    `The pipeline file is wrong at ${where || 'its top'}: ${issue?.message ?? ''}.`,
    where,
  )
}

/**
 * What a brand has that suits each key of a file: the account of the same name and network, else all on networks
 * that suit; the source of the same address, else all of the kind that suits where the file names no address; the
 * pipeline of the same name.
 */
export function matchingFor(
  file: PipelineFile,
  { accounts, sources, pipelines }: Omit<Around, 'lists'>,
): Matching {
  const open = accounts.filter((a) => a.endedAt === null)
  return {
    accounts: Object.fromEntries(
      file.accounts.map(({ key, networks, handle }) => {
        const suits = open.filter((a) => networks.length === 0 || networks.includes(a.network))
        const same = suits.filter((a) => a.handle === handle)
        const few = handle !== null && same.length === 0 ? suits.slice(0, 1) : suits
        return [key, (same.length ? same : few).map((a) => a.id)]
      }),
    ),
    sources: Object.fromEntries(
      file.sources.map(({ key, kind, url, words }) => {
        const same = sources.filter((s) => (url !== null ? s.url === url : s.title === words))
        const suits = url === null ? sources.filter((s) => kind === null || s.kind === kind) : []
        return [key, (same.length ? same : suits).map((s) => s.id)]
      }),
    ),
    pipelines: Object.fromEntries(
      file.pipelines.map(({ key, words }) => [
        key,
        pipelines
          .filter((p) => p.name === words)
          .slice(0, 1)
          .map((p) => p.id),
      ]),
    ),
  }
}

/**
 * A file as a pipeline of a brand, switched off, and the word lists that come with it. Its backlog begins now,
 * unless it takes in everything that was there before.
 */
export function pipelineOf(
  file: PipelineFile,
  matching: Matching,
  of: {
    id: string
    brand: string
    name: string
    now: string
    newId: () => string
    lists: readonly WordList[]
  },
): { pipeline: Pipeline; lists: WordList[] } {
  const fresh: WordList[] = []
  const byKey = new Map(
    file.lists.map(({ key, words, list }) => {
      const same = of.lists.find((l) => l.name === words && l.words.join('\n') === list.join('\n'))
      if (same) return [key, same.id]
      const made = { id: of.newId(), brand: of.brand, name: words, words: list }
      fresh.push(made)
      return [key, made.id]
    }),
  )
  const recipe = renamed(file.recipe, {
    account: (key) => matching.accounts[key] ?? [],
    source: (key) => matching.sources[key] ?? [],
    list: (key) => [byKey.get(key) ?? []].flat(),
    pipeline: (key) => matching.pipelines[key] ?? [],
  })
  return { pipeline: freshPipeline(recipe, { ...of, hue: file.hue }), lists: fresh }
}

/** A pipeline of its own that says what a recipe does, switched off; its backlog begins now unless it takes in everything. */
export function freshPipeline(
  recipe: Recipe,
  of: Pick<Pipeline, 'id' | 'brand' | 'name' | 'hue'> & { now: string; newId: () => string },
): Pipeline {
  const { since } = recipe.takeIn
  return {
    ...recipe,
    takeIn: { ...recipe.takeIn, since: since < '1971' ? since : of.now },
    release: recipe.release.map((row) => ({ ...row, id: of.newId() })),
    follows: recipe.follows.map((f) => ({ ...f, id: of.newId() })),
    id: of.id,
    brand: of.brand,
    name: of.name,
    hue: of.hue,
    on: false,
    held: null,
    endedAt: null,
    draft: null,
    versions: [],
    version: 1,
    savedAt: of.now,
    createdAt: of.now,
  }
}

import Papa from 'papaparse'
import { linkShown, creditLine, momentOf, type Account, type Post, type PostMedia } from '../model'
import { formatOf, network } from '../networks'
import { toWall } from '../planning'
import { guarded, inTime } from './planSheet'

/** A post to be taken away: where its files lie, and those of its pictures that could be made. */
export interface AwayPost {
  post: Post
  account: Account
  /** The folder of its account. */
  folder: string
  /** What its files begin with in there: its day and time on its account's clock. */
  stem: string
}

/** The name of each of a post's files in its folder, by their media types: the post's, and a number where there are several. */
export function fileNames({ stem }: Pick<AwayPost, 'stem'>, types: readonly string[]): string[] {
  return types.map((type, i) => {
    const ending = type === 'image/jpeg' ? 'jpg' : type.replace(/^\w+\//, '')
    return `${stem}${types.length > 1 ? `-${i + 1}` : ''}.${ending}`
  })
}

/**
 * Posts as they are taken away, in the order of their moments, each with a place of its own for its files; without what is
 * set aside or has no account any more.
 */
export function awayPosts(posts: readonly Post[], accounts: readonly Account[]): AwayPost[] {
  const known = new Map(accounts.map((a) => [a.id, a]))
  const taken = new Map<string, number>()
  return posts
    .filter((p) => p.state !== 'set aside')
    .map((post) => ({ id: post.id, post, at: momentOf(post) }))
    .sort(inTime)
    .flatMap(({ post, at }) => {
      const account = known.get(post.account)
      if (!account) return []
      const folder = `${post.network}-${account.handle.replace(/[^\w.-]+/g, '-')}`
      const wall = at === null ? null : toWall(Date.parse(at), account.zone)
      const stem = wall ? `${wall.date}-${wall.time.replace(':', '')}` : 'without-a-place'
      const before = taken.get(`${folder} ${stem}`) ?? 0
      taken.set(`${folder} ${stem}`, before + 1)
      return [{ post, account, folder, stem: before === 0 ? stem : `${stem}-again-${before}` }]
    })
}

const COLUMNS = [
  'account',
  'network',
  'date',
  'time',
  'zone',
  'state',
  'format',
  'title',
  'text',
  'parts',
  'first comment',
  'link',
  'pictures',
  'alternative texts',
  'credits',
] as const

/** The captions as CSV (RFC 4180). What there are several of stands a line each; pictures by their names, as `names` gives them for a post. */
export function awaySheet(posts: readonly AwayPost[], names: (post: string) => readonly string[]): string {
  const rows = posts.map(({ post, account, folder }) => {
    const at = momentOf(post)
    const wall = at === null ? null : toWall(Date.parse(at), account.zone)
    const { wording, media } = post
    return [
      account.handle,
      network(post.network).name,
      wall?.date ?? '',
      wall?.time ?? '',
      account.zone,
      post.state,
      formatOf(post),
      wording.title ?? '',
      wording.text,
      wording.parts.join('\n'),
      wording.firstComment ?? '',
      linkShown(post) ?? '',
      names(post.id)
        .map((name) => `${folder}/${name}`)
        .join('\n'),
      media.map((m) => m.alt).join('\n'),
      creditsIn(media).join('\n'),
    ].map(guarded)
  })
  return `${Papa.unparse([[...COLUMNS], ...rows], { newline: '\r\n' })}\r\n`
}

/** A caption as plain text, as it would be pasted: title, text, the parts that follow, the first comment. */
export function awayCaption({
  wording: { title, summary, text, parts, poll, firstComment, tags },
}: Post): string {
  const told = [
    title,
    summary,
    text,
    ...parts,
    poll.map((answer) => `– ${answer}`).join('\n'),
    tags.length > 0 ? `Tags: ${tags.join(', ')}` : '',
    firstComment ? `First comment: ${firstComment}` : '',
  ]
  return `${told.filter(Boolean).join('\n\n')}\n`
}

/** Whose the pictures are, one a line, with licence and page; empty where all come from the pieces or were drawn. */
export function awayCredits(posts: readonly AwayPost[], names: (post: string) => readonly string[]): string {
  const lines = posts.flatMap(({ post, folder }) =>
    post.media.flatMap(({ credit }, i) => {
      const name = names(post.id)[i]
      if (!credit || name === undefined) return []
      const { licence, page, mustShow } = credit
      const told = [creditLine(credit), licence, page, mustShow ? 'has to be named' : '']
      return [`${folder}/${name}: ${told.filter(Boolean).join('; ')}`]
    }),
  )
  return lines.length > 0 ? `${lines.join('\n')}\n` : ''
}

const creditsIn = (media: readonly PostMedia[]): string[] =>
  media.map(({ credit }) => (credit ? creditLine(credit) : ''))

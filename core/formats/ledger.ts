import Papa from 'papaparse'
import type { Post, Receipt } from '../model'
import { guarded } from './planSheet'

/** A delivery as it stands in the ledger: the post, where it goes, and what came of it, the newest receipt first. */
export interface LedgerLine {
  post: Post
  /** The network's name and the account's handle. */
  network: string
  handle: string
  receipts: readonly Receipt[]
}

const COLUMNS = [
  'post',
  'network',
  'account',
  'state',
  'due',
  'finished',
  'outcome',
  'reason',
  'requests',
  'address',
  'text',
] as const

/** Deliveries as a sheet (RFC 4180), a line a post; words that a sheet would take for a formula are made harmless. */
export function ledgerSheet(lines: readonly LedgerLine[]): string {
  const rows = lines.map(({ post, network, handle, receipts }) => {
    const [last] = receipts
    return [
      post.id,
      network,
      guarded(handle),
      post.state,
      post.at ?? '',
      last?.finishedAt ?? post.publishedAt ?? '',
      last?.outcome ?? '',
      guarded(post.failure ?? post.held?.reason ?? last?.reason ?? ''),
      String(last?.attempts.length ?? 0),
      post.publicUrl ?? '',
      guarded(post.wording.text),
    ]
  })
  return `${Papa.unparse([[...COLUMNS], ...rows], { newline: '\r\n' })}\r\n`
}

/** Deliveries as JSON Lines, one a post, with every request and answer. */
export function ledgerLines(lines: readonly LedgerLine[]): string {
  return lines
    .map(
      ({ post, network, handle, receipts }) =>
        `${JSON.stringify({
          post: post.id,
          network,
          account: handle,
          state: post.state,
          due: post.at,
          address: post.publicUrl,
          text: post.wording.text,
          receipts,
        })}\n`,
    )
    .join('')
}

/** Whether a delivery speaks of all of some words: in its caption, its reasons, its account, or its requests and answers. */
export function isAbout({ post, network, handle, receipts }: LedgerLine, words: string): boolean {
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean)
  if (asked.length === 0) return true
  const said = [
    post.wording.title,
    post.wording.text,
    post.failure,
    post.held?.reason,
    post.publicUrl,
    network,
    handle,
    post.state,
    ...receipts.flatMap((r) => [r.reason, r.outcome, JSON.stringify(r.attempts)]),
  ]
    .join('\n')
    .toLowerCase()
  return asked.every((word) => said.includes(word))
}

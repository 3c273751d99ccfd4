import { Box, chakra } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { insideOf, type Post, type Row } from '../../core/model'
import { network } from '../../core/networks'
import { isAbout, ledgerLines, ledgerSheet, type LedgerLine } from '../../core/formats'
import { download, useAccounts, useRows } from '../data'
import { useWork } from '../shell'
import {
  Button,
  count,
  Drop,
  Empty,
  moment,
  Mono,
  NetworkMark,
  Page,
  PageHead,
  SelectField,
  TextField,
  useKeys,
} from '../ui'
import { Delivery } from './Delivery'
import { Tabs } from './Tabs'

type Show = 'all' | 'handed over' | 'published' | 'troubled'
const SHOWN = 80

/** The ledger of deliveries: what the server has, what went out, and what did not and why. */
export function Ledger() {
  const { brand } = useWork()
  const [params, setParams] = useSearchParams()
  const [show, setShow] = useState<Show>('all')
  const [most, setMost] = useState(SHOWN)
  const [words, setWords] = useState('')
  const [only, setOnly] = useState('')
  const posts = useRows('posts', 'brand', brand.id)
  const accounts = useAccounts(brand.id)
  const receipts = useRows('receipts', 'brand', brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const when = (p: Post): string => p.publishedAt ?? p.at ?? p.wished
  const troubled = (p: Post): boolean => p.state === 'failed' || (p.held !== null && p.state === 'approved')
  const matches: Record<Show, (p: Post) => boolean> = {
    all: (p) => p.state === 'handed over' || p.state === 'published' || troubled(p),
    'handed over': (p) => p.state === 'handed over',
    published: (p) => p.state === 'published',
    troubled,
  }
  const lineOf = useMemo(() => {
    const of = new Map<string, Row<'receipts'>[]>()
    for (const r of receipts ?? []) of.set(r.post, [...(of.get(r.post) ?? []), r])
    return (post: Post): LedgerLine => ({
      post,
      network: network(post.network).name,
      handle: accounts?.find((a) => a.id === post.account)?.handle ?? '',
      receipts: (of.get(post.id) ?? []).sort((a, b) => (a.finishedAt < b.finishedAt ? 1 : -1)),
    })
  }, [receipts, accounts])
  const rows = (posts ?? [])
    .filter((p) => matches[show](p) && (!only || p.account === only) && (!words || isAbout(lineOf(p), words)))
    .sort(
      (a, b) =>
        Number(troubled(b)) - Number(troubled(a)) ||
        Number(a.state === 'published') - Number(b.state === 'published') ||
        (a.state === 'published' ? (when(a) < when(b) ? 1 : -1) : when(a) < when(b) ? -1 : 1),
    )
  const chosen = (posts ?? []).find((p) => p.id === params.get('post')) ?? null
  const showAll = (): void => {
    setWords('')
    setOnly('')
    setShow('all')
  }
  const choose = (id: string | null): void =>
    setParams(id ? { post: id } : {}, { replace: true, flushSync: true })
  const move = (by: number): void => {
    const next = rows[Math.max(0, Math.min(rows.length - 1, rows.findIndex((p) => p.id === chosen?.id) + by))]
    if (next) choose(next.id)
  }
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    j: () => move(1),
    k: () => move(-1),
    Escape: () => choose(null),
  })
  if (!posts || !accounts || !receipts || !pipelines) return <Page>{null}</Page>
  const out = posts.filter((p) => p.state === 'published').length
  const safe = posts.filter((p) => p.state === 'handed over').length
  return (
    <Page
      side={
        chosen ? (
          <Delivery
            post={chosen}
            account={accounts.find((a) => a.id === chosen.account)}
            receipts={receipts.filter((r) => r.post === chosen.id)}
            onClose={() => choose(null)}
          />
        ) : undefined
      }
    >
      <Tabs />
      <PageHead
        title="Deliveries"
        note={`${count(out, 'post')} published · ${count(safe, 'post is', 'posts are')} handed over: the server sends them, also with the browser closed.`}
      >
        <TextField
          aria-label="Search deliveries"
          placeholder="Search words, reasons, answers"
          w="230px"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <SelectField
          aria-label="Of which account"
          w="150px"
          value={only}
          onChange={(e) => setOnly(e.target.value)}
        >
          <option value="">all accounts</option>
          {accounts.map((a) => (
            <option key={a.id} value={a.id}>
              @{a.handle}, {network(a.network).name}
            </option>
          ))}
        </SelectField>
        <SelectField
          aria-label="Which deliveries"
          value={show}
          onChange={(e) => setShow(e.target.value as Show)}
        >
          <option value="all">all</option>
          <option value="handed over">handed over</option>
          <option value="published">published</option>
          <option value="troubled">failed or held</option>
        </SelectField>
        <Button
          disabled={rows.length === 0}
          onClick={() => save('deliveries.csv', 'text/csv', ledgerSheet(rows.map(lineOf)))}
        >
          CSV
        </Button>
        <Button
          disabled={rows.length === 0}
          onClick={() => save('deliveries.jsonl', 'application/jsonl', ledgerLines(rows.map(lineOf)))}
        >
          JSON Lines
        </Button>
      </PageHead>
      <Box px="6" pb="8">
        {rows.length === 0 && (words || only || show !== 'all') && (
          <Box color="soft" pt="3">
            No delivery is like that.{' '}
            <Button look="quiet" onClick={showAll}>
              Show all
            </Button>
          </Box>
        )}
        {rows.length === 0 && !words && !only && show === 'all' && (
          <Empty title="Deliveries are kept here">
            Once a post is approved and has a place, it is handed over to the server, which sends it at its
            time. Every delivery stands here with its request, its answer, and a reason in plain words.
          </Empty>
        )}
        {rows.slice(0, most).map((post) => {
          const account = accounts.find((a) => a.id === post.account)
          const [receipt] = lineOf(post).receipts
          return (
            <chakra.button
              key={post.id}
              type="button"
              onClick={() => choose(post.id)}
              display="flex"
              w="calc(100% + 16px)"
              textAlign="left"
              alignItems="center"
              gap="3"
              minH="48px"
              px="2"
              mx="-2"
              borderTopWidth="1px"
              borderColor="hairline"
              cursor="pointer"
              bg={post.id === chosen?.id ? 'waterTint' : undefined}
              _hover={{ bg: 'waterTint' }}
            >
              <Drop
                state={post.state}
                inside={insideOf(post)}
                hue={pipelines.find((p) => p.id === post.pipeline)?.hue ?? null}
              />
              <Mono w="128px" flexShrink={0}>
                {moment(when(post), account?.zone ?? brand.zone)}
              </Mono>
              <NetworkMark id={post.network} />
              <Box w="120px" fontSize="13px" truncate>
                @{account?.handle}
              </Box>
              <Box flex="1" minW="0" fontFamily="reading" truncate>
                {post.wording.text.split('\n')[0]}
              </Box>
              <Box fontSize="13px" color={troubled(post) ? 'plumText' : 'soft'} maxW="260px" truncate>
                {post.failure ??
                  post.held?.reason ??
                  (receipt
                    ? `${receipt.reason} ${count(receipt.attempts.length, 'request')}`
                    : post.state === 'handed over'
                      ? 'safe to leave'
                      : post.state)}
              </Box>
            </chakra.button>
          )
        })}
        {rows.length > most && <Button onClick={() => setMost(most + SHOWN)}>Show more</Button>}
      </Box>
    </Page>
  )
}

function save(name: string, type: string, text: string): void {
  download(new Blob([text], { type }), name)
}

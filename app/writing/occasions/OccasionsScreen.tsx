import { Box, Flex } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { may, waitsForReview, type Account, type Occasion, type Post } from '../../../core/model'
import { isQuiet } from '../../../core/planning'
import { approve, useAccounts, useRow, useRows } from '../../data'
import { removeOccasions, todayOf, yearOf, type OccasionOn } from '../../data/more'
import { useWork } from '../../shell'
import { attempt, Button, count, Empty, Page, PageHead, say, useKeys } from '../../ui'
import { approvedWords } from '../approved'
import { PostSheet } from '../post/PostSheet'
import { AddDay, FromFile, PlainDays, SaveSheet } from './Adding'
import { OccasionBeside } from './OccasionBeside'
import { OccasionGrid, rowKey } from './OccasionGrid'
import { WriteThem } from './WriteThem'

/** Days of the year worth a post: what each is about, and the captions that are written for it. */
export function OccasionsScreen() {
  const { brand } = useWork()
  const occasions = useRows('occasions', 'brand', brand.id)
  const posts = useRows('posts', 'brand', brand.id)
  const accounts = useAccounts(brand.id)
  if (!occasions || !posts || !accounts) return <Page>{null}</Page>
  return <Year key={brand.id} occasions={occasions} posts={posts} accounts={accounts} />
}

interface YearProps {
  occasions: readonly Occasion[]
  posts: readonly Post[]
  accounts: Account[]
}

/** Where one stands in the sheet: on a day, and there on the occasion itself (-1) or in an account's column. */
interface Cursor {
  row: number
  column: number
}

function Year({ occasions, posts, accounts }: YearProps) {
  const { brand } = useWork()
  const today = todayOf(brand)
  const rows = useMemo(() => yearOf(occasions, brand.zone, today), [occasions, brand.zone, today])
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [editing, setEditing] = useState(false)
  const [params, setParams] = useSearchParams()
  const columns = columnsOf(accounts, rows, posts)
  const postAt = ({ occasion, day }: OccasionOn, account: string | undefined): Post | undefined =>
    posts
      .filter((p) => p.occasion?.id === occasion.id && p.occasion.day === day && p.account === account)
      // What was set aside gives way to what took its place.
      .sort((a, b) => Number(a.state === 'set aside') - Number(b.state === 'set aside'))[0]
  const chosen = posts.find((p) => p.id === params.get('post')) ?? null
  const open = rows.find((r) => rowKey(r) === params.get('day')) ?? null
  const set = (next: Record<string, string>): void => {
    setEditing(false)
    setParams(next, { replace: true, flushSync: true })
  }
  const cursor: Cursor = {
    row: rows.findIndex((r) =>
      chosen
        ? r.occasion.id === chosen.occasion?.id && r.day === chosen.occasion.day
        : open !== null && rowKey(r) === rowKey(open),
    ),
    column: chosen ? columns.findIndex((c) => c.id === chosen.account) : -1,
  }
  const goTo = (row: number, column: number): void => {
    const on = rows[row]
    if (!on) return
    const post = postAt(on, columns[column]?.id)
    if (post) set({ post: post.id })
    else set({ day: rowKey(on) })
  }
  const sideways = (step: number): void => {
    const on = rows[cursor.row]
    if (!on) return
    for (let column = cursor.column + step; column >= -1 && column < columns.length; column += step)
      if (column === -1 || postAt(on, columns[column]?.id)) return goTo(cursor.row, column)
  }
  const pick = (on: OccasionOn): void =>
    setPicked((before) => {
      const next = new Set(before)
      if (!next.delete(rowKey(on))) next.add(rowKey(on))
      return next
    })
  useKeys({
    ArrowDown: () => goTo(cursor.row + 1, cursor.column),
    ArrowUp: () => goTo(cursor.row === -1 ? rows.length - 1 : cursor.row - 1, cursor.column),
    ArrowRight: () => sideways(1),
    ArrowLeft: () => sideways(-1),
    ' ': () => rows[cursor.row] && pick(rows[cursor.row] as OccasionOn),
    Enter: () => chosen && setEditing(true),
    Escape: () => (editing ? setEditing(false) : picked.size ? setPicked(new Set()) : set({})),
    'mod+a': () => setPicked(new Set(rows.map(rowKey))),
  })
  const pickedRows = rows.filter((r) => picked.has(rowKey(r)))
  return (
    <Page
      side={
        chosen ? (
          <Chosen
            post={chosen}
            accounts={accounts}
            editing={editing}
            onEdit={setEditing}
            onClose={() => set({})}
          />
        ) : open ? (
          <OccasionBeside key={rowKey(open)} on={open} accounts={accounts} onClose={() => set({})} />
        ) : undefined
      }
    >
      <Head occasions={occasions} rows={rows} posts={posts} />
      {occasions.length === 0 ? (
        <Box px="6">
          <Empty title="Here stands what the year brings" action={<PlainDays occasions={occasions} />}>
            Days of your trade, of your place, of the sun. For those that you choose captions are written in
            bulk, from what your pieces say near them, and placed on their day at each account’s opening.
          </Empty>
        </Box>
      ) : (
        <>
          {pickedRows.length > 0 && (
            <Picked rows={pickedRows} accounts={accounts} onDone={() => setPicked(new Set())} />
          )}
          <OccasionGrid
            rows={rows}
            later={occasions.filter((o) => !rows.some((r) => r.occasion.id === o.id))}
            columns={columns}
            picked={picked}
            cursor={cursor}
            isQuiet={(day) => isQuiet(day, brand.quiet)}
            postAt={postAt}
            zone={brand.zone}
            today={today}
            onPick={pick}
            onChoose={(post) => set({ post: post.id })}
            onOpen={(on) => set({ day: rowKey(on) })}
          />
        </>
      )}
    </Page>
  )
}

/** The accounts that have, or lack, a post for some day that is shown. */
function columnsOf(
  accounts: readonly Account[],
  rows: readonly OccasionOn[],
  posts: readonly Post[],
): Account[] {
  const shown = new Set(rows.map(rowKey))
  const used = new Set([
    ...posts.flatMap((p) =>
      p.occasion && shown.has(`${p.occasion.id} ${p.occasion.day}`) ? [p.account] : [],
    ),
    ...rows.flatMap(({ occasion, day }) =>
      occasion.missing.flatMap((m) => (m.day === day ? [m.account] : [])),
    ),
  ])
  return accounts.filter((a) => used.has(a.id))
}

function Head({
  occasions,
  rows,
  posts,
}: {
  occasions: readonly Occasion[]
  rows: OccasionOn[]
  posts: readonly Post[]
}) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const mine = posts.filter((p) => p.occasion !== undefined)
  const quiet = rows.filter((r) => isQuiet(r.day, brand.quiet)).length
  const waiting = mine.filter(waitsForReview)
  const ready = mine.filter((p) => may(p, 'approve'))
  return (
    <PageHead
      title="Occasions"
      note={`${count(rows.length, 'day', 'days')} worth a post in the coming year${quiet ? `, ${quiet} of them on a quiet day` : ''}${waiting.length ? `; ${count(waiting.length, 'caption waits', 'captions wait')} for review` : ''}.`}
    >
      <AddDay />
      {occasions.length > 0 && <PlainDays occasions={occasions} />}
      <FromFile />
      {occasions.length > 0 && <SaveSheet />}
      {ready.length > 0 && (
        <Button
          look="water"
          onClick={() =>
            void attempt(async () => {
              say(approvedWords(await approve(ready.map((p) => p.id))))
            })
          }
        >
          Approve {ready.length} unflagged
        </Button>
      )}
      <Button onClick={() => void navigate('/writing')}>Writing</Button>
    </PageHead>
  )
}

/** What can be done with several days at once. */
function Picked({
  rows,
  accounts,
  onDone,
}: {
  rows: readonly OccasionOn[]
  accounts: Account[]
  onDone: () => void
}) {
  const distinct = [...new Map(rows.map((r) => [r.occasion.id, r.occasion])).values()]
  return (
    <Flex
      role="toolbar"
      aria-label="Several days"
      px="6"
      py="2"
      gap="2"
      align="center"
      bg="raised"
      borderTopWidth="1px"
      borderColor="hairline"
      fontSize="13px"
    >
      <Box fontWeight="600">{count(rows.length, 'day')} selected</Box>
      <WriteThem rows={rows} accounts={accounts} align="left" onDone={onDone} />
      <Button
        size="sm"
        onClick={() =>
          void attempt(async () => {
            const aside = await removeOccasions(distinct)
            say(
              `${count(distinct.length, 'occasion is', 'occasions are')} off the calendar.${aside ? ` ${count(aside, 'post was', 'posts were')} set aside.` : ''}`,
            )
            onDone()
          })
        }
      >
        Take off the calendar
      </Button>
      <Box flex="1" />
      <Button size="sm" look="quiet" hint="Esc" onClick={onDone}>
        Select none
      </Button>
    </Flex>
  )
}

/** A post beside the sheet. */
function Chosen({
  post,
  accounts,
  editing,
  onEdit,
  onClose,
}: {
  post: Post
  accounts: readonly Account[]
  editing: boolean
  onEdit: (editing: boolean) => void
  onClose: () => void
}) {
  const piece = useRow('pieces', post.piece)
  return (
    <PostSheet
      key={post.id}
      post={post}
      piece={piece ?? null}
      account={accounts.find((a) => a.id === post.account)}
      day={null}
      hue={null}
      editing={editing}
      onEdit={onEdit}
      onClose={onClose}
    />
  )
}

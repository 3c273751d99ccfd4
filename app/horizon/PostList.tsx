import { Box, chakra, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useEffect, useMemo, useRef } from 'react'
import { momentOf, insideOf, type Account, type Hue, type Post } from '../../core/model'
import { dateOf, localDay, toWall, weekdayOfDay } from '../../core/planning'
import { Button, Drop, Mono, NetworkMark, shortDay, weekdayName } from '../ui'

type Entry = { kind: 'day'; key: string; day: number | null } | { kind: 'post'; key: string; post: Post }

/** What the board shows, as a list that the keyboard walks; those without a place stand first. */
export const PostList = memo(function PostList({
  posts,
  accounts,
  hueOf,
  chosen,
  selected,
  elsewhere,
  occasions,
  onGo,
  onChoose,
  onToggle,
}: {
  posts: readonly Post[]
  accounts: readonly Account[]
  hueOf: (pipeline: string | null) => Hue | null
  chosen: string | null
  selected: ReadonlySet<string>
  /** Where none is shown: the nearest day outside that has one, as a day's number. */
  elsewhere: { day: number; later: boolean } | null
  /** The names of the occasions of a day, by its number. */
  occasions: ReadonlyMap<number, readonly string[]>
  onGo: (day: number) => void
  onChoose: (id: string) => void
  onToggle: (id: string) => void
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const zones = useMemo(() => new Map(accounts.map((a) => [a.id, a])), [accounts])
  const entries = useMemo(() => {
    // Text order is time order; what is shown of an entry is worked out when it comes into view.
    const sorted = posts.map((post) => ({ post, at: momentOf(post) ?? '' }))
    sorted.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    const list: Entry[] = []
    let before: number | null | undefined
    for (const { post, at } of sorted) {
      const day = at ? localDay(Date.parse(at), zones.get(post.account)?.zone ?? 'UTC') : null
      if (day !== before) list.push({ kind: 'day', key: `day ${list.length}`, day })
      before = day
      list.push({ kind: 'post', key: post.id, post })
    }
    return list
  }, [posts, zones])

  const timeOf = (post: Post): string => {
    const at = momentOf(post)
    return at ? toWall(Date.parse(at), zones.get(post.account)?.zone ?? 'UTC').time : '–'
  }
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (entries[i]?.kind === 'day' ? 30 : 46),
    getItemKey: (i) => entries[i]?.key ?? i,
    overscan: 8,
  })
  const index = entries.findIndex((e) => e.kind === 'post' && e.post.id === chosen)
  useEffect(() => {
    if (index >= 0) virtual.scrollToIndex(index, { align: 'auto' })
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the virtualizer is the same throughout
  }, [index])
  const walk = (by: number): void => {
    for (let i = index + by; i >= 0 && i < entries.length; i += by) {
      const entry = entries[i]
      if (entry?.kind === 'post') return onChoose(entry.post.id)
    }
  }
  if (entries.length === 0)
    return (
      <Box px="3" pt="3" fontSize="13px" color="soft">
        <Box mb="2">No post stands in these days.</Box>
        {elsewhere && (
          <Button size="sm" onClick={() => onGo(elsewhere.day)}>
            {elsewhere.later ? 'To the next one' : 'To the last one'}, {dayWords(elsewhere.day)}
          </Button>
        )}
      </Box>
    )
  return (
    <Box
      ref={scroller}
      h="full"
      overflowY="auto"
      userSelect="none"
      role="listbox"
      aria-label="Posts shown"
      aria-multiselectable
      aria-activedescendant={chosen ? `listed-${chosen}` : undefined}
      tabIndex={0}
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown') walk(1)
        else if (event.key === 'ArrowUp') walk(-1)
        else if (event.key === ' ' && chosen) onToggle(chosen)
        else return
        event.preventDefault()
        event.stopPropagation()
      }}
    >
      <Box position="relative" h={`${virtual.getTotalSize()}px`}>
        {virtual.getVirtualItems().map((item) => {
          const entry = entries[item.index]
          if (!entry) return null
          return (
            <Box
              key={item.key}
              position="absolute"
              left="0"
              right="0"
              top="0"
              style={{ transform: `translateY(${item.start}px)` }}
            >
              {entry.kind === 'day' ? (
                <Box
                  px="3"
                  pt="2"
                  h="30px"
                  fontSize="12px"
                  fontWeight="600"
                  color="soft"
                  role="presentation"
                  truncate
                >
                  {entry.day === null ? 'Without a place' : dayWords(entry.day)}
                  <chakra.span fontWeight="400" color="ink">
                    {(occasions.get(entry.day ?? NaN) ?? []).map((name) => ` · ${name}`)}
                  </chakra.span>
                </Box>
              ) : (
                <Flex
                  id={`listed-${entry.post.id}`}
                  role="option"
                  aria-selected={selected.has(entry.post.id)}
                  aria-label={`${timeOf(entry.post)}, @${zones.get(entry.post.account)?.handle ?? ''}, ${entry.post.state}: ${entry.post.wording.text.slice(0, 80)}`}
                  data-drop={entry.post.id}
                  h="46px"
                  px="3"
                  gap="2"
                  align="center"
                  cursor="pointer"
                  bg={selected.has(entry.post.id) ? 'waterTint' : undefined}
                  boxShadow={
                    entry.post.id === chosen ? 'inset 3px 0 0 var(--chakra-colors-water)' : undefined
                  }
                  onClick={(event) =>
                    event.shiftKey || event.ctrlKey || event.metaKey
                      ? onToggle(entry.post.id)
                      : onChoose(entry.post.id)
                  }
                >
                  <Drop
                    state={entry.post.state}
                    inside={insideOf(entry.post)}
                    hue={hueOf(entry.post.pipeline)}
                    size={20}
                  />
                  <Mono w="38px" flexShrink={0}>
                    {timeOf(entry.post)}
                  </Mono>
                  <NetworkMark id={entry.post.network} />
                  <chakra.span fontFamily="reading" fontSize="13px" lineHeight="1.25" lineClamp="2" minW="0">
                    {entry.post.wording.text}
                  </chakra.span>
                </Flex>
              )}
            </Box>
          )
        })}
      </Box>
    </Box>
  )
})

/** "Thu 3 Dec", of a day's number. */
function dayWords(day: number): string {
  return `${weekdayName(weekdayOfDay(day))} ${shortDay(dateOf(day))}`
}

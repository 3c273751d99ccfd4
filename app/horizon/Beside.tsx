import { Box, Flex } from '@chakra-ui/react'
import { useDeferredValue, useMemo } from 'react'
import type { Brand } from '../../core/model'
import { Button } from '../ui'
import { Figures } from './Figures'
import { PostList } from './PostList'
import { Rules } from './Rules'
import { BESIDE, type Place } from './usePlace'
import type { Shown } from './useShown'

/** What stands beside the board: its posts as a list, figures, rules. */
export function Beside({
  brand,
  place,
  shown,
  end,
  chosen,
  selected,
  onGo,
  onDay,
  onChoose,
  onToggle,
}: {
  brand: Brand
  place: Place
  shown: Shown
  /** The last day in view. */
  end: string
  chosen: string | null
  selected: ReadonlySet<string>
  onGo: (next: Record<string, string | null>) => void
  /** Goes to a day, by its number. */
  onDay: (day: number) => void
  onChoose: (id: string | null) => void
  onToggle: (id: string) => void
}) {
  const { posts, inView, accounts, pipelines, titles } = shown
  // The list may come a moment after the board.
  const listed = useDeferredValue(inView)
  const published = useMemo(
    () =>
      new Map([...titles.values()].flatMap((p) => (p.publishedAt ? [[p.id, p.publishedAt] as const] : []))),
    [titles],
  )
  return (
    <Flex direction="column" h="full">
      <Flex px="3" pt="2" gap="1" role="tablist" aria-label="Beside the board">
        {BESIDE.map((t) => (
          <Button
            key={t}
            size="sm"
            role="tab"
            aria-selected={place.beside === t}
            look={place.beside === t ? 'water' : 'quiet'}
            onClick={() => onGo({ beside: t === 'list' ? null : t })}
          >
            {t === 'list' ? `List, ${inView.length}` : t === 'figures' ? 'Figures' : 'Rules'}
          </Button>
        ))}
      </Flex>
      <Box flex="1" minH="0" mt="2" borderTopWidth="1px" borderColor="hairline">
        {place.beside === 'rules' ? (
          <Rules key={brand.id} brand={brand} />
        ) : place.beside === 'list' ? (
          <PostList
            posts={listed}
            accounts={accounts}
            hueOf={shown.hueOf}
            chosen={chosen}
            selected={selected}
            elsewhere={shown.elsewhere}
            occasions={shown.occasions}
            onGo={onDay}
            onChoose={onChoose}
            onToggle={onToggle}
          />
        ) : (
          <Figures
            posts={posts}
            accounts={accounts}
            pipelines={pipelines}
            published={published}
            from={place.from}
            to={end}
          />
        )}
      </Box>
    </Flex>
  )
}

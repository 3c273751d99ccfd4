import { Box, chakra, Flex } from '@chakra-ui/react'
import { useNavigate, useSearchParams } from 'react-router'
import { addDays, mondayOf, toWall } from '../../core/planning'
import { clockNow, useRow, useAccounts, useRows } from '../data'
import { useWork } from '../shell'
import { Button, count, Empty, longDay, Page, PageHead, useKeys } from '../ui'
import { PostSheet } from '../writing'
import { useState } from 'react'
import { Week } from './Week'
import { Year } from './Year'

/** The accounts' lanes over time, at two zooms: the week and the year. */
export function Horizon() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const [editing, setEditing] = useState(false)
  const posts = useRows('posts', 'brand', brand.id)
  const accounts = useAccounts(brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const drips = useRows('drips', 'brand', brand.id)
  const chosen = posts?.find((p) => p.id === params.get('post')) ?? null
  const piece = useRow('pieces', chosen?.piece ?? null)
  const today = toWall(clockNow(), brand.zone).date
  const zoom = params.get('zoom') === 'year' ? 'year' : 'week'
  const monday = mondayOf(params.get('from') ?? today)
  const go = (next: { zoom?: string; from?: string; post?: string | null }): void => {
    setEditing(false)
    const merged = { zoom, from: monday, post: params.get('post'), ...next }
    setParams(
      Object.fromEntries(Object.entries(merged).filter(([, v]) => v !== null)) as Record<string, string>,
      { replace: true, flushSync: true },
    )
  }
  const step = zoom === 'week' ? 7 : 364
  const visible = (posts ?? [])
    .filter((p) => p.state !== 'set aside' && (p.publishedAt ?? p.at) !== null)
    .sort((a, b) => ((a.publishedAt ?? a.at ?? '') < (b.publishedAt ?? b.at ?? '') ? -1 : 1))
  const walk = (by: number): void => {
    const index = visible.findIndex((p) => p.id === chosen?.id)
    const next = index < 0 ? visible.find((p) => (p.at ?? '') >= `${monday}`) : visible[index + by]
    if (next)
      go({ post: next.id, from: toWall(Date.parse(next.publishedAt ?? next.at ?? ''), brand.zone).date })
  }
  useKeys({
    ArrowRight: () => walk(1),
    ArrowLeft: () => walk(-1),
    ']': () => go({ from: addDays(monday, step) }),
    '[': () => go({ from: addDays(monday, -step) }),
    Enter: () => chosen && void navigate(`/writing/${chosen.drip}?post=${chosen.id}`),
    Escape: () => (editing ? setEditing(false) : go({ post: null })),
  })
  if (!posts || !accounts || !pipelines || !drips) return <Page>{null}</Page>
  const hueOf = (id: string | null) => pipelines.find((p) => p.id === id)?.hue ?? null
  const drip = drips.find((d) => d.id === chosen?.drip)
  return (
    <Page
      side={
        chosen && piece ? (
          <PostSheet
            key={chosen.id}
            post={chosen}
            piece={piece}
            account={accounts.find((a) => a.id === chosen.account)}
            day={drip?.days[chosen.beat] ?? 0}
            hue={hueOf(chosen.pipeline)}
            editing={editing}
            onEdit={setEditing}
            onClose={() => go({ post: null })}
          />
        ) : undefined
      }
    >
      <PageHead
        title={
          zoom === 'week'
            ? `${longDay(monday)} – ${longDay(addDays(monday, 6))}`
            : `The year from ${longDay(monday)}`
        }
        note={`${count(visible.length, 'post')} in all lanes`}
      >
        <Button aria-label="Earlier" hint="[" onClick={() => go({ from: addDays(monday, -step) })}>
          ‹
        </Button>
        <Button onClick={() => go({ from: today })}>Today</Button>
        <Button aria-label="Later" hint="]" onClick={() => go({ from: addDays(monday, step) })}>
          ›
        </Button>
        <Flex
          role="group"
          aria-label="Zoom"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="md"
          overflow="hidden"
        >
          {(['week', 'year'] as const).map((z) => (
            <chakra.button
              key={z}
              type="button"
              aria-pressed={zoom === z}
              px="3"
              h="8"
              fontSize="13px"
              cursor="pointer"
              bg={zoom === z ? 'waterTint' : 'raised'}
              color={zoom === z ? 'waterText' : 'ink'}
              fontWeight={zoom === z ? '700' : '400'}
              onClick={() => go({ zoom: z })}
            >
              {z === 'week' ? 'Week' : 'Year'}
            </chakra.button>
          ))}
        </Flex>
      </PageHead>
      <Flex gap="4" px="6" pb="2" fontSize="13px" color="soft" wrap="wrap">
        {pipelines.map((p) => (
          <Flex key={p.id} align="center" gap="1.5">
            <Box w="9px" h="9px" borderRadius="full" bg={`hue.${p.hue}`} /> {p.name}
          </Flex>
        ))}
        <Flex align="center" gap="1.5">
          <Box w="9px" h="9px" borderRadius="full" bg="water" /> begun by hand
        </Flex>
      </Flex>
      {accounts.length === 0 ? (
        <Box px="6">
          <Empty
            title="Lanes appear with your accounts"
            action={
              <Button look="water" onClick={() => void navigate('/dispatch/accounts')}>
                Link an account
              </Button>
            }
          >
            Every account has a lane here, with its slots as notches, its quiet days hatched, and its posts as
            drops at their times.
          </Empty>
        </Box>
      ) : zoom === 'week' ? (
        <Week
          monday={monday}
          posts={visible}
          accounts={accounts}
          brand={brand}
          hueOf={hueOf}
          chosen={chosen}
          onChoose={(id) => go({ post: id })}
        />
      ) : (
        <Year
          monday={monday}
          posts={visible}
          accounts={accounts}
          brand={brand}
          onWeek={(from) => go({ zoom: 'week', from })}
        />
      )}
    </Page>
  )
}

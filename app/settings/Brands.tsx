import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { isToCome, isZone, type Brand } from '../../core/model'
import {
  clockNow,
  copyBrand,
  download,
  exportBundle,
  makeBrand,
  removeBrand,
  useTable,
  type Endable,
} from '../data'
import { waitingFor } from '../desk'
import { Holding, useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  fileName,
  Labelled,
  moment,
  Mono,
  NetworkMark,
  Page,
  PageHead,
  say,
  SelectField,
  TextField,
} from '../ui'
import { Tabs } from './Tabs'

const WEEK = 7 * 86_400_000
const ZONES: readonly string[] = Intl.supportedValuesOf('timeZone')

/** All brands at a glance: what waits, what is next, how their accounts are; and making, copying and removing one. */
export function Brands() {
  const { brands, brand: inHand, chooseBrand } = useWork()
  const navigate = useNavigate()
  const [open, setOpen] = useState<{ brand: string; part: 'copy' | 'remove' } | null>(null)
  const all = useGlances(brands)
  return (
    <Page>
      <Tabs />
      <PageHead
        title="Brands"
        note={`${count(brands.length, 'brand')}. Everything else belongs to exactly one of them; b goes to the next.`}
      />
      <Box px="6" pb="8" maxW="1000px">
        {all.map(({ brand, waits, next, week, broken, accounts }) => (
          <Box key={brand.id} borderTopWidth="1px" borderColor="hairline" py="3">
            <Flex gap="5" align="center" wrap="wrap">
              <Box w="220px" minW="0">
                <chakra.button
                  type="button"
                  fontSize="16px"
                  fontWeight="600"
                  cursor="pointer"
                  textAlign="left"
                  _hover={{ textDecoration: 'underline' }}
                  onClick={() => {
                    chooseBrand(brand.id)
                    void navigate('/')
                  }}
                >
                  {brand.name}
                </chakra.button>
                <Box fontSize="13px" color="soft">
                  {brand.zone}
                  {brand.id === inHand.id ? ' · in hand' : ''}
                  {brand.endedAt ? ' · ended' : brand.held ? ' · held' : ''}
                </Box>
              </Box>
              <Box w="150px" color={waits ? 'clayText' : 'mossText'}>
                {waits ? `${count(waits, 'thing waits', 'things wait')}` : 'Nothing waits'}
              </Box>
              <Box flex="1" minW="180px">
                {next ? (
                  <Flex gap="2" align="center">
                    <NetworkMark id={next.network} />
                    <Mono>{moment(next.at ?? '', brand.zone)}</Mono>
                  </Flex>
                ) : (
                  <Box color="soft">Nothing is planned</Box>
                )}
                <Box fontSize="13px" color="soft">
                  {count(week, 'post')} in the next seven days
                </Box>
              </Box>
              <Box w="170px" fontSize="13px" color={broken ? 'plumText' : 'soft'}>
                {accounts === 0
                  ? 'No account is linked'
                  : broken
                    ? `${broken} of ${count(accounts, 'account')} not linked any more`
                    : `${count(accounts, 'account')}, all linked`}
              </Box>
            </Flex>
            <Flex gap="2" mt="2" wrap="wrap" align="center">
              <Button
                aria-expanded={open?.brand === brand.id && open.part === 'copy'}
                onClick={() => setOpen({ brand: brand.id, part: 'copy' })}
              >
                Make one like it …
              </Button>
              <Button onClick={() => void saveBundle(brand)}>Save it as a bundle</Button>
              <Holding
                what={{ table: 'brands', id: brand.id, brand: brand.id, name: brand.name } satisfies Endable}
                held={brand.held}
                endedAt={brand.endedAt}
                align="left"
              />
              <Button
                look="quiet"
                aria-expanded={open?.brand === brand.id && open.part === 'remove'}
                onClick={() => setOpen({ brand: brand.id, part: 'remove' })}
              >
                Remove …
              </Button>
            </Flex>
            {open?.brand === brand.id && open.part === 'copy' && (
              <Copy brand={brand} onDone={() => setOpen(null)} />
            )}
            {open?.brand === brand.id && open.part === 'remove' && (
              <Remove brand={brand} onDone={() => setOpen(null)} />
            )}
          </Box>
        ))}
        <NewBrand
          onMade={(id) => {
            chooseBrand(id)
            void navigate('/')
          }}
        />
      </Box>
    </Page>
  )
}

async function saveBundle(brand: Brand): Promise<void> {
  await attempt(async () => {
    download(await exportBundle(brand.id), `${fileName(brand.name)}.zip`)
    say(`${brand.name} was saved as a bundle.`)
  })
}

/** What is to be known of each brand in a line. */
function useGlances(brands: readonly Brand[]) {
  const posts = useTable('posts')
  const pipelines = useTable('pipelines')
  const pieces = useTable('pieces')
  const accounts = useTable('accounts')
  const sources = useTable('sources')
  const drips = useTable('drips')
  const occasions = useTable('occasions')
  return useMemo(() => {
    if (!posts || !pipelines || !pieces || !accounts || !sources || !drips || !occasions) return []
    const now = clockNow()
    const present = new Date(now).toISOString()
    const soon = new Date(now + WEEK).toISOString()
    return brands.map((brand) => {
      const mine = <T extends { brand: string }>(rows: readonly T[]): T[] =>
        rows.filter((r) => r.brand === brand.id)
      const own = mine(posts)
      const linked = mine(accounts).filter((a) => a.endedAt === null)
      const ahead = own
        .filter((p) => isToCome(p) && p.at !== null && p.at >= present)
        .sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
      return {
        brand,
        waits: waitingFor({
          posts: own,
          pipelines: mine(pipelines),
          pieces: mine(pieces),
          accounts: mine(accounts),
          sources: mine(sources),
          drips: mine(drips),
          occasions: mine(occasions),
          now,
          zone: brand.zone,
        }).length,
        next: ahead[0] ?? null,
        week: ahead.filter((p) => (p.at ?? '') <= soon).length,
        accounts: linked.length,
        broken: linked.filter((a) => a.health.state !== 'linked').length,
      }
    })
  }, [brands, posts, pipelines, pieces, accounts, sources, drips, occasions])
}

function Copy({ brand, onDone }: { brand: Brand; onDone: () => void }) {
  const { chooseBrand } = useWork()
  const navigate = useNavigate()
  const [name, setName] = useState('')
  return (
    <chakra.form
      mt="3"
      maxW="520px"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        void attempt(async () => {
          chooseBrand(await copyBrand(brand.id, name))
          onDone()
          void navigate('/')
        })
      }}
    >
      <Labelled
        label={`A new brand like ${brand.name}`}
        hint="It begins with the same house style, briefs, quiet days, slots, word lists and pipelines, which are switched off until you choose its own accounts and sources."
      >
        {(id) => (
          <TextField
            id={id}
            w="full"
            autoFocus
            placeholder="Its name"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        )}
      </Labelled>
      <Flex gap="2" mt="2">
        <Button type="submit" look="water" disabled={!name.trim()}>
          Make it
        </Button>
        <Button type="button" onClick={onDone}>
          Not now
        </Button>
      </Flex>
    </chakra.form>
  )
}

/** Removal asks for the name, and offers a bundle before. */
function Remove({ brand, onDone }: { brand: Brand; onDone: () => void }) {
  const [name, setName] = useState('')
  const [working, setWorking] = useState(false)
  const remove = async (): Promise<void> => {
    setWorking(true)
    const gone = await attempt(async () => {
      await removeBrand(brand.id)
      say(`${brand.name} was removed.`)
    })
    setWorking(false)
    if (gone) onDone()
  }
  return (
    <Box
      role="alertdialog"
      aria-label={`Remove ${brand.name}`}
      mt="3"
      maxW="560px"
      p="4"
      borderWidth="1px"
      borderColor="clay"
      borderRadius="md"
      bg="raised"
    >
      <Box mb="3">
        Its accounts, pieces, captions, plan and receipts go, and what was handed over is recalled first. What
        is published stays where it is. This cannot be undone: save it as a bundle first, from which it can be
        read in again.
      </Box>
      <Button onClick={() => void saveBundle(brand)}>Save it as a bundle</Button>
      <Box mt="3">
        <Labelled label={`To remove it, type its name: ${brand.name}`}>
          {(id) => <TextField id={id} w="full" value={name} onChange={(e) => setName(e.target.value)} />}
        </Labelled>
      </Box>
      <Flex gap="2" mt="3">
        <Button look="clay" disabled={working || name.trim() !== brand.name} onClick={() => void remove()}>
          {working ? 'Removing …' : 'Remove it for good'}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </Flex>
    </Box>
  )
}

function NewBrand({ onMade }: { onMade: (id: string) => void }) {
  const [name, setName] = useState('')
  const [zone, setZone] = useState(() => Intl.DateTimeFormat().resolvedOptions().timeZone)
  return (
    <Box borderTopWidth="1px" borderColor="hairline" pt="5" mt="3" maxW="520px">
      <Heading as="h2" fontSize="16px" fontWeight="600" mb="3">
        Another brand
      </Heading>
      <chakra.form
        display="flex"
        gap="3"
        alignItems="flex-end"
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault()
          if (name.trim() && isZone(zone)) void attempt(async () => onMade(await makeBrand(name, zone)))
        }}
      >
        <Box flex="1">
          <Labelled label="A new brand">
            {(id) => (
              <TextField
                id={id}
                w="full"
                value={name}
                placeholder="Its name"
                onChange={(e) => setName(e.target.value)}
              />
            )}
          </Labelled>
        </Box>
        <Box w="180px">
          <Labelled label="Its time zone">
            {(id) => (
              <SelectField id={id} w="full" value={zone} onChange={(e) => setZone(e.target.value)}>
                {(ZONES.includes(zone) ? ZONES : [zone, ...ZONES]).map((z) => (
                  <option key={z}>{z}</option>
                ))}
              </SelectField>
            )}
          </Labelled>
        </Box>
        <Button type="submit" look="water" disabled={!name.trim()}>
          Make the brand
        </Button>
      </chakra.form>
    </Box>
  )
}

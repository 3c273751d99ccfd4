import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { MeasuredVoice } from '../../core/house'
import { linkPage, linksAt } from '../../core/formats'
import { Brief, HouseStyle } from '../../core/model'
import { NETWORKS } from '../../core/networks'
import {
  download,
  nowIso,
  pageLinks,
  saveBrand,
  useAccounts,
  useRows,
  useShortener,
  useWriter,
} from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, Labelled, Page, PageHead, say, SelectField } from '../ui'
import { Example, PieceChoice, usePieces } from './Example'
import { VoiceFields } from './VoiceFields'
import { Part, Swaps, ClosingLines, LinkTags, Lines } from './HouseParts'
import { Measured } from './Measured'

/** What holds for the whole brand: voice, words, tags and lines, beside a live example. */
export function HouseStyleScreen() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const style = brand.houseStyle
  const writer = useWriter()
  const shortener = useShortener()
  const save = (change: Partial<HouseStyle>): void => {
    const parsed = HouseStyle.safeParse({ ...style, ...change })
    if (!parsed.success) {
      say(`Not kept: ${parsed.error.issues[0]?.message ?? 'it has the wrong shape'}.`)
      return
    }
    void attempt(() => saveBrand(brand, { ...brand, houseStyle: parsed.data }))
  }
  /** The measured voice for the house, and the measured lengths for the network that the posts were on. */
  const take = (measured: MeasuredVoice, on: string | null): void => {
    const before = brand.briefs.find((b) => b.network === on)
    const { least, most } = measured.length
    const length = { least: Math.min(least, most - 1), most }
    const { hashtags } = measured
    const briefs = on
      ? [
          ...brand.briefs.filter((b) => b.network !== on),
          Brief.parse({ ...before, network: on, length, hashtags }),
        ]
      : brand.briefs
    void attempt(() =>
      saveBrand(brand, { ...brand, briefs, houseStyle: { ...style, voice: measured.voice } }),
    )
  }
  return (
    <Page>
      <PageHead
        title="House style"
        note={`What holds for every caption of ${brand.name}. It saves itself; captions written from now on follow it.`}
      >
        <Button onClick={() => void navigate('/writing/briefs')}>Briefs</Button>
      </PageHead>
      <Flex px="6" pb="8" gap="10" align="flex-start">
        <Box w="520px" flexShrink={0} display="flex" flexDirection="column" gap="6">
          <Part title="Voice">
            <VoiceFields voice={style.voice} onChange={(voice) => save({ voice })} />
            <Measured onTake={take} />
          </Part>
          <Part title="Words">
            <Swaps
              key={JSON.stringify([brand.id, style.swaps])}
              swaps={style.swaps}
              onKeep={(swaps) => save({ swaps })}
            />
            <Lines
              key={style.neverSay.join('\n')}
              label="Never say, one word or phrase a line"
              hint="In any case and form; /a pattern/ between slashes. A caption that says one is blocked."
              value={style.neverSay}
              onKeep={(neverSay) => save({ neverSay })}
            />
            <Labelled label="Spelling">
              {(id) => (
                <SelectField
                  id={id}
                  value={style.spelling}
                  onChange={(e) => save({ spelling: e.target.value as HouseStyle['spelling'] })}
                >
                  <option>as written</option>
                  <option>British</option>
                  <option>American</option>
                </SelectField>
              )}
            </Labelled>
          </Part>
          <Part title="Tags and lines">
            <Lines
              key={style.hashtags.join('\n')}
              label="Standing hashtags, one a line, without the number sign"
              hint="They come before the tags found in a piece."
              value={style.hashtags}
              onKeep={(hashtags) => save({ hashtags: hashtags.map((h) => h.replace(/^#/, '')) })}
            />
            <ClosingLines
              key={JSON.stringify(style.closingLines)}
              lines={style.closingLines}
              onKeep={(closingLines) => save({ closingLines })}
            />
            <LinkTags
              key={JSON.stringify(style.linkTags)}
              tags={style.linkTags}
              onKeep={(linkTags) => save({ linkTags })}
            />
            <chakra.label display="flex" gap="2" fontSize="13px" alignItems="center">
              <input
                type="checkbox"
                checked={style.credit}
                onChange={(e) => save({ credit: e.target.checked })}
              />
              Name the author of a piece where there is room
            </chakra.label>
            <chakra.label display="flex" gap="2" fontSize="13px" alignItems="center">
              <input
                type="checkbox"
                checked={style.shortLinks}
                onChange={(e) => save({ shortLinks: e.target.checked })}
              />
              <span>
                Send links out short
                {style.shortLinks && shortener?.settings === null && (
                  <>
                    {' '}
                    (none is connected, so they go out long; see <Services />)
                  </>
                )}
              </span>
            </chakra.label>
            <LinkPage />
          </Part>
          <Part title="Writer">
            <Labelled label="Captions are written by">
              {(id) => (
                <SelectField
                  id={id}
                  value={style.writer}
                  onChange={(e) => save({ writer: e.target.value as HouseStyle['writer'] })}
                >
                  <option value="built-in">the built-in writer</option>
                  <option value="connected">the connected writer</option>
                </SelectField>
              )}
            </Labelled>
            {style.writer === 'connected' && (
              <Box fontSize="13px" color="soft">
                {writer?.settings === null ? (
                  <>
                    None is connected, so the built-in writer stands in. Connect one under <Services />.
                  </>
                ) : (
                  `${writer?.settings.model ?? ''}: what it writes is fitted and checked like every caption; where it fails the built-in writer stands in and says so. The live example is the built-in writer’s.`
                )}
              </Box>
            )}
          </Part>
        </Box>
        <LiveExample />
      </Flex>
    </Page>
  )
}

function Services() {
  return (
    <Link to="/settings/services">
      <chakra.span color="waterText" textDecoration="underline" textUnderlineOffset="3px">
        Services
      </chakra.span>
    </Link>
  )
}

/** The brand's page of current links: where the server shows it, and the same as a file. */
function LinkPage() {
  const { brand } = useWork()
  const posts = useRows('posts', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  if (!posts || !pieces) return null
  const links = linksAt(pageLinks(brand, posts, pieces), nowIso())
  const address = `${window.location.origin}/links/${encodeURIComponent(brand.id)}`
  return (
    <Box role="group" aria-label="Page of links" fontSize="13px">
      <Box fontSize="xs" color="soft" mb="1">
        Page of links, for networks where a link stands in the profile only
      </Box>
      {links.length === 0 ? (
        <Box>Nothing has gone out there yet. The page appears with the first post that does.</Box>
      ) : (
        <Flex gap="3" align="center">
          <chakra.a
            href={address}
            target="_blank"
            rel="noreferrer"
            color="waterText"
            textDecoration="underline"
            textUnderlineOffset="3px"
          >
            {count(links.length, 'link')} at {address.replace(/^https?:\/\//, '')}
          </chakra.a>
          <Button
            size="sm"
            onClick={() =>
              download(new Blob([linkPage(brand.name, links)], { type: 'text/html' }), 'links.html')
            }
          >
            Save as a file
          </Button>
        </Flex>
      )}
    </Box>
  )
}

function LiveExample() {
  const { brand } = useWork()
  const pieces = usePieces(brand.id)
  const accounts = useAccounts(brand.id) ?? []
  const [chosen, setChosen] = useState<string | null>(null)
  const piece = pieces.find((p) => p.id === chosen) ?? pieces[0]
  const used = [...new Set(accounts.map((a) => a.network))]
  if (!piece)
    return (
      <Box flex="1" color="soft" fontSize="13px" pt="1">
        Once a piece has come in, captions in this style are shown here as you change it.
      </Box>
    )
  return (
    <Box flex="1" minW="0" position="sticky" top="4">
      <Box fontSize="13px" color="soft" mb="1">
        Live example · nothing is kept
      </Box>
      <PieceChoice pieces={pieces} value={piece.id} onChange={setChosen} />
      <Box
        mt="3"
        maxH="calc(100vh - 240px)"
        overflowY="auto"
        role="region"
        aria-label="Captions in this style"
        tabIndex={0}
      >
        <Example
          brand={brand}
          piece={piece.id}
          networks={used.length ? used : NETWORKS.slice(0, 3).map((n) => n.id)}
        />
      </Box>
    </Box>
  )
}

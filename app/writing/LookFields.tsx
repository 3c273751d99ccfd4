import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { FACES, Look, type Card } from '../../core/model'
import { useCard } from '../data'
import { addFace, coloursOfAddress, coloursOfFile, removeFace, setMark } from '../data/more'
import { attempt, Button, FileButton, Labelled, Notice, SelectField, TextField } from '../ui'

/** Words by which a ground is looked at. */
const WORDS: Card = { layout: 'words', head: '', text: 'A word.', items: [], speaker: '' }

/** What a brand's cards look like, each part to be changed. */
export function LookFields({
  brand,
  look,
  onKeep,
}: {
  brand: string
  look: Look
  onKeep: (look: Look) => void
}) {
  const [sign, setSign] = useState(look.sign)
  const ground = useCard(WORDS, look, { width: 1, height: 1 })?.ground
  const colours = (file: File): void =>
    void attempt(async () => onKeep({ ...look, ...(await coloursOfFile(file)) }))
  return (
    <Flex w="300px" flexShrink={0} direction="column" gap="6">
      <Flex as="section" direction="column" gap="3" aria-label="Colours">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          Colours
        </Heading>
        <ColourField label="Ground" value={look.ground} onKeep={(c) => onKeep({ ...look, ground: c })} />
        <ColourField label="Words" value={look.ink} onKeep={(c) => onKeep({ ...look, ink: c })} />
        <ColourField label="Accent" value={look.accent} onKeep={(c) => onKeep({ ...look, accent: c })} />
        {ground !== undefined && ground !== look.ground && (
          <Notice tone="amber">
            {`These words are hard to read on this ground, so cards stand on ${ground} instead.`}
          </Notice>
        )}
        <Box>
          <FileButton
            size="sm"
            accept="image/*"
            label="A logo or picture to take colours from"
            onFile={colours}
          >
            Take them from a logo …
          </FileButton>
        </Box>
        <PageColours onTake={(colours) => onKeep({ ...look, ...colours })} />
      </Flex>
      <Flex as="section" direction="column" gap="3" aria-label="Typefaces">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          Typefaces
        </Heading>
        <FaceField
          label="What is said"
          value={look.words}
          own={look.own}
          onKeep={(words) => onKeep({ ...look, words })}
        />
        <FaceField
          label="What stands beside it"
          value={look.labels}
          own={look.own}
          onKeep={(labels) => onKeep({ ...look, labels })}
        />
        {look.own?.map(({ name, regular, strong }) => (
          <Flex key={name} align="center" gap="2" fontSize="13px">
            <Box flex="1" minW="0" overflowWrap="anywhere">
              {name}
              <Box as="span" color="soft">
                {strong && strong !== regular ? '' : ', one weight'}
              </Box>
            </Box>
            <Button
              size="sm"
              look="quiet"
              aria-label={`Take out ${name}`}
              onClick={() => void attempt(() => removeFace(brand, name))}
            >
              Take out
            </Button>
          </Flex>
        ))}
        <Box>
          <FileButton
            size="sm"
            accept=".ttf,.otf,.woff2"
            label="A typeface of the brand’s own"
            title="TTF, OTF or WOFF2, one weight a file; those of one family go together."
            onFile={(file) => void attempt(() => addFace(brand, file))}
          >
            One of your own …
          </FileButton>
        </Box>
      </Flex>
      <Flex as="section" direction="column" gap="2" aria-label="Mark" align="flex-start">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          Mark
        </Heading>
        <Box fontSize="13px" color="soft">
          A small picture before the line at the foot; see-through where it has no ground of its own.
        </Box>
        <Flex gap="2">
          <FileButton
            size="sm"
            accept="image/*"
            label="The brand’s mark"
            onFile={(file) => void attempt(() => setMark(brand, file))}
          >
            {look.mark ? 'Another …' : 'A mark …'}
          </FileButton>
          {look.mark && (
            <Button
              size="sm"
              look="quiet"
              onClick={() => {
                const { mark: _, ...rest } = look
                onKeep(rest)
              }}
            >
              Take it off
            </Button>
          )}
        </Flex>
      </Flex>
      <Labelled label="Line at the foot" hint="The brand’s name, most often. Empty for none.">
        {(id) => (
          <TextField
            id={id}
            w="full"
            maxLength={60}
            value={sign}
            onChange={(e) => setSign(e.target.value)}
            onBlur={() => sign !== look.sign && onKeep({ ...look, sign })}
          />
        )}
      </Labelled>
      <chakra.label display="flex" gap="2" fontSize="13px" alignItems="flex-start">
        <chakra.input
          type="checkbox"
          mt="1"
          checked={look.codes ?? false}
          onChange={(e) => onKeep({ ...look, codes: e.target.checked })}
        />
        New cards carry the link as a code where a network’s links cannot be followed
      </chakra.label>
    </Flex>
  )
}

/** A colour, picked or written as six hexadecimal digits. */
function ColourField({
  label,
  value,
  onKeep,
}: {
  label: string
  value: string
  onKeep: (colour: string) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const keep = (colour: string): void => {
    const parsed = Look.shape.ground.safeParse(colour.trim().toLowerCase())
    setTyped(null)
    if (parsed.success && parsed.data !== value) onKeep(parsed.data)
  }
  return (
    <Labelled label={label}>
      {(id) => (
        <Flex gap="2">
          <chakra.input
            type="color"
            aria-label={`${label}, picked`}
            w="9"
            h="9"
            p="0.5"
            bg="raised"
            borderWidth="1px"
            borderColor="hairline"
            borderRadius="sm"
            cursor="pointer"
            value={value}
            onChange={(e) => keep(e.target.value)}
          />
          <TextField
            id={id}
            w="110px"
            fontFamily="mono"
            value={typed ?? value}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={() => typed !== null && keep(typed)}
            onKeyDown={(e) => e.key === 'Enter' && typed !== null && keep(typed)}
          />
        </Flex>
      )}
    </Labelled>
  )
}

function FaceField({
  label,
  value,
  own = [],
  onKeep,
}: {
  label: string
  value: string
  own?: Look['own']
  onKeep: (face: string) => void
}) {
  return (
    <Labelled label={label}>
      {(id) => (
        <SelectField id={id} w="full" value={value} onChange={(e) => onKeep(e.target.value)}>
          {[...FACES, ...own.map((face) => face.name)].map((face) => (
            <option key={face}>{face}</option>
          ))}
        </SelectField>
      )}
    </Labelled>
  )
}

/** Takes colours from a page on the web. */
function PageColours({ onTake }: { onTake: (colours: Pick<Look, 'ground' | 'ink' | 'accent'>) => void }) {
  const [address, setAddress] = useState('')
  const [busy, setBusy] = useState(false)
  const take = (): void =>
    void attempt(async () => {
      setBusy(true)
      try {
        onTake(await coloursOfAddress(address))
      } finally {
        setBusy(false)
      }
    })
  return (
    <chakra.form
      onSubmit={(e) => {
        e.preventDefault()
        if (address.trim() !== '') take()
      }}
    >
      <Labelled label="Or from a page of the brand">
        {(id) => (
          <Flex gap="2">
            <TextField
              id={id}
              flex="1"
              minW="0"
              placeholder="Its address"
              value={address}
              onChange={(e) => setAddress(e.target.value)}
            />
            <Button size="sm" type="submit" disabled={busy || address.trim() === ''}>
              {busy ? 'Looking …' : 'Take them'}
            </Button>
          </Flex>
        )}
      </Labelled>
    </chakra.form>
  )
}

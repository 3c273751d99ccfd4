import { Box, chakra, Flex, Grid, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import useSWR from 'swr'
import { FACES, LAYOUTS, Look, type Card, type Layout, type PostMedia } from '../../core/model'
import { coloursOfFile, exampleCards, saveLook, useCard } from '../data'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  FileButton,
  Labelled,
  Notice,
  Page,
  PageHead,
  Segments,
  SelectField,
  TextField,
} from '../ui'
import { PieceChoice, usePieces } from './Example'

type Shape = NonNullable<PostMedia['shape']>
const SHAPES: Readonly<Record<string, Shape>> = {
  '1:1': { width: 1, height: 1 },
  '4:5': { width: 4, height: 5 },
  '2:3': { width: 2, height: 3 },
  '9:16': { width: 9, height: 16 },
  '16:9': { width: 16, height: 9 },
}
type ShapeName = '1:1' | '4:5' | '2:3' | '9:16' | '16:9'

/** Words for layouts that no passage of the chosen piece has anything for. */
const SAMPLES: Readonly<Record<Layout, Omit<Card, 'layout'>>> = {
  words: { head: '', text: 'Say one thing, and say it whole.', items: [], speaker: '' },
  quotation: {
    head: '',
    text: 'I measured twice, and then I asked somebody.',
    items: [],
    speaker: 'Who said it',
  },
  number: {
    head: '14 days',
    text: 'So long the first coat wants before the second.',
    items: [],
    speaker: '',
  },
  contrast: { head: '', text: '', items: ['What most people do.', 'What works.'], speaker: '' },
  list: {
    head: 'What to bring',
    text: '',
    items: ['Something warm', 'Something dry', 'Something to eat'],
    speaker: '',
  },
  steps: { head: 'In this order', text: '', items: ['Look.', 'Ask.', 'Begin.'], speaker: '' },
  question: { head: '', text: 'What would you do first?', items: [], speaker: '' },
  definition: { head: 'Term', text: 'What it means, in one sentence.', items: [], speaker: '' },
  title: { head: '', text: 'The title of a piece', items: [], speaker: '' },
}

/** How a brand's cards look, beside what real passages make of it. */
export function LookScreen() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const pieces = usePieces(brand.id)
  const [chosen, setChosen] = useState<string | null>(null)
  const [shape, setShape] = useState<ShapeName>('4:5')
  const piece = pieces.find((p) => p.id === chosen) ?? pieces[0]
  const { look } = brand
  const { data } = useSWR(
    piece ? ['cards', piece.id, look.layouts] : null,
    ([, id, layouts]) => exampleCards(id, layouts),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  return (
    <Page>
      <PageHead
        title="Look of cards"
        note={`Pictures made of words, in the look of ${brand.name}. It saves itself; cards that are still to go out are drawn anew.`}
      >
        <Button onClick={() => void navigate('/writing/house')}>House style</Button>
      </PageHead>
      <Flex px="6" pb="8" gap="10" align="flex-start">
        <LookFields
          key={brand.id}
          look={look}
          onKeep={(next) => void attempt(() => saveLook(brand.id, next))}
        />
        <Box flex="1" minW="0">
          {piece ? (
            <>
              <Flex gap="3" align="center" mb="3">
                <Box flex="1" minW="0">
                  <PieceChoice pieces={pieces} value={piece.id} onChange={setChosen} />
                </Box>
                <Segments
                  label="Shape"
                  choices={Object.keys(SHAPES) as ShapeName[]}
                  value={shape}
                  onChange={setShape}
                />
              </Flex>
              <Grid
                templateColumns="repeat(3, 1fr)"
                gap="3"
                aria-label="Cards of three passages"
                role="group"
              >
                {data?.passages.map((card, i) => (
                  <Drawn key={i} card={card} look={look} shape={SHAPES[shape] as Shape} />
                ))}
              </Grid>
            </>
          ) : (
            <Box color="soft" fontSize="13px" mb="3">
              Once a piece has come in, its best passages are drawn here.
            </Box>
          )}
          <Heading as="h2" fontSize="15px" fontWeight="600" mt="6" mb="1">
            Layouts
          </Heading>
          <Box fontSize="13px" color="soft" mb="3">
            Those that are ticked are chosen from, by what a caption says. Any of them may be taken by hand.
          </Box>
          <Grid templateColumns="repeat(auto-fill, minmax(132px, 1fr))" gap="3">
            {LAYOUTS.map((layout) => (
              <Box key={layout}>
                <Drawn
                  card={data?.layouts[layout] ?? { ...SAMPLES[layout], layout }}
                  look={look}
                  shape={{ width: 1, height: 1 }}
                />
                <chakra.label display="flex" gap="2" mt="1.5" fontSize="13px" alignItems="center">
                  <input
                    type="checkbox"
                    checked={look.layouts.includes(layout)}
                    disabled={look.layouts.length === 1 && look.layouts.includes(layout)}
                    onChange={(e) =>
                      void attempt(() =>
                        saveLook(brand.id, {
                          ...look,
                          layouts: LAYOUTS.filter((l) =>
                            l === layout ? e.target.checked : look.layouts.includes(l),
                          ),
                        }),
                      )
                    }
                  />
                  {layout}
                </chakra.label>
              </Box>
            ))}
          </Grid>
        </Box>
      </Flex>
    </Page>
  )
}

function Drawn({ card, look, shape }: { card: Card; look: Look; shape: Shape }) {
  const drawn = useCard(card, look, shape)
  const told = [card.head, card.text, ...card.items, card.speaker].filter(Boolean).join('. ')
  return (
    <chakra.img
      src={drawn?.url}
      alt={told}
      w="full"
      bg="hairline"
      borderRadius="sm"
      aspectRatio={`${shape.width} / ${shape.height}`}
    />
  )
}

function LookFields({ look, onKeep }: { look: Look; onKeep: (look: Look) => void }) {
  const [sign, setSign] = useState(look.sign)
  const ground = useCard({ ...SAMPLES.words, layout: 'words' }, look, { width: 1, height: 1 })?.ground
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
      </Flex>
      <Flex as="section" direction="column" gap="3" aria-label="Typefaces">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          Typefaces
        </Heading>
        <FaceField label="What is said" value={look.words} onKeep={(words) => onKeep({ ...look, words })} />
        <FaceField
          label="What stands beside it"
          value={look.labels}
          onKeep={(labels) => onKeep({ ...look, labels })}
        />
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
  onKeep,
}: {
  label: string
  value: Look['words']
  onKeep: (face: Look['words']) => void
}) {
  return (
    <Labelled label={label}>
      {(id) => (
        <SelectField id={id} w="full" value={value} onChange={(e) => onKeep(e.target.value as Look['words'])}>
          {FACES.map((face) => (
            <option key={face}>{face}</option>
          ))}
        </SelectField>
      )}
    </Labelled>
  )
}

import { Box, chakra, Flex, Grid, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import useSWR from 'swr'
import { LAYOUTS, WORD_LAYOUTS, type Card, type Layout, type Look, type PostMedia } from '../../core/model'
import { useCard } from '../data'
import { exampleCards, saveLook } from '../data/more'
import { useWork } from '../shell'
import { attempt, Button, Page, PageHead, Segments } from '../ui'
import { PieceChoice, usePieces } from './Example'
import { LookFields } from './LookFields'

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
  code: { head: '', text: 'What the code leads to', items: [], speaker: '' },
}

/** What the codes of the examples lead to. */
const SAMPLE_LINK = 'https://example.org/'

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
          brand={brand.id}
          look={look}
          onKeep={(next) => void attempt(() => saveLook(brand, next))}
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
                {WORD_LAYOUTS.includes(layout) ? (
                  <chakra.label display="flex" gap="2" mt="1.5" fontSize="13px" alignItems="center">
                    <input
                      type="checkbox"
                      checked={look.layouts.includes(layout)}
                      disabled={look.layouts.length === 1 && look.layouts.includes(layout)}
                      onChange={(e) =>
                        void attempt(() =>
                          saveLook(brand, {
                            ...look,
                            layouts: WORD_LAYOUTS.filter((l) =>
                              l === layout ? e.target.checked : look.layouts.includes(l),
                            ),
                          }),
                        )
                      }
                    />
                    {layout}
                  </chakra.label>
                ) : (
                  <Box mt="1.5" fontSize="13px">
                    {layout}, by hand
                  </Box>
                )}
              </Box>
            ))}
          </Grid>
        </Box>
      </Flex>
    </Page>
  )
}

function Drawn({ card, look, shape }: { card: Card; look: Look; shape: Shape }) {
  const drawn = useCard(card, look, shape, SAMPLE_LINK)
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

import { Box, chakra } from '@chakra-ui/react'
import { Fragment, type ReactNode } from 'react'
import type { Block, Passage, Piece } from '../../core/model'

/** A piece's blocks with the passages marked in them. Every run of text knows its place. */
export function PieceText({
  piece,
  passages,
  chosen,
  onChoose,
}: {
  piece: Piece
  passages: readonly Passage[]
  chosen: string | null
  onChoose: (id: string) => void
}) {
  const shown = passages.filter((p) => p.choice !== 'left out' && !p.lostPlace)
  const images = (block: number): ReactNode =>
    piece.images
      .filter((i) => i.block === block)
      .map((i) => (
        <chakra.figure key={i.url} my="4">
          <chakra.img
            src={i.url}
            alt={i.alt}
            borderRadius="md"
            w="full"
            maxH="300px"
            objectFit="cover"
            {...(i.width && i.height ? { width: i.width, height: i.height } : {})}
          />
          {i.caption && (
            <chakra.figcaption fontSize="13px" color="soft" mt="1">
              {i.caption}
            </chakra.figcaption>
          )}
        </chakra.figure>
      ))
  return (
    <>
      {piece.blocks.map((block, index) => (
        <Fragment key={block.start}>
          <BlockText
            block={block}
            piece={piece}
            passages={shown.filter((p) => p.start < block.end && p.end > block.start)}
            chosen={chosen}
            onChoose={onChoose}
          />
          {images(index)}
        </Fragment>
      ))}
    </>
  )
}

function BlockText({
  block,
  piece,
  passages,
  chosen,
  onChoose,
}: {
  block: Block
  piece: Piece
  passages: readonly Passage[]
  chosen: string | null
  onChoose: (id: string) => void
}) {
  const cuts = [...new Set([block.start, block.end, ...passages.flatMap((p) => [p.start, p.end])])]
    .filter((c) => c >= block.start && c <= block.end)
    .sort((a, b) => a - b)
  const runs = cuts.slice(0, -1).map((start, i) => {
    const end = cuts[i + 1] ?? block.end
    const over = passages.filter((p) => p.start <= start && p.end >= end)
    const passage = over.find((p) => p.id === chosen) ?? over.find((p) => p.choice === 'kept') ?? over[0]
    const words = piece.text.slice(start, end)
    if (!passage)
      return (
        <span key={start} data-start={start}>
          {words}
        </span>
      )
    const kept = passage.choice === 'kept'
    return (
      <chakra.mark
        key={start}
        id={passage.start === start ? `mark-${passage.id}` : undefined}
        data-start={start}
        onClick={() => onChoose(passage.id)}
        cursor="pointer"
        color="inherit"
        bg={kept ? 'waterTint' : 'transparent'}
        borderBottomWidth="2px"
        borderBottomStyle={kept ? 'solid' : 'dotted'}
        borderColor="water"
        boxShadow={passage.id === chosen ? '0 0 0 2px var(--chakra-colors-water)' : undefined}
        style={kept ? { opacity: 1 } : undefined}
        title={`strength ${passage.score.toFixed(2)}`}
      >
        {words}
      </chakra.mark>
    )
  })
  const shared = { fontFamily: 'reading', 'data-block': block.start }
  if (block.furniture)
    return (
      <Box
        {...shared}
        borderLeftWidth="3px"
        borderColor="hairline"
        pl="3"
        my="3"
        color="soft"
        fontSize="15px"
        lineHeight="1.6"
        title={`Furniture: ${block.furniture}`}
      >
        {runs}
        <Box as="span" fontFamily="body" fontSize="12px" ml="2" data-skip>
          ({block.furniture})
        </Box>
      </Box>
    )
  if (block.kind === 'heading')
    return (
      <chakra.h2 {...shared} fontSize="20px" fontWeight="700" mt="6" mb="1">
        {runs}
      </chakra.h2>
    )
  if (block.kind === 'item')
    return (
      <Box {...shared} fontSize="17px" lineHeight="1.65" pl="7" position="relative" mb="1">
        <chakra.span position="absolute" left="1" color="soft" data-skip userSelect="none">
          {block.list?.ordered ? `${block.list.index + 1}.` : '–'}
        </chakra.span>
        {runs}
      </Box>
    )
  return (
    <chakra.p
      {...shared}
      fontSize={block.kind === 'code' ? '14px' : '17px'}
      lineHeight="1.65"
      mb="3"
      whiteSpace={block.kind === 'code' ? 'pre-wrap' : undefined}
      fontStyle={block.kind === 'quotation' ? 'italic' : undefined}
    >
      {runs}
    </chakra.p>
  )
}

/** The places in the piece's text that are selected within the reader, or null. */
export function selectedRange(root: HTMLElement): { start: number; end: number } | null {
  const selection = window.getSelection()
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null
  const range = selection.getRangeAt(0)
  const runs = [...root.querySelectorAll<HTMLElement>('[data-start]')].filter((run) =>
    range.intersectsNode(run),
  )
  const first = runs[0]
  const last = runs[runs.length - 1]
  if (!first || !last) return null
  const from = Number(first.dataset['start'])
  const to = Number(last.dataset['start'])
  const inside = (run: HTMLElement, node: Node): boolean => node.nodeType === 3 && run.contains(node)
  const start = from + (inside(first, range.startContainer) ? range.startOffset : 0)
  const whole = last.textContent?.length ?? 0
  const cut = last.contains(range.endContainer) || last === range.endContainer
  const end =
    to + (inside(last, range.endContainer) ? range.endOffset : cut || touches(range, last) ? 0 : whole)
  return end > start ? { start, end } : null
}

/** Whether a range ends right where a run begins, as after a triple click on the block before it. */
function touches(range: Range, run: HTMLElement): boolean {
  return range.endOffset === 0 && range.endContainer.contains(run) && range.endContainer.firstChild === run
}

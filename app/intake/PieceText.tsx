import { Box, chakra } from '@chakra-ui/react'
import { Fragment, memo, type ReactNode } from 'react'
import type { Block, Passage, Place, WholePiece } from '../../core/model'
import { fillersIn } from '../../core/speech'
import { clip, Mono } from '../ui'

/** What is laid over a piece's words: its passages, what ages it, what a search found. */
export interface Overlay {
  passages: readonly Passage[]
  chosen: string | null
  found: readonly Place[]
  foundAt: number
  hideFillers: boolean
  onChoose: (id: string) => void
}

/** A piece's blocks with the passages marked in them. Every run of text knows its place. */
export const PieceText = memo(function PieceText({ piece, ...overlay }: { piece: WholePiece } & Overlay) {
  const shown = overlay.passages.filter((p) => p.choice !== 'left out' && !p.lostPlace)
  const times = new Map(
    piece.sentences.flatMap((s) => (s.from === undefined ? [] : [[s.block, s.from]])).reverse() as [
      number,
      number,
    ][],
  )
  const chapters = piece.video?.chapters ?? []
  const images = (block: number): ReactNode =>
    piece.images
      .filter((i) => i.block === block && (piece.kind !== 'video' || block >= 0))
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
      {images(-1)}
      {piece.blocks.map((block, index) => {
        const from = times.get(index)
        const before = times.get(index - 1) ?? -1
        const begun =
          from === undefined ? [] : chapters.filter((c) => c.at > before + 0.5 && c.at <= from + 0.5)
        const said = piece.blocks[index - 1]?.speaker
        const speaker =
          block.speaker && block.speaker !== said && block.kind !== 'quotation' ? block.speaker : null
        return (
          <Fragment key={block.start}>
            {begun.slice(-1).map((c) => (
              <chakra.h2
                key={c.at}
                fontFamily="heading"
                fontSize="17px"
                fontWeight="700"
                mt="6"
                mb="1"
                data-skip
              >
                <Mono mr="2">{clip(c.at)}</Mono>
                {c.title}
              </chakra.h2>
            ))}
            <BlockText
              block={block}
              piece={piece}
              from={from}
              speaker={speaker}
              overlay={{
                ...overlay,
                passages: shown.filter((p) => p.start < block.end && p.end > block.start),
              }}
            />
            {images(index)}
          </Fragment>
        )
      })}
    </>
  )
})

function BlockText({
  block,
  piece,
  from,
  speaker,
  overlay,
}: {
  block: Block
  piece: WholePiece
  from: number | undefined
  speaker: string | null
  overlay: Overlay
}) {
  const within = <P extends Place>(places: readonly P[]): P[] =>
    places.filter((p) => p.start < block.end && p.end > block.start)
  const ageing = within(piece.keeps.phrases)
  const found = within(overlay.found)
  const spoken = from !== undefined
  const fillers = spoken
    ? fillersIn(piece.text.slice(block.start, block.end)).map((f) => ({
        start: f.start + block.start,
        end: f.end + block.start,
      }))
    : []
  const { passages, chosen } = overlay
  const cuts = [
    ...new Set([
      block.start,
      block.end,
      ...[...passages, ...ageing, ...found, ...fillers].flatMap((p) => [p.start, p.end]),
    ]),
  ]
    .filter((c) => c >= block.start && c <= block.end)
    .sort((a, b) => a - b)
  const over = <P extends Place>(list: readonly P[], start: number, end: number): P | undefined =>
    list.find((p) => p.start <= start && p.end >= end)
  const runs = cuts.slice(0, -1).map((start, i) => {
    const end = cuts[i + 1] ?? block.end
    const mine = passages.filter((p) => p.start <= start && p.end >= end)
    const passage = mine.find((p) => p.id === chosen) ?? mine.find((p) => p.choice === 'kept') ?? mine[0]
    const aged = over(ageing, start, end)
    const filler = over(fillers, start, end)
    const hit = over(overlay.found, start, end)
    const words = piece.text.slice(start, end)
    const look = {
      ...(filler ? { display: overlay.hideFillers ? 'none' : undefined, color: 'soft' } : {}),
      ...(aged
        ? {
            textDecoration: 'underline wavy',
            textDecorationColor: 'amber',
            textUnderlineOffset: '4px',
            title: `This ages: ${aged.why}`,
          }
        : {}),
      ...(hit
        ? {
            bg: overlay.found[overlay.foundAt] === hit ? 'amber' : 'clayTint',
            color: overlay.found[overlay.foundAt] === hit ? 'paper' : 'ink',
          }
        : {}),
    }
    if (!passage)
      return (
        <chakra.span
          key={start}
          data-start={start}
          {...(hit && hit.start === start ? { id: `hit-${start}` } : {})}
          {...look}
        >
          {words}
        </chakra.span>
      )
    const kept = passage.choice === 'kept'
    return (
      <chakra.mark
        key={start}
        id={passage.start === start ? `mark-${passage.id}` : undefined}
        data-start={start}
        onClick={() => overlay.onChoose(passage.id)}
        cursor="pointer"
        color="inherit"
        bg={kept ? 'waterTint' : 'transparent'}
        borderBottomWidth="2px"
        borderBottomStyle={kept ? 'solid' : 'dotted'}
        borderColor="water"
        boxShadow={passage.id === chosen ? '0 0 0 2px var(--chakra-colors-water)' : undefined}
        title={`strength ${passage.score.toFixed(2)}`}
        {...look}
      >
        {words}
      </chakra.mark>
    )
  })
  const shared = { fontFamily: 'reading', 'data-block': block.start }
  const stamp = spoken && (
    <Mono display="block" data-skip userSelect="none" mb="0.5">
      {clip(from)}
      {speaker ? ` · ${speaker}` : ''}
    </Mono>
  )
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
    <Box
      {...shared}
      as="p"
      fontSize={block.kind === 'code' ? '14px' : '17px'}
      lineHeight="1.65"
      mb="3"
      whiteSpace={block.kind === 'code' ? 'pre-wrap' : undefined}
      fontStyle={block.kind === 'quotation' ? 'italic' : undefined}
      pl={block.kind === 'quotation' ? '5' : undefined}
    >
      {stamp}
      {runs}
      {block.kind === 'quotation' && block.speaker && (
        <chakra.span fontStyle="normal" color="soft" fontFamily="body" fontSize="13px" data-skip>
          {' '}
          — {block.speaker}
        </chakra.span>
      )}
    </Box>
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

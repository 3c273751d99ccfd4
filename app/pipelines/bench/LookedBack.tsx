import { Box, chakra } from '@chakra-ui/react'
import useSWR from 'swr'
import { lookBack, rulesOf } from '../../../core/pipeline'
import type { Account, Pipeline, Source } from '../../../core/model'
import { readsText } from '../../../core/sieve'
import { textsOf, useRows } from '../../data'
import { count } from '../../ui'
import type { Trial } from '../useSieveTrial'

const DAYS = 90

/** What the pipeline would have done with what came in lately. */
export function LookedBack({
  pipeline,
  accounts,
  sources,
  context,
}: {
  pipeline: Pipeline
  accounts: readonly Account[]
  sources: readonly Source[]
  context: Trial['context']
}) {
  const pieces = useRows('pieces', 'brand', pipeline.brand)
  const passages = useRows('passages', 'brand', pipeline.brand)
  const { data: texts } = useSWR(
    readsText(rulesOf(pipeline)) && pieces
      ? ['texts of', ...pieces.map((p) => `${p.id}.${p.revision}`)]
      : null,
    () => textsOf(pieces ?? []),
    { keepPreviousData: true },
  )
  if (!pieces || !passages) return null
  const kept = new Map<string, number>()
  for (const p of passages) if (p.choice === 'kept') kept.set(p.piece, (kept.get(p.piece) ?? 0) + 1)
  const looked = lookBack(
    pipeline,
    {
      pieces,
      accounts,
      sources,
      context,
      textOf: (id) => texts?.get(id) ?? '',
      kept: (id) => kept.get(id) ?? 0,
    },
    DAYS,
  )
  const weekly =
    [...looked.byAccount.values()].reduce((a, b) => a + b, 0) / Math.max(1, looked.byAccount.size)
  return (
    <Box fontSize="13px" color="soft" borderTopWidth="1px" borderColor="hairline" pt="3">
      In the last {DAYS} days this would have passed{' '}
      <chakra.b color="ink">
        {looked.passed} of {looked.pieces}
      </chakra.b>{' '}
      {looked.pieces === 1 ? 'piece' : 'pieces'} and made at most{' '}
      <chakra.b color="ink">{count(looked.posts, 'post')}</chakra.b>
      {looked.byAccount.size > 0 && `: ${(weekly / (DAYS / 7)).toFixed(1)} a week on each account`}, its
      limits not counted.
      {looked.left > 0 &&
        ` ${count(looked.left, 'piece')} would have passed, and no row would have taken ${looked.left === 1 ? 'it' : 'them'}.`}
    </Box>
  )
}

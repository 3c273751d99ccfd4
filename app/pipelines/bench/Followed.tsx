import { Box } from '@chakra-ui/react'
import type { Account, Follow, Piece, Pipeline, Post } from '../../../core/model'
import { network } from '../../../core/networks'
import { filledIn, followWords } from '../../../core/pipeline'
import { useRows } from '../../data'
import { count } from '../../ui'
import { Stage } from './Stage'

/** What would follow the piece of the worked example: each thing, and what the chat would hear. */
export function Followed({
  pipeline,
  piece,
  posts,
  accounts,
}: {
  pipeline: Pipeline
  piece: Piece
  posts: readonly Post[]
  accounts: readonly Account[]
}) {
  const others = useRows('pipelines', 'brand', pipeline.brand) ?? []
  const nameOf = (id: string): string | null => others.find((p) => p.id === id)?.name ?? null
  const [first] = [...posts].sort((a, b) => ((a.at ?? '9') < (b.at ?? '9') ? -1 : 1))
  const heard = (follow: Extract<Follow, { kind: 'chat' }>): string => {
    const handle = accounts.find((a) => a.id === first?.account)?.handle
    return filledIn(follow.text, {
      title: piece.title,
      text: first?.wording.text ?? '',
      network: first ? network(first.network).name : '',
      account: handle ? `@${handle}` : '',
      link: first?.link ?? piece.url ?? '',
      posts: count(posts.length, 'post'),
      reason: 'what the network says',
      pipeline: pipeline.name,
    })
  }
  return (
    <Stage
      title="What follows"
      note={count(pipeline.follows.length, 'thing')}
      data={pipeline.follows.map((f) => (f.kind === 'chat' ? { ...f, heard: heard(f) } : f))}
    >
      {pipeline.follows.map((follow) => {
        const words = followWords(follow, nameOf)
        return (
          <Box key={follow.id} py="0.5">
            {words.slice(0, 1).toUpperCase() + words.slice(1)}
            {follow.kind === 'chat' && (
              <Box
                fontFamily="reading"
                color="soft"
                pl="3"
                borderLeftWidth="2px"
                borderColor="hairline"
                whiteSpace="pre-wrap"
                lineClamp={4}
              >
                {heard(follow)}
              </Box>
            )}
          </Box>
        )
      })}
    </Stage>
  )
}

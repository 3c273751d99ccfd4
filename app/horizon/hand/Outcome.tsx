import { Box, chakra, Flex } from '@chakra-ui/react'
import { insideOf, type Account } from '../../../core/model'
import type { HandPost } from '../../../core/pipeline'
import { count, Drop, moment, Mono, NetworkMark, withDays } from '../../ui'

/** So many are shown; the others are counted. */
const SHOWN = 200

/** What comes of what was written: where each post lands, and what stands against it. */
export function Outcome({
  made,
  accounts,
  wordsToo = false,
}: {
  made: readonly HandPost[]
  accounts: readonly Account[]
  /** Whether the words differ from post to post. */
  wordsToo?: boolean
}) {
  const known = new Map(accounts.map((a) => [a.id, a]))
  const sorted = [...made].sort((a, b) => ((a.post.at ?? '9') < (b.post.at ?? '9') ? -1 : 1))
  return (
    <Box role="list" aria-label="What comes of it">
      {sorted.slice(0, SHOWN).map(({ post }) => {
        const account = known.get(post.account)
        const against = post.checks.filter((c) => c.severity !== 'note')
        return (
          <Flex
            key={post.id}
            role="listitem"
            gap="3"
            py="2"
            borderTopWidth="1px"
            borderColor="hairline"
            align="flex-start"
          >
            <Drop state={post.state} inside={insideOf(post)} hue={null} size={22} />
            <NetworkMark id={post.network} />
            <Box flex="1" minW="0" fontSize="13px">
              <Flex gap="3" align="baseline" wrap="wrap">
                <b>@{account?.handle}</b>
                <Mono color={post.at ? 'ink' : 'plumText'}>
                  {post.at ? moment(post.at, account?.zone ?? 'UTC') : 'no place'}
                </Mono>
                <chakra.span color="soft">
                  {post.state !== 'approved'
                    ? 'waits for review'
                    : post.at
                      ? 'goes out by itself'
                      : 'waits until it has one'}
                </chakra.span>
              </Flex>
              {wordsToo && (
                <Box fontFamily="reading" truncate>
                  {post.wording.text}
                </Box>
              )}
              <Box color="soft">{withDays(post.reasons.map((r) => r.message).join(' '))}</Box>
              {against.map((c) => (
                <Box key={c.code + (c.words ?? '')} color={c.severity === 'block' ? 'plumText' : 'clayText'}>
                  {c.message}
                </Box>
              ))}
            </Box>
          </Flex>
        )
      })}
      {sorted.length > SHOWN && (
        <Box py="2" color="soft" fontSize="13px">
          and {count(sorted.length - SHOWN, 'post')} more.
        </Box>
      )}
    </Box>
  )
}

/** "5 posts, 4 go out by themselves, 1 waits for review, 1 has no place". */
export function outcomeWords(made: readonly HandPost[]): string {
  const waits = made.filter((m) => m.post.state !== 'approved').length
  const nowhere = made.filter((m) => m.post.at === null).length
  return [
    count(made.length, 'post'),
    waits ? `${waits.toLocaleString('en')} ${waits === 1 ? 'waits' : 'wait'} for review` : null,
    nowhere ? `${nowhere.toLocaleString('en')} ${nowhere === 1 ? 'has' : 'have'} no place` : null,
  ]
    .filter(Boolean)
    .join(', ')
}

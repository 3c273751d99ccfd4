import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { type Check, type Post } from '../../../core/model'
import { acceptFlag } from '../../data'
import { attempt, Button } from '../../ui'

export function Checks({
  post,
  checks,
  acceptable,
  onMend,
}: {
  post: Post
  checks: readonly Check[]
  acceptable: boolean
  onMend?: ((check: Check) => void) | undefined
}) {
  const accepted = (c: Check): boolean =>
    post.accepted.some((a) => a.code === c.code && a.words === (c.words ?? ''))
  const acceptedAt = (c: Check): string => {
    const at = post.accepted.find((a) => a.code === c.code && a.words === (c.words ?? ''))?.at
    return at ? ` on ${at.slice(0, 10)}` : ''
  }
  return (
    <Box fontSize="13px">
      <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1">
        Checks
      </Heading>
      {checks.map((check) => (
        <Flex key={check.code + (check.words ?? '')} gap="2" py="0.5" align="baseline">
          <Box
            fontWeight="700"
            color={check.severity === 'block' ? 'plumText' : check.severity === 'flag' ? 'clayText' : 'soft'}
            w="12px"
          >
            {check.severity === 'note' ? 'i' : '!'}
          </Box>
          <Box flex="1">
            {check.message}
            {accepted(check) && <chakra.span color="mossText"> Accepted{acceptedAt(check)}.</chakra.span>}
          </Box>
          {check.remedy && onMend && (
            <Button size="sm" look="quiet" onClick={() => onMend(check)}>
              {check.remedy}
            </Button>
          )}
          {check.severity === 'flag' && !accepted(check) && acceptable && (
            <Button size="sm" look="quiet" onClick={() => void attempt(() => acceptFlag(post.id, check))}>
              It is fine
            </Button>
          )}
        </Flex>
      ))}
      {checks.length === 0 && (
        <Flex gap="2">
          <Box color="mossText">✓</Box>
          <Box color="soft">
            {post.piece ? 'Numbers, names and quotations are in the piece · within' : 'Within'} the limit ·
            unlike its neighbours
          </Box>
        </Flex>
      )}
    </Box>
  )
}

import { Box, chakra, Heading } from '@chakra-ui/react'
import { bounds, effectName, more, type NetworkEffects } from '../../core/results'
import { network } from '../../core/networks'
import { count } from '../ui'

/** What earns more or less with all else alike, in sentences, network by network. */
export function Effects({ effects }: { effects: readonly NetworkEffects[] }) {
  return (
    <Box as="section" aria-label="All else alike">
      <Heading as="h2" fontSize="15px" fontWeight="600">
        All else alike
      </Heading>
      <Box color="soft" fontSize="13px" mt="1" maxW="62ch">
        What each thing about a post does by itself, told from all posts until now. Only what holds 95 times
        in 100 is said.
      </Box>
      {effects.map(({ network: id, posts, named, others }) => (
        <Box key={id} mt="3">
          <Box fontSize="13px" fontWeight="600">
            {network(id).name}{' '}
            <chakra.span color="soft" fontWeight="400">
              · {count(posts, 'post')}
            </chakra.span>
          </Box>
          <chakra.ul mt="1" pl="0" css={{ listStyle: 'none' }} fontSize="14px" lineHeight="1.6">
            {named.map((e) => (
              <li key={`${e.factor} ${e.level}`}>
                {effectName(e)} earns <b>{more(e.times.at)}</b>{' '}
                <chakra.span color="soft">
                  ({bounds(e.times)}; {count(e.posts, 'post')})
                </chakra.span>
              </li>
            ))}
          </chakra.ul>
          <Box color="soft" fontSize="13px">
            {others > 0
              ? `Of ${count(others, 'other thing')} looked at, nothing is certain yet.`
              : named.length === 0
                ? 'Too few posts to tell anything apart.'
                : ''}
          </Box>
        </Box>
      ))}
    </Box>
  )
}

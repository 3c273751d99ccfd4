import { Box, chakra, Heading } from '@chakra-ui/react'
import { bounds, effectName, more, type NetworkEffects } from '../../core/results'
import { network } from '../../core/networks'
import { inWords } from '../../core/text'
import { count } from '../ui'

/** What earns more or less with all else alike, in sentences, network by network. */
export function Effects({ effects }: { effects: readonly NetworkEffects[] }) {
  const thin = effects.filter((e) => e.named.length + e.others === 0)
  return (
    <Box as="section" aria-label="All else alike">
      <Heading as="h2" fontSize="15px" fontWeight="600">
        All else alike
      </Heading>
      <Box color="soft" fontSize="13px" mt="1" maxW="62ch">
        What each thing about a post does by itself, told from all posts until now. Only what holds 95 times
        in 100 is said.
      </Box>
      {effects
        .filter((e) => !thin.includes(e))
        .map(({ network: id, posts, named, others }) => (
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
            {others > 0 && (
              <Box color="soft" fontSize="13px">
                Of {count(others, 'other thing')} looked at, nothing is certain yet.
              </Box>
            )}
          </Box>
        ))}
      {thin.length > 0 && (
        <Box color="soft" fontSize="13px" mt="3">
          Too few posts to tell anything apart on{' '}
          {inWords(thin.map((e) => `${network(e.network).name} (${e.posts})`))}.
        </Box>
      )}
    </Box>
  )
}

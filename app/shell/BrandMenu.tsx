import { Box, chakra, Flex } from '@chakra-ui/react'
import { Link, useNavigate } from 'react-router'
import { Popover } from './Popover'
import { useWork } from './work'

/** The mark and the brand in hand; opens the list of brands, and leads to what can be set. */
export function BrandMenu() {
  const { brand, brands, chooseBrand } = useWork()
  const navigate = useNavigate()
  const face = (
    <Flex align="center" gap="2.5">
      <chakra.svg viewBox="0 0 32 32" w="30px" h="30px" color="water" aria-hidden>
        <path d="M3 9h12a8 8 0 0 1 8 8v7" fill="none" stroke="currentColor" strokeWidth="6" />
        <rect
          x="3"
          y="3"
          width="6"
          height="12"
          rx="2"
          fill="var(--chakra-colors-raised)"
          stroke="currentColor"
          strokeWidth="2.4"
        />
        <rect
          x="17"
          y="23"
          width="12"
          height="6"
          rx="2"
          fill="var(--chakra-colors-raised)"
          stroke="currentColor"
          strokeWidth="2.4"
        />
      </chakra.svg>
      <Box textAlign="left">
        <Box fontWeight="700" fontSize="15px" lineHeight="1.2">
          Dripline
        </Box>
        <Box fontSize="12px" color="soft" maxW="120px" truncate>
          {brand.name} ▾
        </Box>
      </Box>
    </Flex>
  )
  return (
    <Popover label={`Brand: ${brand.name}`} face={face} align="left">
      {(close) => (
        <Box w="290px">
          <Box fontSize="xs" color="soft" mb="1">
            Brands
          </Box>
          {brands.map((b) => (
            <chakra.button
              key={b.id}
              type="button"
              display="block"
              w="full"
              textAlign="left"
              px="2"
              py="1.5"
              borderRadius="sm"
              cursor="pointer"
              bg={b.id === brand.id ? 'waterTint' : undefined}
              fontWeight={b.id === brand.id ? '600' : '400'}
              _hover={{ bg: 'waterTint' }}
              onClick={() => {
                chooseBrand(b.id)
                close()
                void navigate('/')
              }}
            >
              {b.name}
              {b.endedAt ? ' · ended' : b.held ? ' · held' : ''}
            </chakra.button>
          ))}
          <Flex borderTopWidth="1px" borderColor="hairline" mt="3" pt="3" gap="4">
            <Link to="/settings" onClick={close}>
              <chakra.span color="waterText" textDecoration="underline" textUnderlineOffset="3px">
                All brands, and a new one
              </chakra.span>
            </Link>
            <Link to="/settings/services" onClick={close}>
              <chakra.span color="waterText" textDecoration="underline" textUnderlineOffset="3px">
                Settings
              </chakra.span>
            </Link>
          </Flex>
        </Box>
      )}
    </Popover>
  )
}

import { Box, Flex } from '@chakra-ui/react'
import { NavLink } from 'react-router'

/** The two halves of Dispatch. */
export function Tabs() {
  return (
    <Flex as="nav" aria-label="Dispatch" gap="4" px="6" pt="4">
      {(
        [
          ['/dispatch', 'Deliveries'],
          ['/dispatch/accounts', 'Accounts'],
        ] as const
      ).map(([to, words]) => (
        <NavLink key={to} to={to} end>
          {({ isActive }) => (
            <Box
              pb="1"
              fontWeight={isActive ? '700' : '400'}
              color={isActive ? 'waterText' : 'soft'}
              borderBottomWidth="2px"
              borderColor={isActive ? 'water' : 'transparent'}
            >
              {words}
            </Box>
          )}
        </NavLink>
      ))}
    </Flex>
  )
}

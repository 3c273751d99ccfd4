import { Box, Flex } from '@chakra-ui/react'
import { NavLink } from 'react-router'

/** The parts of a place that has several pages: each with its address and name. */
export function StationTabs({
  label,
  tabs,
}: {
  label: string
  tabs: readonly (readonly [string, string])[]
}) {
  return (
    <Flex as="nav" aria-label={label} gap="4" px="6" pt="4">
      {tabs.map(([to, words]) => (
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

import { Box, chakra, Flex } from '@chakra-ui/react'
import { NavLink, useLocation } from 'react-router'
import type { Numbers } from './numbers'
import { STATIONS } from './stations'

/** The drawn pipe across the top: stations in the order of the work, each with its live number. */
export function Line({ numbers }: { numbers: Numbers | null }) {
  const { pathname } = useLocation()
  return (
    <Box as="nav" aria-label="Stations" flex="1" minW="0" position="relative" h="76px">
      <Box
        position="absolute"
        left="2"
        right="2"
        top="28px"
        h="5px"
        bg="water"
        borderRadius="full"
        aria-hidden
      />
      <Flex position="relative" h="full" justify="space-between" px="6">
        {STATIONS.map((station) => {
          const current = station.path === '/' ? pathname === '/' : pathname.startsWith(station.path)
          const number = numbers?.[station.name]
          return (
            <NavLink
              key={station.name}
              to={station.path}
              style={{ textDecoration: 'none' }}
              aria-current={current ? 'page' : undefined}
            >
              <Flex
                direction="column"
                align="center"
                w="92px"
                h="76px"
                position="relative"
                color={current ? 'waterText' : 'ink'}
                className="group"
              >
                <Box fontFamily="mono" fontSize="12px" color="soft" h="20px" lineHeight="23px">
                  {number?.value ?? ''}
                </Box>
                <Box
                  w="20px"
                  h="16px"
                  mt="2px"
                  borderWidth="2px"
                  borderColor="water"
                  borderRadius="sm"
                  bg={current ? 'water' : 'raised'}
                  _groupHover={{ bg: current ? 'water' : 'waterTint' }}
                  position="relative"
                >
                  {number?.drop && (
                    <chakra.svg
                      viewBox="0 0 12 16"
                      position="absolute"
                      left="16px"
                      top="12px"
                      w="10px"
                      h="14px"
                      color="clay"
                      aria-hidden
                    >
                      <path
                        d="M6 0.5C6 0.5 1 6.5 1 10a5 5 0 0 0 10 0C11 6.5 6 0.5 6 0.5Z"
                        fill="currentColor"
                      />
                    </chakra.svg>
                  )}
                </Box>
                <Box fontSize="14px" mt="6px" fontWeight={current ? '700' : '500'}>
                  {station.name}
                  {number?.drop && <chakra.span srOnly>, needs you</chakra.span>}
                </Box>
                {current && <Box position="absolute" bottom="0" w="48px" h="3px" bg="water" />}
              </Flex>
            </NavLink>
          )
        })}
      </Flex>
    </Box>
  )
}

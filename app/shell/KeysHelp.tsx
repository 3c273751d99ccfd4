import { Box, chakra, Heading } from '@chakra-ui/react'
import { Popover } from './Popover'

const KEYS: readonly [string, readonly [string, string][]][] = [
  [
    'Everywhere',
    [
      ['1 – 7', 'go to a station'],
      ['b', 'go to the next brand'],
      ['arrows', 'move'],
      ['Enter', 'open'],
      ['/', 'search'],
      ['Esc', 'close the sheet'],
      ['Ctrl Z', 'undo'],
      ['?', 'these keys'],
    ],
  ],
  [
    'Pieces',
    [
      ['space', 'select'],
      ['d', 'start a drip'],
      ['x', 'set aside'],
      ['l', 'let through the sieve'],
      ['f', 'fold and unfold doubles'],
    ],
  ],
  [
    'Passages',
    [
      ['k x s', 'keep, leave out, put on the shelf'],
      ['] [', 'stretch or shorten its end'],
      ['{ }', 'stretch or shorten its beginning'],
      ['j', 'join with the next'],
      ['n', 'next place found'],
    ],
  ],
  [
    'Posts',
    [
      ['a', 'approve'],
      ['e', 'edit'],
      ['w', 'another wording'],
      ['p', 'another picture'],
      ['space', 'select several'],
      ['Ctrl A', 'select all'],
      ['x', 'set aside'],
    ],
  ],
  [
    'Horizon',
    [
      ['← →', 'the post before, after'],
      ['m', 'move it: arrows go through the places'],
      ['space', 'select several, in the list'],
      ['[ ]', 'earlier, later'],
      ['n', 'write a post by hand'],
    ],
  ],
  [
    'Results',
    [
      ['g', 'put together by the next thing'],
      ['s', 'the next span'],
    ],
  ],
]

/** All keys, behind a question mark. */
export function KeysHelp() {
  return (
    <Popover
      label="Keys"
      hotkey="?"
      face={
        <chakra.kbd px="2" py="1" fontSize="12px">
          ?
        </chakra.kbd>
      }
    >
      {() => (
        <>
          <Heading as="h2" fontSize="14px" fontWeight="600" mb="2">
            Keys
          </Heading>
          <Box
            display="grid"
            gridTemplateColumns="1fr 1fr"
            columnGap="6"
            rowGap="3"
            w="500px"
            fontSize="13px"
          >
            {KEYS.map(([place, keys]) => (
              <Box key={place}>
                <Box fontWeight="600" color="soft" mb="1">
                  {place}
                </Box>
                <Box as="dl" display="grid" gridTemplateColumns="68px 1fr" rowGap="1">
                  {keys.map(([key, what]) => (
                    <Box key={key} display="contents">
                      <dt>
                        <kbd>{key}</kbd>
                      </dt>
                      <dd>{what}</dd>
                    </Box>
                  ))}
                </Box>
              </Box>
            ))}
          </Box>
        </>
      )}
    </Popover>
  )
}

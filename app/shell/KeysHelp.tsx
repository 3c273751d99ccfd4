import { Box, chakra, Heading } from '@chakra-ui/react'
import { Popover } from './Popover'

const KEYS: readonly [string, string][] = [
  ['1 – 6', 'go to a station'],
  ['arrows, j k', 'move'],
  ['Enter', 'open'],
  ['Esc', 'close the sheet'],
  ['a', 'approve'],
  ['e', 'edit'],
  ['w', 'another wording'],
  ['x', 'set aside, leave out'],
  ['k', 'keep a passage'],
  ['] [', 'stretch or shorten a passage'],
  ['d', 'start a drip'],
  ['[ ]', 'earlier and later, on the Horizon'],
  ['Ctrl Z', 'undo'],
  ['?', 'these keys'],
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
            as="dl"
            display="grid"
            gridTemplateColumns="auto 1fr"
            columnGap="4"
            rowGap="1"
            w="230px"
            fontSize="13px"
          >
            {KEYS.map(([key, what]) => (
              <Box key={key} display="contents">
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{what}</dd>
              </Box>
            ))}
          </Box>
        </>
      )}
    </Popover>
  )
}

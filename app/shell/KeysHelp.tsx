import { Box, chakra } from '@chakra-ui/react'
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
  ['Ctrl Z', 'undo'],
]

/** All keys, behind a question mark. */
export function KeysHelp() {
  return (
    <Popover
      label="Keys"
      face={
        <chakra.kbd px="2" py="1" fontSize="12px">
          ?
        </chakra.kbd>
      }
    >
      {() => (
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
      )}
    </Popover>
  )
}

import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import type { Pipeline } from '../../core/model'
import { plannedOf, switchOff, switchOn, type WhenOff } from '../data'
import { attempt, Button, count, say, useKeys } from '../ui'

/** Switches a pipeline on or off; before it is off it asks what becomes of what is planned. */
export function PipelineSwitch({ pipeline }: { pipeline: Pipeline }) {
  const { id, name, brand, on } = pipeline
  const [asked, setAsked] = useState<number | null>(null)
  const off = (planned: WhenOff): void =>
    void attempt(async () => {
      const gone = await switchOff(id, planned)
      setAsked(null)
      say(
        `${name} is off; ${
          planned === 'goes'
            ? `${count(gone, 'post')} set aside`
            : planned === 'waits'
              ? 'what is planned waits until it is on again'
              : 'what is planned still goes out'
        }.`,
      )
    })
  const turn = (): void =>
    void attempt(async () => {
      if (!on) return switchOn(id)
      const planned = (await plannedOf({ table: 'pipelines', id, brand, name })).length
      if (planned === 0) await switchOff(id, 'stays')
      else setAsked(planned)
    })
  useKeys(asked === null ? {} : { Escape: () => setAsked(null) })
  return (
    <Box position="relative">
      <Switch on={on} label={`${name} is ${on ? 'on' : 'off'}`} onChange={turn} />
      {asked !== null && on && (
        <Box
          role="group"
          aria-label={`Switch ${name} off`}
          position="absolute"
          right="0"
          top="100%"
          mt="1"
          zIndex="popover"
          w="300px"
          p="3"
          fontSize="13px"
          bg="raised"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="md"
        >
          <Box mb="2">Off, it takes nothing new in. The {count(asked, 'post')} it has planned</Box>
          <Flex direction="column" gap="2" align="flex-start">
            <Button autoFocus onClick={() => off('stays')}>
              still {asked === 1 ? 'goes' : 'go'} out
            </Button>
            <Button onClick={() => off('waits')}>
              {asked === 1 ? 'waits' : 'wait'} until it is on again
            </Button>
            <Button onClick={() => off('goes')}>{asked === 1 ? 'is' : 'are'} set aside</Button>
            <Button look="quiet" hint="Esc" onClick={() => setAsked(null)}>
              Leave it on
            </Button>
          </Flex>
        </Box>
      )}
    </Box>
  )
}

/** On or off; the words beside it say which, not the colour alone. */
function Switch({ on, label, onChange }: { on: boolean; label: string; onChange: () => void }) {
  return (
    <chakra.button
      type="button"
      role="switch"
      aria-checked={on}
      aria-label={label}
      onClick={onChange}
      display="inline-flex"
      alignItems="center"
      gap="2"
      cursor="pointer"
      fontSize="13px"
    >
      <Box w="44px" h="24px" borderRadius="full" bg={on ? 'moss' : 'hatch'} position="relative">
        <Box
          position="absolute"
          top="3px"
          left={on ? '23px' : '3px'}
          w="18px"
          h="18px"
          borderRadius="full"
          bg="raised"
        />
      </Box>
      <Box w="20px" color="soft">
        {on ? 'on' : 'off'}
      </Box>
    </chakra.button>
  )
}

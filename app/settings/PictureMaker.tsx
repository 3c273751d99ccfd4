import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { MakerSettings, type MakerState } from '../../core/model'
import { connectMaker, disconnectMaker, useClock } from '../data'
import { attempt, Button, count, Labelled, Mono, NumberField, say, TextField } from '../ui'
import { STAND_IN_KEY, Service, KeyField } from './ServiceParts'

const FEW_PICTURES = 20

/** The maker of pictures to order. */
export function Maker({ state }: { state: MakerState }) {
  const { worldUrl } = useClock()
  const [address, setAddress] = useState(state.settings?.address ?? '')
  const [dailyPictures, setDaily] = useState(state.settings?.dailyPictures ?? FEW_PICTURES)
  const [key, setKey] = useState('')
  const keep = (given: string, secret: string): void => {
    const parsed = MakerSettings.safeParse({ address: given, dailyPictures })
    if (!parsed.success) say(`Not connected: ${parsed.error.issues[0]?.message ?? 'give an address'}.`)
    else void attempt(() => connectMaker(parsed.data, secret))
  }
  return (
    <Service
      title="Pictures made to order"
      about="Makes a picture from words, for one post at a time and only when you order it. The order is written from the passage and the network’s brief; you see it first and may change it. How many a day is the most is said here."
    >
      <Labelled
        label="Address"
        hint="POST …/pictures with a prompt, width and height gives an id; GET …/pictures/id says how it stands."
      >
        {(id) => (
          <TextField id={id} w="full" value={address} onChange={(e) => setAddress(e.target.value.trim())} />
        )}
      </Labelled>
      <Flex gap="3" align="flex-end">
        <Box flex="1">
          <KeyField hasKey={state.hasKey} value={key} onChange={setKey} />
        </Box>
        <NumberField label="Pictures a day, at most" w="150px" value={dailyPictures} onChange={setDaily} />
      </Flex>
      <Flex gap="2">
        <Button look="water" onClick={() => keep(address, key)}>
          {state.settings ? 'Keep' : 'Connect'}
        </Button>
        {!state.settings && worldUrl && (
          <Button
            onClick={() => {
              setAddress(`${worldUrl}/painter/v1`)
              keep(`${worldUrl}/painter/v1`, STAND_IN_KEY)
            }}
          >
            Connect the demo’s stand-in
          </Button>
        )}
        {state.settings && <Button onClick={() => void attempt(disconnectMaker)}>Disconnect</Button>}
      </Flex>
      {state.settings && <Mono>today: {count(state.pictures, 'picture')} ordered</Mono>}
    </Service>
  )
}

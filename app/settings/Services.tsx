import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { ChatSettings, ShortenerSettings, type ChatState } from '../../core/model'
import {
  connectChat,
  connectShortener,
  connectStock,
  disconnectChat,
  disconnectShortener,
  disconnectStock,
  nowIso,
  sayInChat,
  useChat,
  useClock,
  useMaker,
  useShortener,
  useStock,
  useWriter,
} from '../data'
import { attempt, Button, count, Labelled, Page, PageHead, say, TextField } from '../ui'
import { Tabs } from './Tabs'
import { STAND_IN_KEY, Service, KeyField } from './ServiceParts'
import { Maker } from './PictureMaker'
import { Writer } from './WriterService'

/** The outside services that a person connects: a writer, a shortener, a stock of pictures, a maker of pictures, the team chat. Keys stay on the server. */
export function Services() {
  const writer = useWriter()
  const shortener = useShortener()
  const stock = useStock()
  const maker = useMaker()
  const chat = useChat()
  return (
    <Page>
      <Tabs />
      <PageHead
        title="Services"
        note="Everything works without them. A key that you give here goes to the server and never comes back to the browser."
      />
      <Flex px="6" pb="8" gap="12" align="flex-start" wrap="wrap">
        <Flex direction="column" gap="10">
          {writer && <Writer state={writer} />}
          {maker && <Maker state={maker} />}
        </Flex>
        <Flex direction="column" gap="10">
          {shortener && (
            <Plain
              title="A shortener"
              about="Makes the links of posts short as they go out and counts who follows them. Captions show the long link; which brands use it is set in their house style."
              hint="POST to it with {“links”: [{“url”, “key”}]} gives a short link for each, its own for each key; GET with ?short=… gives its clicks."
              standIn="/links"
              {...shortener}
              onConnect={connectShortener}
              onDisconnect={disconnectShortener}
            />
          )}
          {stock && (
            <Plain
              title="A stock of pictures"
              about="Is searched beside a post and in the library. What is taken from it lies in the library with its author and licence; where the author has to be named, the caption does it."
              hint="GET …/search?query=…&page=… gives pictures with their files, authors and licences."
              standIn="/stock/v1"
              {...stock}
              onConnect={connectStock}
              onDisconnect={disconnectStock}
            />
          )}
          {chat && <Chat state={chat} />}
        </Flex>
      </Flex>
    </Page>
  )
}

/** A service that is known by its address and a key alone. */
function Plain({
  title,
  about,
  hint,
  standIn,
  settings,
  hasKey,
  onConnect,
  onDisconnect,
}: {
  title: string
  about: string
  hint: string
  /** Where its stand-in answers, below the address of the demo's world. */
  standIn: string
  settings: { address: string } | null
  hasKey: boolean
  onConnect: (settings: { address: string }, key: string) => Promise<void>
  onDisconnect: () => Promise<void>
}) {
  const { worldUrl } = useClock()
  const [address, setAddress] = useState(settings?.address ?? '')
  const [key, setKey] = useState('')
  const keep = (given: string, secret: string): void => {
    const parsed = ShortenerSettings.safeParse({ address: given })
    if (!parsed.success) say(`Not connected: ${parsed.error.issues[0]?.message ?? 'give an address'}.`)
    else void attempt(() => onConnect(parsed.data, secret))
  }
  return (
    <Service title={title} about={about}>
      <Labelled label="Address" hint={hint}>
        {(id) => (
          <TextField id={id} w="full" value={address} onChange={(e) => setAddress(e.target.value.trim())} />
        )}
      </Labelled>
      <KeyField hasKey={hasKey} value={key} onChange={setKey} />
      <Flex gap="2">
        <Button look="water" onClick={() => keep(address, key)}>
          {settings ? 'Keep' : 'Connect'}
        </Button>
        {!settings && worldUrl && (
          <Button
            onClick={() => {
              setAddress(`${worldUrl}${standIn}`)
              keep(`${worldUrl}${standIn}`, STAND_IN_KEY)
            }}
          >
            Connect the demo’s stand-in
          </Button>
        )}
        {settings && <Button onClick={() => void attempt(onDisconnect)}>Disconnect</Button>}
      </Flex>
    </Service>
  )
}

function Chat({ state }: { state: ChatState }) {
  const { worldUrl } = useClock()
  const [address, setAddress] = useState('')
  const keep = (given: string): void => {
    const parsed = ChatSettings.safeParse({ address: given })
    if (!parsed.success) say(`Not connected: ${parsed.error.issues[0]?.message ?? 'give an address'}.`)
    else
      void attempt(async () => {
        await connectChat(parsed.data)
        setAddress('')
      })
  }
  const greet = (): void =>
    void attempt(async () => {
      const { waiting, trouble } = await sayInChat(`greeting ${nowIso()}`, 'Dripline can speak here.')
      say(
        waiting === 0
          ? 'It was said in the chat.'
          : (trouble ?? 'The chat does not answer yet; it is tried again.'),
      )
    })
  return (
    <Service
      title="The team chat"
      about="Hears from pipelines that say so (what follows, on their bench), and from the notices that you choose. Messages wait on the server while the chat is away."
    >
      <Labelled
        label={state.host ? `Address: one at ${state.host} is kept, a new one replaces it` : 'Address'}
        hint="The secret address that a chat gives out for messages from elsewhere: POST to it with {“text”: …}. It stays on the server."
      >
        {(id) => (
          <TextField
            id={id}
            w="full"
            type="password"
            autoComplete="off"
            value={address}
            placeholder={state.host ? '••••••••' : 'https://chat.example/hooks/…'}
            onChange={(e) => setAddress(e.target.value.trim())}
          />
        )}
      </Labelled>
      <Flex gap="2" wrap="wrap">
        <Button look="water" disabled={state.host !== null && address === ''} onClick={() => keep(address)}>
          {state.host ? 'Keep' : 'Connect'}
        </Button>
        {!state.host && worldUrl && (
          <Button onClick={() => keep(`${worldUrl}/chat/hooks/workshop`)}>Connect the demo’s stand-in</Button>
        )}
        {state.host && <Button onClick={greet}>Say something</Button>}
        {state.host && <Button onClick={() => void attempt(disconnectChat)}>Disconnect</Button>}
      </Flex>
      {state.trouble && (
        <Box fontSize="13px" color="amberText">
          {state.trouble} {count(state.waiting, 'message waits', 'messages wait')}.
        </Box>
      )}
      {state.host && worldUrl && (
        <Box fontSize="13px">
          <a
            href={`${worldUrl}/chat`}
            target="_blank"
            rel="noreferrer"
            style={{ textDecoration: 'underline' }}
          >
            What the stand-in chat heard
          </a>
        </Box>
      )}
    </Service>
  )
}

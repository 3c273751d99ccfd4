import { Box, Flex, Heading } from '@chakra-ui/react'
import { useState, type ReactNode } from 'react'
import {
  ChatSettings,
  MakerSettings,
  ShortenerSettings,
  WriterSettings,
  type ChatState,
  type MakerState,
  type WriterState,
} from '../../core/model'
import {
  connectChat,
  connectMaker,
  connectShortener,
  connectStock,
  connectWriter,
  disconnectChat,
  disconnectMaker,
  disconnectShortener,
  disconnectStock,
  disconnectWriter,
  nowIso,
  sayInChat,
  tryWriter,
  useChat,
  useClock,
  useMaker,
  useShortener,
  useStock,
  useWriter,
} from '../data'
import { attempt, Button, count, Labelled, Mono, NumberField, Page, PageHead, say, TextField } from '../ui'
import { Tabs } from './Tabs'

/** The key of the stand-ins, which is no secret. */
const STAND_IN_KEY = 'workshop-key'

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

function Service({ title, about, children }: { title: string; about: string; children: ReactNode }) {
  return (
    <Box as="section" aria-label={title} w="480px" maxW="full" display="flex" flexDirection="column" gap="4">
      <Box>
        <Heading as="h2" fontSize="16px" fontWeight="600">
          {title}
        </Heading>
        <Box color="soft" fontSize="13px" mt="1">
          {about}
        </Box>
      </Box>
      {children}
    </Box>
  )
}

function KeyField({
  hasKey,
  value,
  onChange,
}: {
  hasKey: boolean
  value: string
  onChange: (key: string) => void
}) {
  return (
    <Labelled label={hasKey ? 'Key: one is kept, a new one replaces it' : 'Key, where it wants one'}>
      {(id) => (
        <TextField
          id={id}
          w="full"
          type="password"
          autoComplete="off"
          value={value}
          placeholder={hasKey ? '••••••••' : ''}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Labelled>
  )
}

const PLAIN: WriterSettings = { address: '', model: '', creativity: 0.7, length: 400, dailyWords: 200_000 }

function Writer({ state }: { state: WriterState }) {
  const { worldUrl } = useClock()
  const [settings, setSettings] = useState<WriterSettings>(state.settings ?? PLAIN)
  const [key, setKey] = useState('')
  const [answer, setAnswer] = useState<string | null>(null)
  const [asking, setAsking] = useState(false)
  const set = (change: Partial<WriterSettings>): void => setSettings({ ...settings, ...change })
  const keep = async (given = settings, secret = key): Promise<boolean> => {
    const parsed = WriterSettings.safeParse(given)
    if (!parsed.success) {
      const [issue] = parsed.error.issues
      say(`Not connected: ${issue?.message ?? 'something is missing'} (${issue?.path.join('.') ?? ''}).`)
      return false
    }
    return attempt(() => connectWriter(parsed.data, secret))
  }
  const ask = async (): Promise<void> => {
    if (!(await keep())) return
    setAsking(true)
    setAnswer(null)
    await attempt(async () => {
      const { text, milliseconds, words } = await tryWriter()
      setAnswer(
        `“${text.trim().slice(0, 300)}” (${Math.max(0.1, milliseconds / 1000).toFixed(1)} s, ${count(words, 'word')})`,
      )
    })
    setAsking(false)
  }
  const left = state.settings ? Math.max(0, state.settings.dailyWords - state.words) : 0
  return (
    <Service
      title="A connected writer"
      about="Any service that speaks the chat-completions form. It is given the brief and the passage and told to stay within them; what it answers is fitted and checked like every caption, and where it fails the built-in writer stands in and says so. Which brands it writes for is set in their house style."
    >
      <Labelled label="Address, without /chat/completions">
        {(id) => (
          <TextField
            id={id}
            w="full"
            value={settings.address}
            placeholder="https://service.example/v1"
            onChange={(e) => set({ address: e.target.value.trim() })}
          />
        )}
      </Labelled>
      <Flex gap="3">
        <Box flex="1">
          <Labelled label="Model">
            {(id) => (
              <TextField
                id={id}
                w="full"
                value={settings.model}
                onChange={(e) => set({ model: e.target.value })}
              />
            )}
          </Labelled>
        </Box>
        <Box flex="1">
          <KeyField hasKey={state.hasKey} value={key} onChange={setKey} />
        </Box>
      </Flex>
      <Flex gap="3">
        <NumberField
          label="Creativity, 0 to 2"
          max={2}
          step={0.1}
          w="110px"
          value={settings.creativity}
          onChange={(creativity) => set({ creativity })}
        />
        <NumberField
          label="Words an answer, at most"
          w="150px"
          value={settings.length}
          onChange={(length) => set({ length })}
        />
        <NumberField
          label="Words a day, at most"
          w="150px"
          value={settings.dailyWords}
          onChange={(dailyWords) => set({ dailyWords })}
        />
      </Flex>
      <Flex gap="2" align="center" wrap="wrap">
        <Button look="water" disabled={asking} onClick={() => void ask()}>
          {asking ? 'Asking …' : state.settings ? 'Keep and try' : 'Connect and try'}
        </Button>
        {!state.settings && worldUrl && (
          <Button
            onClick={() =>
              void (async () => {
                const standIn = { ...settings, address: `${worldUrl}/writer/v1`, model: 'workshop-1' }
                setSettings(standIn)
                await keep(standIn, STAND_IN_KEY)
              })()
            }
          >
            Connect the demo’s stand-in
          </Button>
        )}
        {state.settings && <Button onClick={() => void attempt(disconnectWriter)}>Disconnect</Button>}
      </Flex>
      {answer && (
        <Box role="status" fontSize="13px" borderLeftWidth="3px" borderColor="moss" pl="2">
          It answered: {answer}
        </Box>
      )}
      {state.settings && (
        <Mono>
          today: {count(state.questions, 'question')}, {state.words.toLocaleString('en')} words used,{' '}
          {left.toLocaleString('en')} left
        </Mono>
      )}
    </Service>
  )
}

const FEW_PICTURES = 20

function Maker({ state }: { state: MakerState }) {
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

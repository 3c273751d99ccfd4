import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { WriterSettings, type WriterState } from '../../core/model'
import { connectWriter, disconnectWriter, tryWriter, useClock } from '../data'
import { attempt, Button, count, Labelled, Mono, NumberField, say, TextField } from '../ui'
import { STAND_IN_KEY, Service, KeyField } from './ServiceParts'

const PLAIN: WriterSettings = { address: '', model: '', creativity: 0.7, length: 400, dailyWords: 200_000 }

/** The connected writer, and a trial of it. */
export function Writer({ state }: { state: WriterState }) {
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

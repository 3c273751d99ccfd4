import { Box } from '@chakra-ui/react'
import { Link } from 'react-router'
import { NOTICE_KINDS, type NoticeKind, type Notices } from '../../core/model'
import { saveNotices, useChat } from '../data'
import { useWork } from '../shell'
import { attempt, Labelled, Page, PageHead, say, SelectField } from '../ui'
import { Tabs } from './Tabs'

const WORDS: Readonly<Record<NoticeKind, string>> = {
  'failed posts': 'a post that was refused',
  'broken accounts': 'an account that dropped off',
  'dry pipelines': 'a pipeline that runs dry within three weeks',
  'things that wait': 'captions that wait for a yes longer than two days',
}

/** What a person is told of, and where. */
export function NoticesScreen() {
  const { workspace } = useWork()
  const chat = useChat()
  const { notices } = workspace
  const save = (change: Partial<Notices>): void => void attempt(() => saveNotices(workspace.id, change))
  const system = async (): Promise<void> => {
    if (notices.system) return save({ system: false })
    const answer = 'Notification' in window ? await Notification.requestPermission() : 'denied'
    if (answer === 'granted') save({ system: true })
    else say('The browser does not let this page notify you. Allow it in the settings of the browser first.')
  }
  return (
    <Page>
      <Tabs />
      <PageHead
        title="Notices"
        note="Everything that waits stands on the Desk. What is told beside that is told once."
      />
      <Box px="6" pb="8" maxW="620px" display="flex" flexDirection="column" gap="6">
        <Group legend="Tell me of">
          {NOTICE_KINDS.map((kind) => (
            <Tick
              key={kind}
              checked={notices.kinds.includes(kind)}
              onChange={() =>
                save({
                  kinds: NOTICE_KINDS.filter((k) => (k === kind) !== notices.kinds.includes(k)),
                })
              }
            >
              {WORDS[kind]}
            </Tick>
          ))}
        </Group>
        <Group legend="Beside the app itself">
          <Tick checked={notices.system} onChange={() => void system()}>
            as a notification of the system, while a tab of Dripline is open
          </Tick>
          <Tick
            checked={notices.chat}
            onChange={() => save({ chat: !notices.chat })}
            disabled={!notices.chat && chat?.host === null}
          >
            in the team chat; refused posts and dropped accounts also while the browser is closed
          </Tick>
          {chat?.host === null && (
            <Box fontSize="13px" color="amberText">
              No team chat is connected.{' '}
              <Link to="/settings/services" style={{ textDecoration: 'underline' }}>
                Connect one
              </Link>
            </Box>
          )}
        </Group>
        <Labelled label="And how everything stands, in the team chat at eight in the morning">
          {(id) => (
            <SelectField
              id={id}
              value={notices.summary}
              disabled={!notices.chat}
              onChange={(e) => save({ summary: e.target.value as Notices['summary'] })}
            >
              <option value="none">never</option>
              <option value="daily">every day</option>
              <option value="weekly">every Monday</option>
            </SelectField>
          )}
        </Labelled>
      </Box>
    </Page>
  )
}

function Group({ legend, children }: { legend: string; children: React.ReactNode }) {
  return (
    <Box as="fieldset">
      <Box as="legend" fontWeight="600" mb="1">
        {legend}
      </Box>
      {children}
    </Box>
  )
}

function Tick({
  checked,
  disabled = false,
  onChange,
  children,
}: {
  checked: boolean
  disabled?: boolean
  onChange: () => void
  children: React.ReactNode
}) {
  return (
    <Box as="label" display="flex" gap="2" alignItems="center" py="1" color={disabled ? 'soft' : undefined}>
      <input type="checkbox" checked={checked} disabled={disabled} onChange={onChange} />
      {children}
    </Box>
  )
}

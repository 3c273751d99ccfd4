import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useRef, useState } from 'react'
import { inWords } from '../../core/text'
import {
  addBrands,
  canWriteFolders,
  chooseWeekly,
  clockNow,
  download,
  exportBundle,
  handOverAhead,
  importBundle,
  restartDemo,
  useClock,
} from '../data'
import useSWR from 'swr'
import {
  attempt,
  Button,
  distance,
  Labelled,
  Notice,
  Page,
  PageHead,
  say,
  SelectField,
  TextField,
  useTyped,
} from '../ui'
import { useWork } from '../shell'
import { Tabs } from './Tabs'

const WEEK = 7 * 86_400_000

/** Everything in this browser as a file: how old the last bundle is, making one, and reading one in. */
export function WorkspaceScreen() {
  const { workspace } = useWork()
  const { demo } = useClock()
  const file = useRef<HTMLInputElement>(null)
  const [chosen, setChosen] = useState<File | null>(null)
  const kept = useSWR('persisted', () => navigator.storage?.persisted?.() ?? Promise.resolve(false)).data
  const old = workspace.lastBundleAt === null || clockNow() - Date.parse(workspace.lastBundleAt) > WEEK
  const make = async (): Promise<void> => {
    download(await exportBundle())
    say('The bundle was made. Keep it somewhere other than this machine.')
  }
  return (
    <Page>
      <Tabs />
      <PageHead
        title="Workspace and bundle"
        note="Your work lives in this browser. A bundle is all of it in one file, without tokens or keys."
      />
      <Box px="6" maxW="680px" display="flex" flexDirection="column" gap="5">
        <Notice
          tone={old ? 'amber' : 'moss'}
          action={
            <Button look="water" onClick={() => void attempt(make)}>
              Make a bundle
            </Button>
          }
        >
          {workspace.lastBundleAt === null
            ? 'No bundle has been made yet.'
            : `The last bundle was made ${distance(workspace.lastBundleAt, clockNow())}.`}{' '}
          {kept === false ? 'The browser has not promised to keep its storage, so make one each week.' : ''}
        </Notice>
        <Labelled label="And one by itself each week">
          {(id) => (
            <SelectField
              id={id}
              value={workspace.weeklyBundle}
              onChange={(e) =>
                void attempt(() =>
                  chooseWeekly(workspace.id, e.target.value as typeof workspace.weeklyBundle),
                )
              }
            >
              <option value="off">no</option>
              <option value="download">as a download</option>
              {canWriteFolders() && <option value="folder">into a folder you choose</option>}
            </SelectField>
          )}
        </Labelled>
        <Box borderTopWidth="1px" borderColor="hairline" pt="4">
          <Heading as="h2" fontSize="16px" fontWeight="600">
            Read a bundle in
          </Heading>
          <Box color="soft" mt="1" mb="3">
            It is checked whole first, and then replaces everything here, or its brands come in beside yours.
            In another workspace, posts that were handed over come back held, so that nothing is published
            twice.
          </Box>
          <chakra.input
            ref={file}
            type="file"
            accept=".zip"
            aria-label="A bundle file"
            onChange={(e) => setChosen(e.target.files?.[0] ?? null)}
          />
          {chosen && (
            <Flex
              role="alertdialog"
              aria-label="Read a bundle in"
              mt="3"
              gap="3"
              align="center"
              wrap="wrap"
              borderWidth="1px"
              borderColor="clay"
              borderRadius="md"
              p="3"
            >
              <Box flex="1" minW="220px">
                Replace everything here by <b>{chosen.name}</b>, which cannot be undone, or take in the brands
                that are in it?
              </Box>
              <Button
                look="water"
                onClick={() =>
                  void attempt(async () => {
                    const names = await addBrands(new Uint8Array(await chosen.arrayBuffer()), workspace.id)
                    setChosen(null)
                    say(`${inWords(names)} came in beside the others.`)
                  })
                }
              >
                Take its brands in
              </Button>
              <Button
                look="clay"
                onClick={() =>
                  void attempt(async () => {
                    await importBundle(new Uint8Array(await chosen.arrayBuffer()), workspace.id)
                    setChosen(null)
                    say('The bundle was read in.')
                  })
                }
              >
                Replace everything
              </Button>
              <Button
                onClick={() => {
                  setChosen(null)
                  if (file.current) file.current.value = ''
                }}
              >
                Leave it
              </Button>
            </Flex>
          )}
        </Box>
        <Closed id={workspace.id} days={workspace.aheadDays} />
        {demo && (
          <Box borderTopWidth="1px" borderColor="hairline" pt="4">
            <Heading as="h2" fontSize="16px" fontWeight="600">
              The demo
            </Heading>
            <Box color="soft" mt="1" mb="3">
              Starting again sets the clock back to the present and empties the stand-in world. Brands you
              made here go too.
            </Box>
            <Button look="clay" onClick={() => void attempt(restartDemo)}>
              Start the demo again
            </Button>
          </Box>
        )}
      </Box>
    </Page>
  )
}

/** What goes on while the browser is closed: of how many days to come posts lie on the server. */
function Closed({ id, days }: { id: string; days: number }) {
  const [text, setText] = useTyped(String(days))
  const keep = (): void => {
    const next = Math.round(Number(text))
    if (next >= 1 && next <= 400) void attempt(() => handOverAhead(id, next))
    else setText(String(days))
  }
  return (
    <Box borderTopWidth="1px" borderColor="hairline" pt="4">
      <Heading as="h2" fontSize="16px" fontWeight="600">
        While the browser is closed
      </Heading>
      <Box color="soft" mt="1" mb="3">
        The server publishes what was handed over, goes on visiting the feeds, and tells the team chat what
        fails. Posts of later days are handed over as their days come near.
      </Box>
      <Labelled label="Days to come that are handed over, 1 to 400">
        {(field) => (
          <TextField
            id={field}
            type="number"
            min={1}
            max={400}
            w="110px"
            value={text}
            onChange={(e) => setText(e.target.value)}
            onBlur={keep}
            onKeyDown={(e) => e.key === 'Enter' && keep()}
          />
        )}
      </Labelled>
    </Box>
  )
}

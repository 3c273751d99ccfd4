import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { Gate, Pipeline } from '../../core/model'
import { network } from '../../core/networks'
import {
  removePipeline,
  savePipeline,
  switchPipeline,
  clockNow,
  nowIso,
  useRow,
  useOpenAccounts,
  useRows,
} from '../data'
import { EndedNotice, Holding, useWork } from '../shell'
import {
  attempt,
  Button,
  distance,
  Empty,
  NetworkMark,
  Notice,
  Page,
  SelectField,
  TextField,
  RhythmPicker,
} from '../ui'
import { Sieve } from './Sieve'
import { Switch } from './Switch'
import { WorkedExample } from './WorkedExample'

const GATES: readonly [Gate, string][] = [
  ['everything', 'hold everything for me'],
  ['what is flagged', 'hold what is flagged'],
  ['nothing', 'hold nothing, even what is flagged'],
]

/** The bench of one pipeline: take in, make, release, and a real piece travelling through. */
export function Bench() {
  const { id = '' } = useParams()
  const pipeline = useRow('pipelines', id)
  if (pipeline === undefined) return <Page>{null}</Page>
  if (pipeline === null)
    return (
      <Page>
        <Box px="6">
          <Empty title="This pipeline is no longer here">It was removed; Ctrl Z brings it back.</Empty>
        </Box>
      </Page>
    )
  return (
    <Flex flex="1" minH="0">
      <Box
        as="main"
        w="560px"
        maxW="50%"
        overflowY="auto"
        px="6"
        py="5"
        borderRightWidth="1px"
        borderColor="hairline"
      >
        <Settings key={pipeline.id} pipeline={pipeline} />
      </Box>
      <Box flex="1" minW="0" overflowY="auto" bg="raised" as="section" aria-label="Worked example">
        <WorkedExample pipeline={pipeline} />
      </Box>
    </Flex>
  )
}

function Settings({ pipeline }: { pipeline: Pipeline }) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const sources = useRows('sources', 'brand', brand.id) ?? []
  const accounts = useOpenAccounts(brand.id) ?? []
  const [name, setName] = useState(pipeline.name)
  const save = (change: Partial<Pipeline>, label: string): void =>
    void attempt(() => savePipeline(pipeline, change, label))
  const toggle = (list: readonly string[], id: string): string[] =>
    list.includes(id) ? list.filter((x) => x !== id) : [...list, id]
  const what = { table: 'pipelines' as const, id: pipeline.id, brand: brand.id, name: pipeline.name }
  const old = pipeline.since < '1971'
  const incomplete =
    (pipeline.sources.length === 0 && pipeline.groups.length === 0) || pipeline.accounts.length === 0
  return (
    <Flex direction="column" gap="4">
      <Flex justify="space-between" gap="3" align="flex-start">
        <Box flex="1">
          <TextField
            aria-label="The pipeline’s name"
            fontSize="20px"
            fontWeight="700"
            h="9"
            w="full"
            borderColor="transparent"
            bg="transparent"
            ml="-2"
            value={name}
            onChange={(e) => setName(e.target.value)}
            onBlur={() =>
              name.trim() && name !== pipeline.name && save({ name: name.trim() }, 'Rename a pipeline')
            }
          />
          <Box fontSize="13px" color="soft">
            Version {pipeline.version}, saved {distance(pipeline.savedAt, clockNow())}
          </Box>
        </Box>
        {!pipeline.endedAt && (
          <Switch
            on={pipeline.on}
            label={`${pipeline.name} is ${pipeline.on ? 'on' : 'off'}`}
            onChange={(on) => void attempt(() => switchPipeline(pipeline.id, on))}
          />
        )}
      </Flex>
      {incomplete && (
        <Notice tone="amber">
          {pipeline.sources.length === 0 && pipeline.groups.length === 0
            ? 'It has no source, so it takes nothing in.'
            : 'It has no account, so it releases nothing.'}
        </Notice>
      )}
      <EndedNotice name={pipeline.name} endedAt={pipeline.endedAt} />
      {pipeline.held && <Notice tone="clay">This pipeline is held; nothing of it goes out.</Notice>}
      <Part title="Take in">
        <Box>Pieces from</Box>
        {sources.map((s) => (
          <Check
            key={s.id}
            checked={pipeline.sources.includes(s.id)}
            onChange={() => save({ sources: toggle(pipeline.sources, s.id) }, 'Change a pipeline’s sources')}
          >
            {s.title}
          </Check>
        ))}
        {[...new Set(sources.flatMap((s) => s.group ?? []))].map((g) => (
          <Check
            key={g}
            checked={pipeline.groups.includes(g)}
            onChange={() => save({ groups: toggle(pipeline.groups, g) }, 'Change a pipeline’s sources')}
          >
            everything in the group {g}
          </Check>
        ))}
        {sources.length === 0 && <Box color="soft">No source yet; add one under Intake.</Box>}
        <Flex align="center" gap="2" mt="2">
          What was there before:
          <SelectField
            aria-label="What was there before"
            value={old ? 'all' : 'new'}
            onChange={(e) =>
              save(
                { since: e.target.value === 'all' ? '1970-01-01T00:00:00.000Z' : nowIso() },
                'Change a pipeline’s backlog',
              )
            }
          >
            <option value="new">nothing, only new pieces</option>
            <option value="all">everything that waits, oldest first</option>
          </SelectField>
        </Flex>
        {old && (
          <Box fontSize="13px" color="amberText" mt="1">
            A long backlog fills the schedule with old pieces. That is right for your own evergreen blog, and
            for little else.
          </Box>
        )}
        <Sieve pipeline={pipeline} onSave={(sieve, label) => save({ sieve }, label)} />
      </Part>
      <Part title="Make">
        <Box>
          The best passages of each piece, varied, in the angles they carry; captions by Dripline’s writer in
          the{' '}
          <chakra.button
            type="button"
            onClick={() => void navigate('/writing/house')}
            textDecoration="underline"
            textDecorationColor="water"
            textUnderlineOffset="3px"
            fontWeight="600"
            cursor="pointer"
          >
            house style
          </chakra.button>
          ; pictures from the piece.
        </Box>
      </Part>
      <Part title="Release">
        <Box>To</Box>
        {accounts.map((a) => (
          <Check
            key={a.id}
            checked={pipeline.accounts.includes(a.id)}
            onChange={() =>
              save({ accounts: toggle(pipeline.accounts, a.id) }, 'Change a pipeline’s accounts')
            }
          >
            <Flex as="span" gap="2" align="center" display="inline-flex">
              <NetworkMark id={a.network} /> @{a.handle}{' '}
              <chakra.span color="soft">{network(a.network).name}</chakra.span>
            </Flex>
          </Check>
        ))}
        {accounts.length === 0 && <Box color="soft">No account yet; link one under Dispatch.</Box>}
        <Box mt="3">
          <RhythmPicker
            value={pipeline.rhythm}
            onChange={(rhythm) => save({ rhythm }, 'Change a pipeline’s rhythm')}
          />
        </Box>
        <Flex align="center" gap="2" mt="3">
          Gate:
          <SelectField
            aria-label="Gate"
            value={pipeline.gate}
            onChange={(e) => save({ gate: e.target.value as Gate }, 'Change a pipeline’s gate')}
          >
            {GATES.map(([gate, words]) => (
              <option key={gate} value={gate}>
                {words}
              </option>
            ))}
          </SelectField>
        </Flex>
        <Flex align="center" gap="2" mt="3" wrap="wrap">
          Only from
          <TextField
            type="date"
            aria-label="First day of the run window"
            value={pipeline.window.from ?? ''}
            onChange={(e) =>
              save({ window: { ...pipeline.window, from: e.target.value || null } }, 'Change a run window')
            }
          />
          to
          <TextField
            type="date"
            aria-label="Last day of the run window"
            value={pipeline.window.to ?? ''}
            min={pipeline.window.from ?? undefined}
            onChange={(e) =>
              save({ window: { ...pipeline.window, to: e.target.value || null } }, 'Change a run window')
            }
          />
        </Flex>
        <Flex align="center" gap="2" mt="3">
          Where places are few, its posts come
          <SelectField
            aria-label="Priority"
            value={Math.sign(pipeline.priority)}
            onChange={(e) => save({ priority: Number(e.target.value) }, 'Change a pipeline’s priority')}
          >
            <option value={1}>before others</option>
            <option value={0}>like all others</option>
            <option value={-1}>after others</option>
          </SelectField>
        </Flex>
        {pipeline.gate === 'nothing' && (
          <Box fontSize="13px" color="amberText" mt="1">
            Captions go out unread, also those with a doubtful number or name. Only what breaks a rule is
            still held.
          </Box>
        )}
      </Part>
      <Flex gap="2">
        <Holding what={what} held={pipeline.held} endedAt={pipeline.endedAt} align="left" />
        <Button
          look="quiet"
          onClick={() =>
            void attempt(async () => {
              await removePipeline(pipeline.id)
              void navigate('/pipelines')
            })
          }
        >
          Remove
        </Button>
      </Flex>
    </Flex>
  )
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box borderTopWidth="1px" borderColor="hairline" pt="3" lineHeight="1.6">
      <Heading as="h2" fontSize="14px" fontWeight="700" color="waterText" mb="1">
        {title}
      </Heading>
      {children}
    </Box>
  )
}

function Check({
  checked,
  onChange,
  children,
}: {
  checked: boolean
  onChange: () => void
  children: React.ReactNode
}) {
  return (
    <chakra.label display="flex" gap="2" alignItems="center" py="0.5" cursor="pointer">
      <input type="checkbox" checked={checked} onChange={onChange} />
      {children}
    </chakra.label>
  )
}

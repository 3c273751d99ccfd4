import { Box, Flex } from '@chakra-ui/react'
import { useNavigate, useParams } from 'react-router'
import { asEdited, type Pipeline } from '../../core/model'
import { writePipeline } from '../../core/formats'
import { releasedTo } from '../../core/pipeline'
import {
  download,
  removePipeline,
  savePipeline,
  clockNow,
  type PipelineChange,
  useRow,
  useOpenAccounts,
  useRows,
} from '../data'
import { EndedNotice, Holding, useWork } from '../shell'
import { attempt, Button, distance, Empty, fileName, Notice, Page, TextField, useTyped } from '../ui'
import { FollowsPart } from './bench/FollowsPart'
import { LimitsPart } from './bench/LimitsPart'
import { LookedBack } from './bench/LookedBack'
import { MakePart } from './bench/MakePart'
import { ReleasePart } from './bench/ReleasePart'
import { Runs } from './bench/Runs'
import { TakeInPart } from './bench/TakeInPart'
import { Draft, Versions } from './bench/Versions'
import { PipelineSwitch } from './Switch'
import { useSieveTrial, type Trial } from './useSieveTrial'
import { WorkedExample } from './WorkedExample'

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
  return <OpenBench key={pipeline.id} kept={pipeline} />
}

function OpenBench({ kept }: { kept: Pipeline }) {
  const pipeline = asEdited(kept)
  const trial = useSieveTrial(pipeline)
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
        <Settings kept={kept} pipeline={pipeline} trial={trial} />
      </Box>
      <Box flex="1" minW="0" overflowY="auto" bg="raised" as="section" aria-label="Worked example">
        <WorkedExample pipeline={pipeline} trial={trial} />
      </Box>
    </Flex>
  )
}

function Settings({
  kept,
  pipeline,
  trial,
}: {
  kept: Pipeline
  /** The same with what was changed and waits to be put to work. */
  pipeline: Pipeline
  trial: Trial | null
}) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const sources = useRows('sources', 'brand', brand.id) ?? []
  const lists = useRows('wordLists', 'brand', brand.id) ?? []
  const others = (useRows('pipelines', 'brand', brand.id) ?? []).filter((p) => p.id !== pipeline.id)
  const accounts = useOpenAccounts(brand.id) ?? []
  const [name, setName] = useTyped(pipeline.name)
  const save = (change: PipelineChange, label: string): void =>
    void attempt(() => savePipeline(pipeline, change, label))
  const what = { table: 'pipelines' as const, id: pipeline.id, brand: brand.id, name: pipeline.name }
  const fed = others.some((p) => p.follows.some((f) => f.kind === 'pipeline' && f.pipeline === pipeline.id))
  const noSource = pipeline.takeIn.sources.length === 0 && pipeline.takeIn.groups.length === 0 && !fed
  const released = releasedTo(pipeline, accounts)
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
        {!pipeline.endedAt && <PipelineSwitch pipeline={pipeline} />}
      </Flex>
      {(noSource || released.length === 0) && (
        <Notice tone="amber">
          {noSource
            ? 'It has no source, so it takes nothing in.'
            : 'It has no account, so it releases nothing.'}
        </Notice>
      )}
      <EndedNotice name={pipeline.name} endedAt={pipeline.endedAt} />
      {pipeline.held && <Notice tone="clay">This pipeline is held; nothing of it goes out.</Notice>}
      <Draft pipeline={kept} accounts={accounts} />
      <TakeInPart pipeline={pipeline} sources={sources} trial={trial} onSave={save} />
      <MakePart pipeline={pipeline} brand={brand} accounts={released} onSave={save} />
      <ReleasePart pipeline={pipeline} accounts={accounts} sources={sources} lists={lists} onSave={save} />
      <LimitsPart pipeline={pipeline} onSave={save} />
      <FollowsPart pipeline={pipeline} others={others.filter((p) => p.endedAt === null)} onSave={save} />
      {trial && (
        <LookedBack pipeline={pipeline} accounts={accounts} sources={sources} context={trial.context} />
      )}
      <Runs pipeline={pipeline} />
      <Versions pipeline={kept} />
      <Flex gap="2">
        <Button
          onClick={() =>
            download(
              new Blob([writePipeline(pipeline, { accounts, sources, lists, pipelines: others })], {
                type: 'application/json',
              }),
              `${fileName(pipeline.name)}.pipeline.json`,
            )
          }
        >
          Save as a file
        </Button>
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

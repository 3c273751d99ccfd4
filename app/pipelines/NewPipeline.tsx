import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { nanoid } from 'nanoid'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import {
  matchingFor,
  pipelineOf,
  readPipeline,
  STARTERS,
  type Matching,
  type PipelineFile,
} from '../../core/formats'
import type { Account, Pipeline, Source, WordList } from '../../core/model'
import { network } from '../../core/networks'
import { timingWords } from '../../core/pipeline'
import { inWords } from '../../core/text'
import { addPipeline, nowIso, useOpenAccounts, useRows } from '../data'
import { useWork } from '../shell'
import { attempt, Button, FileButton, Labelled, NetworkMark, Page, PageHead, TextField } from '../ui'
import { Check } from './bench/parts'
import { toggled } from './rules/fields'

/** A pipeline is begun from one of those that ship, or from a file; the brand's accounts and sources are put in its places. */
export function NewPipeline() {
  const { brand } = useWork()
  const accounts = useOpenAccounts(brand.id)
  const sources = useRows('sources', 'brand', brand.id)
  const lists = useRows('wordLists', 'brand', brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const [file, setFile] = useState<PipelineFile | null>(null)
  if (!accounts || !sources || !lists || !pipelines) return <Page>{null}</Page>
  return (
    <Flex flex="1" minH="0">
      <Box as="main" flex="1" minW="0" overflowY="auto">
        <PageHead
          title="Make a pipeline"
          note="Begin with what comes nearest; everything can be changed on the bench before it is switched on."
        >
          <FileButton
            accept=".json,application/json"
            label="A pipeline’s file"
            onFile={(chosen) => void attempt(async () => setFile(readPipeline(await chosen.text())))}
          >
            From a file …
          </FileButton>
        </PageHead>
        <Box px="6" pb="8" display="grid" gridTemplateColumns="repeat(auto-fill, minmax(270px, 1fr))" gap="3">
          {STARTERS.map((starter) => (
            <chakra.button
              key={starter.name}
              type="button"
              aria-pressed={file === starter}
              onClick={() => setFile(starter)}
              display="flex"
              flexDirection="column"
              justifyContent="flex-start"
              textAlign="left"
              p="4"
              bg={file === starter ? 'waterTint' : 'raised'}
              borderWidth="1px"
              borderColor={file === starter ? 'water' : 'hairline'}
              borderRadius="md"
              cursor="pointer"
              _hover={{ bg: 'waterTint' }}
            >
              <Box fontWeight="700" fontSize="15px" mb="1">
                {starter.name}
              </Box>
              <Box lineHeight="1.45">{starter.about}</Box>
              <Box color="soft" fontSize="13px" mt="2">
                {[...new Set(starter.recipe.release.map((r) => timingWords(r.by)))].join(' · ')} · holds{' '}
                {starter.recipe.gate}
              </Box>
            </chakra.button>
          ))}
        </Box>
      </Box>
      {file && (
        <Box
          as="aside"
          aria-label={file.name}
          w="400px"
          flexShrink={0}
          overflowY="auto"
          bg="raised"
          borderLeftWidth="1px"
          borderColor="hairline"
        >
          <MatchForm
            key={`${file.name} ${file.about}`}
            file={file}
            accounts={accounts}
            sources={sources}
            lists={lists}
            pipelines={pipelines}
            onClose={() => setFile(null)}
          />
        </Box>
      )}
    </Flex>
  )
}

/** Which of the brand's accounts and sources stand in the places of a file. */
function MatchForm({
  file,
  accounts,
  sources,
  lists,
  pipelines,
  onClose,
}: {
  file: PipelineFile
  accounts: readonly Account[]
  sources: readonly Source[]
  lists: readonly WordList[]
  pipelines: readonly Pipeline[]
  onClose: () => void
}) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [name, setName] = useState(file.name)
  const [matching, setMatching] = useState<Matching>(() =>
    matchingFor(file, { accounts, sources, pipelines }),
  )
  const choose = (part: 'accounts' | 'sources', key: string, id: string): void =>
    setMatching({ ...matching, [part]: { ...matching[part], [key]: toggled(matching[part][key] ?? [], id) } })
  const make = (): void =>
    void attempt(async () => {
      const made = pipelineOf(file, matching, {
        id: nanoid(),
        brand: brand.id,
        name: name.trim() || file.name,
        now: nowIso(),
        newId: nanoid,
        lists,
      })
      await addPipeline(made.pipeline, made.lists)
      void navigate(`/pipelines/${made.pipeline.id}`)
    })
  return (
    <chakra.form
      p="5"
      display="flex"
      flexDirection="column"
      gap="5"
      onSubmit={(e: React.FormEvent) => {
        e.preventDefault()
        make()
      }}
    >
      <Heading as="h2" fontSize="18px" fontWeight="700">
        {file.name}
      </Heading>
      <Labelled label="Its name">
        {(id) => <TextField id={id} w="full" value={name} onChange={(e) => setName(e.target.value)} />}
      </Labelled>
      {file.sources.map(({ key, words, kind }) => (
        <Places key={key} words={words} none="No source yet; one can be chosen later.">
          {sources
            .filter((s) => kind === null || s.kind === kind || matching.sources[key]?.includes(s.id))
            .map((s) => (
              <Check
                key={s.id}
                checked={matching.sources[key]?.includes(s.id) ?? false}
                onChange={() => choose('sources', key, s.id)}
              >
                {s.title}
              </Check>
            ))}
        </Places>
      ))}
      {file.accounts.map(({ key, words, networks }) => (
        <Places
          key={key}
          words={words}
          none={`No account${
            networks.length
              ? ` on ${inWords(
                  networks.map((n) => network(n).name),
                  'or',
                )}`
              : ''
          } yet; one can be chosen later.`}
        >
          {accounts
            .filter((a) => networks.length === 0 || networks.includes(a.network))
            .map((a) => (
              <Check
                key={a.id}
                checked={matching.accounts[key]?.includes(a.id) ?? false}
                onChange={() => choose('accounts', key, a.id)}
              >
                <NetworkMark id={a.network} /> @{a.handle}{' '}
                <chakra.span color="soft">{network(a.network).name}</chakra.span>
              </Check>
            ))}
        </Places>
      ))}
      {file.pipelines.map(({ key, words }) => (
        <Places
          key={key}
          words={`it hands on to “${words}”`}
          none="There is no pipeline yet that could take over."
        >
          {pipelines.map((p) => (
            <Check
              key={p.id}
              checked={matching.pipelines[key]?.includes(p.id) ?? false}
              onChange={() =>
                setMatching({
                  ...matching,
                  // One takes over, or none.
                  pipelines: {
                    ...matching.pipelines,
                    [key]: matching.pipelines[key]?.includes(p.id) ? [] : [p.id],
                  },
                })
              }
            >
              {p.name}
            </Check>
          ))}
        </Places>
      ))}
      <Flex gap="2" justify="flex-end">
        <Button type="button" onClick={onClose}>
          Not this one
        </Button>
        <Button type="submit" look="water">
          Make it, switched off
        </Button>
      </Flex>
    </chakra.form>
  )
}

function Places({ words, none, children }: { words: string; none: string; children: React.ReactNode[] }) {
  return (
    <Box as="fieldset">
      <chakra.legend fontSize="13px" fontWeight="600" mb="1">
        {words.slice(0, 1).toUpperCase() + words.slice(1)}
      </chakra.legend>
      {children.length ? children : <Box color="soft">{none}</Box>}
    </Box>
  )
}

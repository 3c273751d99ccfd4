import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { asEdited, recipeOf, type Account, type Pipeline } from '../../../core/model'
import { differs } from '../../../core/pipeline'
import { dropDraft, goBack, putToWork, workDifference } from '../../data'
import { MovesBeside } from '../../dispatch'
import { useWork } from '../../shell'
import { attempt, Button, count, moment, Mono, say } from '../../ui'
import { named, Part } from './parts'

/** While a pipeline runs, what was changed waits here: what it would do to the posts that are planned, and putting it to work. */
export function Draft({ pipeline, accounts }: { pipeline: Pipeline; accounts: readonly Account[] }) {
  const [open, setOpen] = useState(false)
  const [aside, setAside] = useState(false)
  const { draft } = pipeline
  const { data } = useSWR(
    open && draft ? ['put to work', pipeline.id, JSON.stringify(draft)] : null,
    () => workDifference(pipeline.id),
    { revalidateOnFocus: false },
  )
  if (!draft) return null
  const going = aside ? (data?.unreleased ?? []) : []
  const start = (): void =>
    void attempt(async () => {
      await putToWork(pipeline.id, data?.moves ?? [], going)
      setOpen(false)
      say(`${pipeline.name} runs as it was changed.`)
    })
  return (
    <Box
      role="region"
      aria-label="What was changed"
      borderWidth="1px"
      borderColor="amber"
      borderRadius="md"
      px="4"
      py="3"
      bg="raised"
    >
      <Flex gap="3" align="center" wrap="wrap">
        <Box flex="1" minW="220px">
          Version {pipeline.version} runs. Changed since:{' '}
          {named(differs(recipeOf(pipeline), draft), 'nothing')}.
        </Box>
        {!open && (
          <Button look="water" onClick={() => setOpen(true)}>
            Put to work …
          </Button>
        )}
        <Button look="quiet" onClick={() => void attempt(() => dropDraft(pipeline.id))}>
          Drop the changes
        </Button>
      </Flex>
      {open && (
        <Box mt="2" fontSize="13px">
          {!data ? (
            <Box color="soft">Looking at what is planned …</Box>
          ) : (
            <>
              <MovesBeside
                moves={data.moves}
                zoneOf={(id) => accounts.find((a) => a.id === id)?.zone ?? 'UTC'}
                more=" What is planned keeps its words; pieces that are taken in from now on follow the changes."
              />
              {data.unreleased.length > 0 && (
                <label>
                  <input type="checkbox" checked={aside} onChange={(e) => setAside(e.target.checked)} /> set
                  aside {count(data.unreleased.length, 'post')} planned for accounts to which it would release
                  no more
                </label>
              )}
              <Flex gap="2" mt="2">
                <Button look="water" onClick={start}>
                  Put to work
                </Button>
                <Button onClick={() => setOpen(false)}>Not yet</Button>
              </Flex>
            </>
          )}
        </Box>
      )}
    </Box>
  )
}

/** The versions that ran, each with what it changed; one goes back to any of them. */
export function Versions({ pipeline }: { pipeline: Pipeline }) {
  const { brand } = useWork()
  const { versions } = pipeline
  if (versions.length < 2) return null
  const now = recipeOf(asEdited(pipeline))
  return (
    <Part title="Versions">
      {[...versions.entries()].reverse().map(([index, { version, at, recipe }]) => {
        const before = versions[index - 1]
        const isNow = differs(recipe, now).length === 0
        return (
          <Flex key={version} gap="3" py="1" align="baseline" borderBottomWidth="1px" borderColor="hairline">
            <Mono w="24px">{version}</Mono>
            <Mono w="110px" flexShrink={0}>
              {moment(at, brand.zone)}
            </Mono>
            <Box flex="1" minW="0">
              {before ? named(differs(before.recipe, recipe), 'as before') : 'the first that ran'}
            </Box>
            {isNow ? (
              <Box color="soft" fontSize="13px">
                as it is now
              </Box>
            ) : (
              <Button size="sm" look="quiet" onClick={() => void attempt(() => goBack(pipeline.id, version))}>
                Go back to it
              </Button>
            )}
          </Flex>
        )
      })}
    </Part>
  )
}

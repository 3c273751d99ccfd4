import { Box, chakra, Flex } from '@chakra-ui/react'
import { nanoid } from 'nanoid'
import { useState } from 'react'
import type { Account, Pipeline, ReleaseRow, Source, WordList } from '../../../core/model'
import { accountsOf, piecesWords, timingWords } from '../../../core/pipeline'
import { TRICKLE } from '../../../core/planning'
import type { PipelineChange } from '../../data'
import { Button } from '../../ui'
import { named, Part } from './parts'
import { RowEditor } from './RowEditor'

/** The release of a pipeline as a small table: for which pieces, to whom, by what. A row opens to its fields. */
export function ReleasePart({
  pipeline,
  accounts,
  sources,
  lists,
  onSave,
}: {
  pipeline: Pipeline
  accounts: readonly Account[]
  sources: readonly Source[]
  lists: readonly WordList[]
  onSave: (change: PipelineChange, label: string) => void
}) {
  const [open, setOpen] = useState<string | null>(null)
  const rows = pipeline.release
  const keep = (release: ReleaseRow[], label: string): void => onSave({ release }, label)
  const change = (id: string, next: Partial<ReleaseRow>): void =>
    keep(
      rows.map((r) => (r.id === id ? { ...r, ...next } : r)),
      'Change a row of a release',
    )
  const move = (index: number, by: number): void => {
    const next = [...rows]
    const [row] = next.splice(index, 1)
    if (row) next.splice(index + by, 0, row)
    keep(next, 'Move a row of a release')
  }
  const add = (): void => {
    const row: ReleaseRow = {
      id: nanoid(),
      pieces: { kind: rows.length ? 'rest' : 'all' },
      format: null,
      accounts: [],
      groups: [],
      by: { kind: 'rhythm', rhythm: TRICKLE },
      again: null,
    }
    keep([...rows, row], 'Add a row to a release')
    setOpen(row.id)
  }
  return (
    <Part title="Release">
      <Box role="table" aria-label="Release">
        <Box
          role="row"
          display="grid"
          gridTemplateColumns={COLUMNS}
          gap="3"
          fontSize="13px"
          color="soft"
          borderBottomWidth="1px"
          borderColor="hairline"
        >
          {['', 'for pieces that', 'to', 'by'].map((head) => (
            <Box role="columnheader" key={head}>
              {head}
            </Box>
          ))}
        </Box>
        {rows.map((row, index) => {
          const to = accountsOf(row, accounts)
          const isOpen = open === row.id
          return (
            <Box
              key={row.id}
              borderBottomWidth="1px"
              borderColor="hairline"
              bg={isOpen ? 'waterTint' : undefined}
            >
              <chakra.div
                role="row"
                display="grid"
                gridTemplateColumns={COLUMNS}
                gap="3"
                py="1.5"
                fontSize="14px"
                lineHeight="1.45"
              >
                <Box role="cell">
                  <chakra.button
                    type="button"
                    aria-expanded={isOpen}
                    aria-label={`Row ${index + 1}`}
                    onClick={() => setOpen(isOpen ? null : row.id)}
                    cursor="pointer"
                    fontWeight="600"
                    color="waterText"
                  >
                    {index + 1} {isOpen ? '▴' : '▾'}
                  </chakra.button>
                </Box>
                <Box role="cell">{piecesWords(row, sources)}</Box>
                <Box role="cell" color={to.length ? undefined : 'amberText'}>
                  {named(
                    to.map((a) => `@${a.handle}`),
                    'no account yet',
                  )}
                  {row.format ? `, as a ${row.format} where it can` : ''}
                </Box>
                <Box role="cell">
                  {timingWords(row.by)}
                  {row.again ? `; again after ${row.again.days} days` : ''}
                </Box>
              </chakra.div>
              {isOpen && (
                <Box role="row">
                  <Box role="cell" px="3" pb="3">
                    <RowEditor
                      row={row}
                      first={index === 0}
                      accounts={accounts}
                      sources={sources}
                      lists={lists}
                      brand={pipeline.brand}
                      onChange={(next) => change(row.id, next)}
                    />
                    <Flex gap="2" mt="3">
                      <Button size="sm" disabled={index === 0} onClick={() => move(index, -1)}>
                        Move up
                      </Button>
                      <Button size="sm" disabled={index === rows.length - 1} onClick={() => move(index, 1)}>
                        Move down
                      </Button>
                      <Button
                        size="sm"
                        look="quiet"
                        disabled={rows.length === 1}
                        onClick={() =>
                          keep(
                            rows.filter((r) => r.id !== row.id),
                            'Take a row out of a release',
                          )
                        }
                      >
                        Take the row out
                      </Button>
                    </Flex>
                  </Box>
                </Box>
              )}
            </Box>
          )
        })}
      </Box>
      <Button size="sm" look="quiet" mt="1" ml="-2.5" onClick={add}>
        Add a row
      </Button>
    </Part>
  )
}

const COLUMNS = '30px 1.1fr 1.2fr 1fr'

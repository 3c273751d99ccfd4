import { Box, Flex, Heading } from '@chakra-ui/react'
import { useState, type ReactNode } from 'react'
import { USUAL_TAGS } from '../../core/house'
import type { HouseStyle } from '../../core/model'
import { type ClosingLine, type WordSwap } from '../../core/model'
import { network, NETWORKS } from '../../core/networks'
import { Button, Labelled, SelectField, TextArea, TextField } from '../ui'

/** A titled part of the house style. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="section" display="flex" flexDirection="column" gap="4">
      <Heading as="h2" fontSize="15px" fontWeight="600">
        {title}
      </Heading>
      {children}
    </Box>
  )
}

/** Words that are said in another way, everywhere or on one network. */
export function Swaps({
  swaps,
  onKeep,
}: {
  swaps: readonly WordSwap[]
  onKeep: (swaps: WordSwap[]) => void
}) {
  const empty: WordSwap = { from: '', to: '', network: null }
  const [rows, setRows] = useState<WordSwap[]>([...swaps, empty])
  const keep = (next: WordSwap[]): void => {
    const whole = next.filter((r) => r.from.trim() && r.to.trim())
    if (JSON.stringify(whole) !== JSON.stringify(swaps)) onKeep(whole)
  }
  const edit = (index: number, change: Partial<WordSwap>): WordSwap[] => {
    const next = rows.map((r, i) => (i === index ? { ...r, ...change } : r))
    const last = next[next.length - 1]
    setRows(last && (last.from || last.to) ? [...next, empty] : next)
    return next
  }
  return (
    <Box role="group" aria-label="Word swaps">
      <Box fontSize="xs" color="soft" mb="1">
        Word swaps, in every form of the word
      </Box>
      {rows.map((row, i) => (
        <Flex key={i} gap="2" align="center" mb="1.5" fontSize="13px">
          <TextField
            aria-label="Word that is swapped"
            placeholder={i === rows.length - 1 ? 'article' : ''}
            w="130px"
            value={row.from}
            onChange={(e) => edit(i, { from: e.target.value })}
            onBlur={() => keep(rows)}
          />
          <Box color="soft">is</Box>
          <TextField
            aria-label="Word that is said instead"
            placeholder={i === rows.length - 1 ? 'piece' : ''}
            w="130px"
            value={row.to}
            onChange={(e) => edit(i, { to: e.target.value })}
            onBlur={() => keep(rows)}
          />
          <Box color="soft">on</Box>
          <SelectField
            aria-label="Where"
            value={row.network ?? ''}
            onChange={(e) => keep(edit(i, { network: e.target.value || null }))}
          >
            <option value="">every network</option>
            {NETWORKS.map((n) => (
              <option key={n.id} value={n.id}>
                {network(n.id).name}
              </option>
            ))}
          </SelectField>
          {(row.from || row.to) && (
            <Button
              size="sm"
              look="quiet"
              aria-label={`Take the swap of ${row.from || 'nothing'} out`}
              onClick={() => {
                const next = rows.filter((_, k) => k !== i)
                setRows(next.length ? next : [empty])
                keep(next)
              }}
            >
              ×
            </Button>
          )}
        </Flex>
      ))}
    </Box>
  )
}

/** The lines that captions may close with, everywhere or on one network. */
export function ClosingLines({
  lines,
  onKeep,
}: {
  lines: HouseStyle['closingLines']
  onKeep: (lines: HouseStyle['closingLines']) => void
}) {
  const parse = (text: string): ClosingLine => {
    const [line = '', words = ''] = text.split('|')
    return { text: line.trim(), where: words.split(',').flatMap((w) => w.trim() || []) }
  }
  return (
    <Lines
      label="Closing lines for long posts, one a line"
      hint="They go out in turn. After a bar stand words, and the line closes only a post that says one of them: What would you plant there? | hedge, border"
      value={lines.map(({ text, where }) => (where.length ? `${text} | ${where.join(', ')}` : text))}
      onKeep={(kept) => onKeep(kept.map(parse))}
    />
  )
}

/** What links carry so that visits can be counted, a parameter a line. */
export function LinkTags({
  tags,
  onKeep,
}: {
  tags: HouseStyle['linkTags']
  onKeep: (tags: HouseStyle['linkTags']) => void
}) {
  const parse = (lines: readonly string[]): HouseStyle['linkTags'] =>
    lines.map((line) => {
      const [name = '', ...value] = line.split('=')
      return { name: name.trim(), value: value.join('=').trim() }
    })
  return (
    <Box>
      <Lines
        label="Link tags, a parameter a line"
        hint="name = template; {brand} {network} {pipeline} {angle} {account} {beat} are filled for each post."
        value={tags.map((t) => `${t.name} = ${t.value}`)}
        onKeep={(lines) => onKeep(parse(lines))}
      />
      {tags.length === 0 && (
        <Button size="sm" mt="1.5" onClick={() => onKeep([...USUAL_TAGS])}>
          The usual ones
        </Button>
      )}
    </Box>
  )
}

/** A list of texts, one a line. */
export function Lines({
  label,
  hint,
  value,
  onKeep,
}: {
  label: string
  hint: string
  value: readonly string[]
  onKeep: (lines: string[]) => void
}) {
  const [text, setText] = useState(value.join('\n'))
  return (
    <Labelled label={label} hint={hint}>
      {(id) => (
        <TextArea
          id={id}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => {
            const lines = text
              .split('\n')
              .map((l) => l.trim())
              .filter(Boolean)
            if (lines.join('\n') !== value.join('\n')) onKeep(lines)
          }}
        />
      )}
    </Labelled>
  )
}

import { Flex } from '@chakra-ui/react'
import type { Account, Pipeline, Post } from '../../core/model'
import { network } from '../../core/networks'
import { Button, SelectField } from '../ui'
import { BY_HAND, NO_FILTER, type Filter } from './marks'

const ALL: Record<keyof Filter, string> = {
  account: 'All accounts',
  network: 'All networks',
  pipeline: 'All pipelines',
  piece: 'All pieces',
  state: 'All states',
  format: 'All formats',
  angle: 'All angles',
}

/** What is shown of the posts, by whatever they have. */
export function Filters({
  filter,
  posts,
  accounts,
  pipelines,
  titles,
  onChange,
}: {
  filter: Filter
  posts: readonly Post[]
  accounts: readonly Account[]
  pipelines: readonly Pipeline[]
  titles: ReadonlyMap<string, { title: string }>
  onChange: (filter: Filter) => void
}) {
  const distinct = (values: readonly (string | null)[]): string[] =>
    [...new Set(values.flatMap((v) => v ?? []))].sort()
  const choices: Record<keyof Filter, readonly (readonly [string, string])[]> = {
    account: accounts.map((a) => [a.id, `${network(a.network).mark} @${a.handle}`] as const),
    network: distinct(accounts.map((a) => a.network)).map((id) => [id, network(id).name] as const),
    pipeline: [...pipelines.map((p) => [p.id, p.name] as const), [BY_HAND, 'Begun by hand'] as const],
    piece: distinct(posts.map((p) => p.piece)).map((id) => [id, titles.get(id)?.title ?? 'gone'] as const),
    state: distinct(posts.map((p) => p.state)).map((s) => [s, s] as const),
    format: distinct(posts.map((p) => p.wording.format)).map((f) => [f, f] as const),
    angle: distinct(posts.map((p) => p.wording.angle)).map((a) => [a, a] as const),
  }
  return (
    <Flex gap="2" px="6" pb="2" wrap="wrap" role="group" aria-label="Filters">
      {(Object.keys(ALL) as (keyof Filter)[]).map((field) => (
        <SelectField
          key={field}
          aria-label={`Show ${field}`}
          maxW="117px"
          value={filter[field]}
          onChange={(e) => onChange({ ...filter, [field]: e.target.value })}
        >
          <option value="">{ALL[field]}</option>
          {choices[field].map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </SelectField>
      ))}
      {JSON.stringify(filter) !== JSON.stringify(NO_FILTER) && (
        <Button look="quiet" onClick={() => onChange(NO_FILTER)}>
          Show everything
        </Button>
      )}
    </Flex>
  )
}

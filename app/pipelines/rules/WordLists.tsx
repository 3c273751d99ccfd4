import { chakra } from '@chakra-ui/react'
import { nanoid } from 'nanoid'
import { useState } from 'react'
import type { SieveRule, WordList } from '../../../core/model'
import { saveWordList } from '../../data'
import { attempt, Button, TextField } from '../../ui'
import { Toggle, toggled } from './fields'

/** The saved word lists of a rule, and keeping its own words as one. */
export function WordLists({
  rule,
  lists,
  brand,
  onChange,
}: {
  rule: Extract<SieveRule, { kind: 'words' }>
  lists: readonly WordList[]
  brand: string
  onChange: (rule: SieveRule) => void
}) {
  const [naming, setNaming] = useState<string | null>(null)
  return (
    <>
      {lists.map((l) => (
        <Toggle
          key={l.id}
          on={rule.lists.includes(l.id)}
          title={l.words.join(', ')}
          onClick={() => onChange({ ...rule, lists: toggled(rule.lists, l.id) })}
        >
          list: {l.name}
        </Toggle>
      ))}
      {naming === null ? (
        rule.words.length > 1 && (
          <Button size="sm" look="quiet" onClick={() => setNaming('')}>
            Save as a list
          </Button>
        )
      ) : (
        <chakra.form
          display="inline-flex"
          gap="1"
          onSubmit={(e: React.FormEvent) => {
            e.preventDefault()
            const name = naming.trim()
            if (!name) return
            const id = nanoid()
            void attempt(async () => {
              await saveWordList({ id, brand, name, words: rule.words })
              onChange({ ...rule, words: [], lists: [...rule.lists, id] })
              setNaming(null)
            })
          }}
        >
          <TextField
            aria-label="Name of the list"
            placeholder="Name of the list"
            h="7"
            w="140px"
            value={naming}
            autoFocus
            onChange={(e) => setNaming(e.target.value)}
          />
          <Button size="sm" type="submit">
            Save
          </Button>
        </chakra.form>
      )}
    </>
  )
}

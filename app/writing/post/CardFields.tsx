import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState, type SyntheticEvent } from 'react'
import {
  CARD_MOST,
  hasCode,
  linkShown,
  CARD_FIELDS,
  cardLacks,
  LAYOUTS,
  pictureKey,
  type Card,
  type Layout,
  type Post,
} from '../../../core/model'
import { inWords, placesOf } from '../../../core/text'
import { useCard, useRow } from '../../data'
import { changeCard } from '../../data/more'
import { attempt, Button, Chips, Labelled, Notice, SelectField, TextArea, TextField } from '../../ui'

const isSameCard = (a: Card, b: Card): boolean =>
  pictureKey({ from: 'card', card: a }) === pictureKey({ from: 'card', card: b }) &&
  hasCode(a) === hasCode(b) &&
  (a.marked ?? []).join('\n') === (b.marked ?? []).join('\n')

/** The words and the layout of a card of a post. What is whole is kept when its field is left. */
export function CardFields({ post, index, card }: { post: Post; index: number; card: Card }) {
  const [draft, setDraft] = useState(card)
  const [seen, setSeen] = useState(card)
  // What was sent to be kept and has not come back yet, in order.
  const [sent, setSent] = useState<readonly Card[]>([])
  const [selected, setSelected] = useState('')
  // Another picture or an undo takes the place of what is typed; what was kept of it here does not.
  if (!isSameCard(seen, card)) {
    setSeen(card)
    const back = sent.findIndex((s) => isSameCard(s, card))
    setSent(sent.slice(back + 1))
    if (back < 0) setDraft(card)
  }
  const look = useRow('brands', post.brand)?.look
  const drawn = useCard(card, look, post.media[index]?.shape ?? null, linkShown(post))
  const lacks = cardLacks(draft)
  const fields = CARD_FIELDS[draft.layout]
  const keep = (changed: Card): void => {
    setDraft(changed)
    if (cardLacks(changed) !== null || isSameCard(changed, sent.at(-1) ?? card)) return
    setSent([...sent, changed])
    void attempt(() =>
      changeCard(post.id, index, changed).catch((error: unknown) => {
        setSent((all) => all.filter((s) => s !== changed))
        throw error
      }),
    )
  }
  const select = ({
    currentTarget: { value, selectionStart, selectionEnd },
  }: SyntheticEvent<HTMLTextAreaElement>) => setSelected(value.slice(selectionStart, selectionEnd))
  const text = (name: 'head' | 'text' | 'speaker') =>
    fields[name] && (
      <Labelled key={name} label={fields[name]}>
        {(id) =>
          name === 'text' ? (
            <TextArea
              id={id}
              fontFamily="reading"
              fontSize="14px"
              value={draft.text}
              onChange={(e) => setDraft({ ...draft, text: e.target.value })}
              onBlur={() => keep(draft)}
              onSelect={select}
            />
          ) : (
            <TextField
              id={id}
              w="full"
              value={draft[name]}
              onChange={(e) => setDraft({ ...draft, [name]: e.target.value })}
              onBlur={() => keep(draft)}
            />
          )
        }
      </Labelled>
    )
  return (
    <Flex direction="column" gap="2" mt="2" role="group" aria-label="Words on the card">
      <Labelled label="Layout">
        {(id) => (
          <SelectField
            id={id}
            value={draft.layout}
            onChange={(e) => keep({ ...draft, layout: e.target.value as Layout })}
          >
            {LAYOUTS.map((layout) => (
              <option key={layout}>{layout}</option>
            ))}
          </SelectField>
        )}
      </Labelled>
      {text('head')}
      {text('text')}
      {fields.items && (
        <Labelled label={fields.items}>
          {(id) => (
            <TextArea
              id={id}
              fontFamily="reading"
              fontSize="14px"
              value={draft.items.join('\n')}
              onChange={(e) => setDraft({ ...draft, items: e.target.value.split('\n') })}
              onBlur={() => keep({ ...draft, items: draft.items.map((i) => i.trim()).filter(Boolean) })}
              onSelect={select}
            />
          )}
        </Labelled>
      )}
      {text('speaker')}
      {draft.layout !== 'code' && (
        <Marked card={draft} selected={selected} onChange={(marked) => keep({ ...draft, marked })} />
      )}
      {draft.layout !== 'code' && (
        <chakra.label display="flex" gap="2" fontSize="13px" alignItems="center">
          <input
            type="checkbox"
            checked={draft.code ?? false}
            onChange={(e) => keep({ ...draft, code: e.target.checked })}
          />
          The link as a code in its corner
        </chakra.label>
      )}
      {lacks && <Notice tone="amber">{lacks}</Notice>}
      {drawn && drawn.missing.length > 0 && (
        <Notice tone="amber">
          No typeface here has {drawn.missing.map((c) => `“${c}”`).join(', ')}: it is drawn as a box.
        </Notice>
      )}
      <Box srOnly aria-live="polite">
        {lacks ?? ''}
      </Box>
    </Flex>
  )
}

/** The words of a card that stand out: those that are selected in its words, or typed. */
function Marked({
  card,
  selected,
  onChange,
}: {
  card: Card
  selected: string
  onChange: (marked: string[]) => void
}) {
  const { text, items, marked = [] } = card
  const fresh = selected
    .split('\n')
    .map((part) => part.trim())
    .filter((part) => part !== '' && part.length <= CARD_MOST.mark && !marked.includes(part))
  const change = (all: readonly string[]): void => onChange(all.slice(0, CARD_MOST.marks))
  const lost = marked.filter((phrase) => placesOf([phrase], [text, ...items].join('\n')).length === 0)
  return (
    <Box>
      <Flex justify="space-between" align="end" gap="2" mb="1">
        <Box fontSize="12px" color="soft">
          Words that stand out
        </Box>
        <Button
          size="sm"
          look="quiet"
          disabled={fresh.length === 0 || marked.length >= CARD_MOST.marks}
          title="Select words above first"
          onClick={() => change([...marked, ...fresh])}
        >
          Mark what is selected
        </Button>
      </Flex>
      <Chips label="Words that stand out" values={marked} onChange={change} commas />
      {lost.length > 0 && (
        <Notice tone="amber">
          {inWords(lost.map((phrase) => `“${phrase}”`))} {lost.length === 1 ? 'stands' : 'stand'} nowhere on
          this card.
        </Notice>
      )}
    </Box>
  )
}

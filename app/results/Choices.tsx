import { AGES } from '../../core/model'
import { network } from '../../core/networks'
import { COUNTED } from '../../core/results'
import { Choice, SelectField } from '../ui'
import { SPANS, type Question } from './useAsked'
import { COUNTED_WORDS, type Names } from './words'

/** Over which span, what, how old and of whom: what is asked of the results. */
export function Choices({ question, names }: { question: Question; names: Names }) {
  const { asked, span, set } = question
  return (
    <>
      <Choice label="Span" value={span} options={Object.entries(SPANS)} onChange={(v) => set('span', v)} />
      <Choice
        label="What is counted"
        value={asked.counted}
        options={COUNTED.map((c) => [c, COUNTED_WORDS[c]])}
        onChange={(v) => set('counted', v)}
      />
      <Choice
        label="How old posts are when they are compared"
        value={asked.age}
        options={Object.keys(AGES).map((a) => [a, `after ${a}`])}
        onChange={(v) => set('age', v)}
      />
      <Whose question={question} names={names} />
    </>
  )
}

/** Whose posts are looked at: all, those of an account, of a network, or of a pipeline. */
function Whose({
  question: { asked, only },
  names: { accounts, pipelines },
}: {
  question: Question
  names: Names
}) {
  const networks = [...new Set(accounts.map((a) => a.network))]
  const choose = (value: string): void => {
    const [what, id = ''] = value.split(' ')
    only(what === 'account' || what === 'network' || what === 'pipeline' ? what : null, id)
  }
  const of = (['account', 'network', 'pipeline'] as const).find((what) => asked[what] !== null)
  return (
    <SelectField
      aria-label="Whose posts"
      maxW="210px"
      value={of ? `${of} ${asked[of] ?? ''}` : ''}
      onChange={(e) => choose(e.target.value)}
    >
      <option value="">all posts</option>
      <optgroup label="Accounts">
        {accounts.map((a) => (
          <option key={a.id} value={`account ${a.id}`}>
            {network(a.network).mark} @{a.handle}
          </option>
        ))}
      </optgroup>
      <optgroup label="Networks">
        {networks.map((id) => (
          <option key={id} value={`network ${id}`}>
            {network(id).name}
          </option>
        ))}
      </optgroup>
      <optgroup label="Pipelines">
        {pipelines.map((p) => (
          <option key={p.id} value={`pipeline ${p.id}`}>
            {p.name}
          </option>
        ))}
      </optgroup>
    </SelectField>
  )
}

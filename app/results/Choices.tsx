import { AGES } from '../../core/model'
import { network } from '../../core/networks'
import { COUNTED, COUNTED_WORDS, type Names } from '../../core/results'
import { Choice, SelectField } from '../ui'
import { SPANS, type Question } from './useAsked'

/** Over which span, what, how old and of whom: what is asked of the results. */
export function Choices({ question, names }: { question: Question; names: Names }) {
  const { asked, set } = question
  return (
    <>
      <SpanChoice question={question} />
      <Choice
        label="What is counted"
        value={asked.counted}
        options={COUNTED.map((c) => [c, COUNTED_WORDS[c]])}
        onChange={(v) => set('counted', v)}
      />
      <AgeChoice question={question} />
      <Whose question={question} names={names} />
    </>
  )
}

/** Over which span, how old and of whom: what is asked of a report, which counts all. */
export function ReportChoices({
  question,
  names,
}: {
  question: Question
  names: Pick<Names, 'accounts' | 'pipelines'>
}) {
  return (
    <>
      <SpanChoice question={question} />
      <AgeChoice question={question} />
      <Whose question={question} names={names} />
    </>
  )
}

function SpanChoice({ question: { span, set } }: { question: Question }) {
  return <Choice label="Span" value={span} options={Object.entries(SPANS)} onChange={(v) => set('span', v)} />
}

function AgeChoice({ question: { asked, set } }: { question: Question }) {
  return (
    <Choice
      label="How old posts are when they are compared"
      value={asked.age}
      options={Object.keys(AGES).map((a) => [a, `after ${a}`])}
      onChange={(v) => set('age', v)}
    />
  )
}

/** Whose posts are looked at: all, those of an account, of a network, or of a pipeline. */
function Whose({
  question: { asked, only },
  names: { accounts, pipelines },
}: {
  question: Question
  names: Pick<Names, 'accounts' | 'pipelines'>
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

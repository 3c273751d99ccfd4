import type { Rule } from '../rule'

/** Whether those are named whose pictures are shown on the condition that they are. */
export const credit: Rule = {
  code: 'no-credit',
  english: false,
  blocks: true,
  finds: ({ text }, { credits = [] }) =>
    credits
      .filter((line) => !text.includes(line))
      .map((line) => ({
        severity: 'block',
        message: `The picture may be shown only with the words “${line}”. Add them, or take another picture.`,
        words: line,
        remedy: 'Add them',
      })),
  mends: (text, { words = '' }) => (words ? `${text.trimEnd()}\n\n${words}` : null),
}

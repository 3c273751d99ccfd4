const END = /[.!?…][”’"')\]]*$/

/** Whether a text ends as a sentence does: on a full stop or its like, and what may close after it. */
export const endsSentence = (text: string): boolean => END.test(text)

/** The first sentence of a paragraph, good enough for measuring: up to the first end mark before a space. */
export function firstSentence(text: string): string {
  return /^.*?[.!?…]["”’)]*(?=\s|$)/u.exec(text)?.[0] ?? text
}

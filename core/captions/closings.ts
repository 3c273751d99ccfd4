import type { Angle, Voice } from '../model'
import type { Opens } from './drafts'
import { fill } from './frames'
import type { Topic } from './topics'

/**
 * A question that closes a post. It can be answered by somebody from their own work in one
 * sentence, and holds no fact of its own. `after` says what the post must open with for it to be
 * a question about it; those with a slot name what the piece is about and may follow anything.
 */
export interface Closing {
  text: string
  after?: Exclude<Opens, 'other'>
}

const ask = (text: string, after?: Closing['after']): Closing => (after ? { text, after } : { text })

const ABOUT = [
  ask('What would you add about {noun}?'),
  ask('What would you add about {doing}?'),
  ask('What surprised you about {noun}?'),
  ask('What surprised you about {doing}?'),
  ask('What do people around you say about {noun}?'),
  ask('What do people around you say about {doing}?'),
  ask('What do you wish you had known about {noun} sooner?'),
  ask('What do you wish you had known about {doing} sooner?'),
  ask('What would you still like to know about {noun}?'),
  ask('What would you still like to know about {doing}?'),
  ask('What would you tell a beginner about {doing}?'),
  ask('What took you longest to learn about {doing}?'),
]

/** The closing lines by angle. */
export const CLOSINGS: Readonly<Record<Angle, readonly Closing[]>> = {
  question: [
    ask('What would you have answered?'),
    ask('What else would you ask about {noun}?'),
    ask('What else would you ask about {doing}?'),
    ...ABOUT,
  ],
  number: ABOUT,
  'how-to': [ask('How do you go about {doing}?'), ...ABOUT],
  contrast: [ask('Where would you disagree?', 'statement'), ...ABOUT],
  myth: [
    ask('Which version were you taught?'),
    ask('Where did you first hear it?'),
    ask('Who still tells you so?'),
    ask('What did you believe about {noun} before?'),
    ask('What did you believe about {doing} before?'),
    ...ABOUT,
  ],
  story: [
    ask('What would you have done?', 'event'),
    ask('Which story would you tell about {noun}?'),
    ask('Which story would you tell about {doing}?'),
    ...ABOUT,
  ],
  checklist: [
    ask('What is on your list that is not on this one?'),
    ask('Which of these is the one you forget?'),
    ask('What would you cross off?'),
    ask('How many of these do you do already?'),
    ask('Which one did you learn the hard way?'),
    ask('What would you add for {doing}?'),
    ...ABOUT,
  ],
  lesson: ABOUT,
  quotation: [
    ask('Would you sign that?'),
    ask('What would you say to that?'),
    ask('Where would you disagree?'),
    ...ABOUT,
  ],
  definition: [
    ask('How would you explain it to a beginner?'),
    ask('What do you call it where you are?'),
    ask('How was it explained to you?'),
    ask('What do people mistake it for?'),
    ...ABOUT,
  ],
}

/** The stock's closings for an angle that a piece can fill and that may follow such an opening, those that name it first. */
export function closingsFor(angle: Angle, topic: Topic, opens?: Opens): string[] {
  const filled = CLOSINGS[angle].flatMap(({ text, after }) => {
    const line = after && opens && after !== opens ? null : fill(text, topic)
    return line === null ? [] : [{ line, names: text.includes('{') }]
  })
  return [...filled.filter((f) => f.names), ...filled.filter((f) => !f.names)].map((f) => f.line)
}

/** Whether a voice closes with a question at all: a reserved one that speaks as nobody does not. */
export function asks(voice: Voice): boolean {
  return voice.warmth > -2
}

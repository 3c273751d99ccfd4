import type { Angle, Voice } from '../model'
import { fill } from './frames'
import type { Topic } from './topics'

/*
 * Questions that close a post, by angle. Each can be answered by somebody from their own work in
 * one sentence and holds no fact of its own. Those with a slot name what the piece is about and
 * are preferred; those without fit whatever it is about.
 */
const ANYTHING = [
  'What would you add about {noun}?',
  'What would you add about {doing}?',
  'What would you add?',
  'Where have you seen it go otherwise?',
  'What is the exception you have met?',
  'Who taught you that?',
  'What would you tell a beginner?',
  'What took you longest to learn?',
  'Does it hold where you are?',
  'What do people around you say?',
  'What would you like to have known sooner?',
  'What surprised you about {noun}?',
  'How would you put it?',
]

const DOING = [
  'How do you go about {doing}?',
  'How do you do it?',
  'What do you do first?',
  'Where does it go wrong for you?',
  'Who showed you how?',
  'What would you tell somebody doing it for the first time?',
  'What did you leave out, the first time?',
]

export const CLOSINGS: Readonly<Record<Angle, readonly string[]>> = {
  question: [
    'What would you have answered?',
    'What else would you ask about {noun}?',
    'What else would you ask about {doing}?',
    'Who taught you your answer?',
    'Where does that answer not hold?',
    ...ANYTHING,
  ],
  number: [
    'What would you have guessed?',
    'What figure do you go by?',
    'What does it come to where you are?',
    ...ANYTHING,
  ],
  'how-to': DOING.concat(ANYTHING),
  contrast: ['What changed your mind about it?', ...ANYTHING],
  myth: [
    'Which version were you taught?',
    'Where did you first hear it?',
    'Who still tells you so?',
    'What did you believe about {noun} before?',
    'What did you believe about {doing} before?',
    'What convinced you?',
    ...ANYTHING,
  ],
  story: [
    'What would you have done?',
    'Which day like that do you remember?',
    'What happened when it was you?',
    'Who told you a story like it?',
    'What did you do differently the next time?',
    ...ANYTHING,
  ],
  checklist: [
    'What is on your list that is not on this one?',
    'Which of these is the one you forget?',
    'What would you cross off?',
    'How many of these do you do already?',
    'Which one did you learn the hard way?',
    'What would you add for {doing}?',
    ...DOING,
  ],
  lesson: ['When did you find it out?', 'Who taught you this, and how?', ...ANYTHING],
  quotation: [
    'Would you sign that?',
    'What would you say to that?',
    'Where would you disagree?',
    'What would you have asked next?',
    'Whom would you read it to?',
    'When would you have needed to hear it?',
    ...ANYTHING,
  ],
  definition: [
    'How would you explain it to a beginner?',
    'What do you call it where you are?',
    'How was it explained to you?',
    'Where did you first meet the word?',
    'What do people mistake it for?',
    ...ANYTHING,
  ],
}

/** The stock's closings for an angle that a piece can fill, those that name it first. */
export function closingsFor(angle: Angle, topic: Topic): string[] {
  const filled = CLOSINGS[angle].flatMap((text) => {
    const line = fill(text, topic)
    return line === null ? [] : [{ line, names: text.includes('{') }]
  })
  return [...filled.filter((f) => f.names), ...filled.filter((f) => !f.names)].map((f) => f.line)
}

/** Whether a voice closes with a question at all: a reserved one that speaks as nobody does not. */
export function asks(voice: Voice): boolean {
  return voice.warmth > -2
}

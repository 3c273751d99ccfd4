import type { Angle } from '../model'

/**
 * Questions that close a long post, by angle. Each can be answered by somebody from their own
 * work in one sentence, holds no fact of its own, and fits whatever the piece is about.
 */
export const CLOSINGS: Readonly<Record<Angle, readonly string[]>> = {
  question: ['How do you decide it?', 'What would your answer have been?', 'Who taught you your answer?'],
  number: [
    'What is your own figure?',
    'Does that match what you have measured?',
    'What number do you work to?',
  ],
  'how-to': [
    'Which step do you do differently?',
    'What would you add before the first step?',
    'Where does it go wrong for you?',
  ],
  contrast: [
    'Where have you found the opposite?',
    'What changed your mind about it?',
    'Where does it not hold?',
  ],
  myth: ['Which version were you taught?', 'Where did you first hear it?'],
  story: [
    'What is your version of this story?',
    'What did you do differently the next time?',
    'Who told it to you first?',
  ],
  checklist: [
    'What is on your list that is not on this one?',
    'Which of these is the one you forget?',
    'What would you cross off?',
  ],
  lesson: [
    'Who taught you this, and how?',
    'What is the exception you have met?',
    'What would you tell a beginner instead?',
  ],
  quotation: ['Would you sign that?', 'What would you say to that?'],
  definition: ['How would you explain it to a beginner?', 'What would you add to that?'],
}

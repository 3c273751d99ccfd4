import { readWriting } from '../../reading'

/* A field that neither the demo nor the corpus touches. */
/** An article with a list, a belief, an alternative, a story and a quotation. */
export const KITES = readWriting(
  `# Flying a kite from a hill

A kite flies on the difference between two winds. The wind at your knees is half the wind at the height of a house, and a child who runs with a kite is adding speed where there is none.

## Stand still

Stand with your back to the wind. Let a friend carry the kite forty paces downwind and hold it by the edges. Pull once, firmly, when you feel the next gust. A kite that is pulled before the gust falls on its nose, because there is nothing under it.

Many people believe that a stronger wind makes for a better day. It does not. Above seven on the scale the line cuts your hand and the spar breaks before the fun begins.

## Silk or cotton?

Silk weighs 40 grams a square metre and cotton weighs 120. Silk lifts in a wind that hardly moves a leaf, although it costs four times as much. Cotton forgives a tree.

> I have lost nine kites, and every one of them was tied with a clever knot.

My aunt flew hers from the roof of the mill for thirty years. She never ran a step. In the last summer she tied the line to the chimney and went in to lunch, and the kite stayed where it was until the evening.

## Before you go home

1. Wind the line on a flat stick, not on your hand.
2. Wipe the spar dry before it goes into the bag.
3. Hang the sail where no sun reaches it.`,
  'kites',
)

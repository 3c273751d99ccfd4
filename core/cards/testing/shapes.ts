/** The shapes that cards are drawn for, width to height. */
export const SHAPES = [
  { width: 1, height: 1 },
  { width: 4, height: 5 },
  { width: 9, height: 16 },
  { width: 2, height: 3 },
  { width: 16, height: 9 },
]

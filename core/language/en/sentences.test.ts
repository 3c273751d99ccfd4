import { expect, it } from 'vitest'
import { readSentences } from './sentences'

// Each line is one text; the bar stands where a reader ends a sentence.
it.each(
  `The U.S. Army moved in. | It stayed.
Bring tools, e.g. a plane, i.e. the short one. | Then start.
It opens at 9 a.m. | The doors are narrow.
It opens at 9 a.m. on Mondays.
See p. 12 and pp. 14–16. | Then stop.
J. R. Halloran wrote it. | She was old.
Version 2.0 is out. | Try it.
“Stop!” he said. | Nobody did.
He asked “Why?” and left.
Mr. Smith met Mrs. Jones at St. Mary’s.
She has a Ph.D. in tar.
Nails, tar, rope, etc. are in the shed. | Take some.
He waited... and waited. | Then he left.
It was 5 ft. 6 in. tall.
The room was at 5 °C. | It froze.
Dr. A. Ruff (b. 1954) taught here. | She left.
I bought it for £3.50. | It broke.
Tel. 555 0123. | Ask for Ann.
Ask for Vitamin C. | It helps.
It was World War I. | Nobody knew.
So did I. | Then we left.
They sold 1,000 (most of them in May). | The rest burned.
We ship to the U.K. and the E.U. every week.
Read Sect. 4. | It is short.
Bare cotton goes in. | Putty comes last.
Add 1 tsp. salt. | Stir.
It adds ./lib/one and ./lib/two to the path. | Then it stops.
It runs each *.PL it finds. | Then it stops.
Put it in ./bin. | /usr is not the place.`.split('\n'),
)('ends the sentences of: %s', (line) => {
  const text = line.replaceAll(' | ', ' ')
  expect(readSentences(text).map((s) => text.slice(s.start, s.end))).toEqual(line.split(' | '))
})

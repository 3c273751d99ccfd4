import type { SystemStyleObject } from '@chakra-ui/react'
import { memo } from 'react'
import { Link } from 'react-router'
import type { Piece } from '../../core/model'
import type { PieceState } from '../../core/sieve'
import { letThrough, unfold } from '../data'
import { attempt, Button, clip, count, distance } from '../ui'

const TONE: Record<PieceState['kind'], string> = {
  waiting: 'clay',
  wordless: 'amber',
  changed: 'amber',
  caught: 'soft',
  dripping: 'soft',
  'set aside': 'soft',
}

const KEEPS: Record<Piece['keeps']['span'], string> = {
  evergreen: 'evergreen',
  'about a year': 'keeps about a year',
  months: 'keeps months',
  weeks: 'keeps weeks',
  past: 'past',
}

/** A line of the list. */
export interface Entry {
  piece: Piece
  state: PieceState
  folded: Piece[]
  /** The piece it is folded under, for one that is shown unfolded. */
  under: Piece | null
}

/** How high a row stands, in pixels: two lines, and one more for each thing that is said of it. */
export function heightOf(entry: Entry | undefined): number {
  return 62 + (entry?.under && entry.piece.double ? 28 : 0) + (entry?.state.reason ? 20 : 0)
}

/** How rows look, said once for the whole list: many hundreds of them come by while one scrolls. */
export const ROWS: SystemStyleObject = {
  '& > li': {
    position: 'absolute',
    insetX: '0',
    top: '0',
    display: 'flex',
    alignItems: 'center',
    gap: '4',
    px: '2',
    borderTopWidth: '1px',
    borderColor: 'hairline',
    fontSize: '13px',
    contain: 'strict',
  },
  '& > li.under': { pl: '9' },
  '& > li.current': { bg: 'waterTint' },
  '& .what': { flex: '1', minW: '0' },
  '& .head': { display: 'flex', alignItems: 'baseline', gap: '2' },
  '& .head a': { fontFamily: 'reading', fontSize: '17px', fontWeight: '600', truncate: true },
  '& .head a:hover': { textDecoration: 'underline' },
  '& .under .head a': { fontSize: '15px' },
  '& .dim .head a, & .under .head a, & .note, & .soft, & .figures': { color: 'soft' },
  '& .note': { truncate: true },
  '& .figures': { fontFamily: 'mono', fontSize: '12px', textAlign: 'right', flexShrink: '0' },
  '& .state': { w: '150px', flexShrink: '0' },
  '& .clay': { color: 'clayText' },
  '& .amber': { color: 'amberText' },
}

interface Props {
  entry: Entry
  /** Its place in the whole list, of which only a window is drawn. */
  index: number
  of: number
  top: number
  source: string
  now: number
  current: boolean
  chosen: boolean
  isOpen: boolean
  onChoose: (id: string) => void
  onFold: (id: string) => void
}

/** One piece in the list, with whatever is folded under it. Drawn anew only when something of it changes. */
export const PieceRow = memo(function PieceRow({
  entry,
  index,
  of,
  top,
  source,
  now,
  current,
  chosen,
  isOpen,
  onChoose,
  onFold,
}: Props) {
  const { piece, state, under } = entry
  const folded = entry.folded.length
  const dim = piece.dealt !== null || state.kind === 'caught'
  return (
    <li
      aria-posinset={index + 1}
      aria-setsize={of}
      className={[under && 'under', current && 'current', dim && 'dim'].filter(Boolean).join(' ')}
      style={{ height: heightOf(entry), transform: `translateY(${top}px)` }}
    >
      <input
        type="checkbox"
        aria-label={`Select ${piece.title}`}
        checked={chosen}
        onChange={() => onChoose(piece.id)}
        tabIndex={-1}
      />
      <div className="what">
        <div className="head">
          <Link to={`/intake/${piece.id}`}>{piece.title}</Link>
          {folded > 0 && (
            <Button
              size="sm"
              look="quiet"
              h="5"
              aria-expanded={isOpen}
              onClick={() => onFold(piece.id)}
              flexShrink={0}
            >
              {isOpen ? 'fold' : `+ ${count(folded, 'double')}`}
            </Button>
          )}
        </div>
        <div className="note">
          {source}
          {piece.author ? ` · ${piece.author}` : ''}
          {piece.categories.length ? ` · ${piece.categories.join(', ')}` : ''}
        </div>
        {under && piece.double && (
          <div className="note">
            {piece.double.why === 'an excerpt'
              ? `an excerpt: ${Math.round(piece.double.likeness * 100)} % of it stands in the one above`
              : `${piece.double.why}, ${Math.round(piece.double.likeness * 100)} % alike`}{' '}
            <Button size="sm" look="quiet" onClick={() => void attempt(() => unfold(piece.id, true))}>
              Unfold for good
            </Button>
          </div>
        )}
        {state.reason && (
          <div className={state.kind === 'caught' ? 'note' : 'note amber'} title={state.reason}>
            {state.reason}
          </div>
        )}
      </div>
      <div className="figures">
        {piece.kind === 'video' ? clip(piece.video?.seconds ?? 0) : count(piece.words, 'word')} ·{' '}
        {piece.kind === 'video' ? 'video' : count(piece.images.length, 'picture')}
        <br />
        {piece.counts.shares !== undefined ? `${count(piece.counts.shares, 'share')} · ` : ''}
        {distance(piece.publishedAt ?? piece.takenAt, now)}
      </div>
      <div className="state">
        <div className={under ? 'soft' : TONE[state.kind]}>{under ? 'folded' : state.words}</div>
        {state.kind === 'caught' ? (
          <Button
            size="sm"
            look="quiet"
            ml="-2.5"
            onClick={() => void attempt(() => letThrough([piece.id], true))}
          >
            Let through
          </Button>
        ) : (
          <div className={piece.keeps.span === 'evergreen' ? 'soft' : 'amber'}>{KEEPS[piece.keeps.span]}</div>
        )}
      </div>
    </li>
  )
})

import { memo } from 'react'
import type { MediaSource } from '../../../core/model'
import type { LibraryEntry } from '../../../core/pictures'
import { useMedia, useSmallPicture } from '../../data'

/** How tiles look, set once by whatever holds them: thousands of elements styled one by one would not scroll smoothly. */
export const TILES = {
  '& .tile': { display: 'block', width: '100%', minWidth: 0, textAlign: 'left', cursor: 'pointer' },
  '& .tile > div': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
  '& .tile-shown': {
    borderWidth: '2px',
    borderColor: 'hairline',
    borderRadius: 'sm',
    background: 'raised',
  },
  '& .tile[aria-pressed=true] .tile-shown': { borderColor: 'water' },
  '& .tile img': { width: '100%', height: '100%', objectFit: 'cover' },
  // The words of a card are all of it.
  '& .tile img.card': { objectFit: 'contain' },
  '& .tile-title': { fontSize: '13px', marginTop: '4px' },
  '& .tile-note': { fontSize: '12px', color: 'soft' },
  '& .tile-trouble': { padding: '8px', fontSize: '12px', color: 'clayText', whiteSpace: 'normal' },
} as const

/** A picture of the library as a tile that can be chosen: the picture, what it is called, and a line of what is so. */
export const Tile = memo(function Tile({
  entry,
  brand,
  note,
  chosen,
  height,
  onChoose,
}: {
  entry: LibraryEntry
  brand: string
  note: string
  chosen: boolean
  /** Of the picture itself, in pixels. */
  height: number
  onChoose: (key: string) => void
}) {
  const title = entry.title || 'A picture'
  return (
    <button
      type="button"
      className="tile"
      aria-pressed={chosen}
      aria-label={`${title}; ${note}`}
      title={entry.alt || title}
      onClick={() => onChoose(entry.key)}
    >
      <div className="tile-shown" style={{ height }}>
        {entry.trouble !== null ? (
          <div className="tile-trouble">{entry.trouble}</div>
        ) : entry.source.from === 'address' ? (
          <PictureShown url={entry.source.url} />
        ) : (
          <CardShown source={entry.source} brand={brand} />
        )}
      </div>
      <div className="tile-title">{title}</div>
      <div className="tile-note">{note}</div>
    </button>
  )
})

function PictureShown({ url }: { url: string }) {
  const shown = useSmallPicture(url)
  return shown && <img src={shown} alt="" decoding="async" />
}

function CardShown({ source, brand }: { source: MediaSource; brand: string }) {
  const shown = useMedia({ source, alt: '', shape: null, hash: null }, brand)
  return shown && <img className="card" src={shown} alt="" decoding="async" />
}

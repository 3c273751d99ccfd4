import { useMemo } from 'react'
import useSWR from 'swr'
import useSWRImmutable from 'swr/immutable'
import {
  hasCode,
  joinPiece,
  stillCard,
  ownPictureHash,
  type Card,
  type Cut,
  type Look,
  type PostMedia,
  textId,
  type Account,
  type Row,
  type TableName,
  type WholePiece,
} from '../../core/model'
import { NETWORKS } from '../../core/networks'
import { cardsFor } from './actions/drawing'
import { pictureBytes, proposedCut } from './actions/pictures'
import { smallPicture } from './actions/seeing'
import { all, one, shared } from './store'

const OPTIONS = {
  revalidateOnFocus: false,
  revalidateOnReconnect: false,
  keepPreviousData: true,
  // Rows are read again only when they were written, so they need not be compared.
  compare: (a: unknown, b: unknown) => a === b,
}

/** A number for each list of rows, by which it is told from the ones before it without a look at each row. */
const numbers = new WeakMap<object, number>()
let last = 0
export function numberOf(rows: object): number {
  const number = numbers.get(rows) ?? ++last
  numbers.set(rows, number)
  return number
}

/** The records of a table whose indexed field has a value; undefined while they are being read. */
export function useRows<T extends TableName>(
  table: T,
  index: string,
  value: string | null,
): readonly Row<T>[] | undefined {
  return useSWR(
    value === null ? null : ['rows', table, index, value],
    () => shared(table, index, value as string),
    OPTIONS,
  ).data
}

/** A number that is another one whenever readings of a brand were written; the rows themselves are too many for a page. */
export function useReadings(brand: string): number | undefined {
  return useSWR(['rows', 'readings', 'brand', brand], () => ++last, OPTIONS).data
}

/** All records of a table. */
export function useTable<T extends TableName>(table: T): Row<T>[] | undefined {
  return useSWR(['rows', table], () => all(table), OPTIONS).data
}

/** A brand's accounts in the order of their linking; those linked at once in the order of the networks. */
export function useAccounts(brand: string): Account[] | undefined {
  const rows = useRows('accounts', 'brand', brand)
  return useMemo(() => rows && [...rows].sort(byLinking), [rows])
}

/** Those of a brand's accounts that were not ended, for choosing among. */
export function useOpenAccounts(brand: string): Account[] | undefined {
  const accounts = useAccounts(brand)
  return useMemo(() => accounts?.filter((a) => a.endedAt === null), [accounts])
}

function byLinking(a: Account, b: Account): number {
  const place = (x: Account): number => NETWORKS.findIndex((n) => n.id === x.network)
  return (
    (a.linkedAt < b.linkedAt ? -1 : a.linkedAt > b.linkedAt ? 1 : 0) ||
    place(a) - place(b) ||
    (a.handle < b.handle ? -1 : 1)
  )
}

/** One record: undefined while it is being read, null where there is none. */
export function useRow<T extends TableName>(table: T, id: string | null): Row<T> | null | undefined {
  return useSWR(
    id === null ? null : ['rows', table, 'id', id],
    async () => (await one(table, id as string)) ?? null,
    { ...OPTIONS, keepPreviousData: false },
  ).data
}

/** A piece with the words of its present revision, or of one that a post quotes. */
export function useWholePiece(id: string | null, revision?: number): WholePiece | null | undefined {
  const piece = useRow('pieces', id)
  const text = useRow('texts', piece ? textId(piece.id, revision ?? piece.revision) : null)
  return useMemo(() => {
    if (piece === null || (piece && text === null)) return null
    return piece && text ? joinPiece(piece, text) : undefined
  }, [piece, text])
}

/** What an image element shows a picture by: a web address as it is, or one of the workspace's own bytes. */
export function usePicture(url: string | null): string | undefined {
  const own = url !== null && ownPictureHash(url) !== null
  const { data } = useSWRImmutable(own ? ['picture', url] : null, async ([, address]) => {
    const blob = await pictureBytes(address)
    return blob ? URL.createObjectURL(blob) : undefined
  })
  return own ? data : (url ?? undefined)
}

/** What an image element shows a picture by in a list: its small copy where there is one, else as `usePicture` does. */
export function useSmallPicture(url: string | null): string | undefined {
  const { data: small } = useSWRImmutable(url === null ? null : ['small', url], async ([, address]) => {
    const blob = await smallPicture(address)
    return blob ? URL.createObjectURL(blob) : null
  })
  const whole = usePicture(small === null ? url : null)
  return small ?? whole
}

/** What an image element shows a picture of a post by; a card is drawn in the brand's look, of a clip the card that moves, or one that stands for its film. `link` is what a code on it leads to. Undefined until it is there. */
export function useMedia(
  media: PostMedia | undefined,
  brand: string,
  link: string | null = null,
): string | undefined {
  const source = media?.source
  const drawn = source ? stillCard(source) : null
  const look = useRow('brands', drawn ? brand : null)?.look
  const address = usePicture(source?.from === 'address' ? source.url : null)
  const card = useCard(drawn, look, media?.shape ?? null, link)
  return drawn ? card?.url : address
}

/** The part of a picture that a post shows in its shape: as it was chosen, or as is proposed; undefined until that is known. */
export function useCut({ source, shape, cut }: PostMedia): Cut | undefined {
  const ask = source.from === 'address' && shape !== null && !cut
  const { data } = useSWRImmutable(
    ask ? ['proposed', source.url, shape.width, shape.height] : null,
    ([, url, width, height]) => proposedCut(url, { width, height }),
  )
  return cut ?? data
}

/** A card in a look as an image element shows it, the letters that no typeface has, and the ground it stands on; `link` is what a code on it leads to. */
export function useCard(
  card: Card | null,
  look: Look | undefined,
  shape: PostMedia['shape'],
  link: string | null = null,
): { url: string; missing: readonly string[]; ground: string } | undefined {
  const { data } = useSWRImmutable(
    card && look ? ['card', card, look, shape, hasCode(card) ? link : null] : null,
    async ([, ...drawn]) => {
      const { svg, ...told } = await (await cardsFor(drawn[1])).draw(...drawn)
      return { url: URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' })), ...told }
    },
  )
  return data
}

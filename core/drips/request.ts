import type { Angle, Card, Check, FoundPassage, Layout, Showing, Wording } from '../model'
import type { Order, Recipient } from '../writers'

/** A caption that is already out or planned, which a new one may not resemble; the newest last. */
export interface EarlierCaption {
  account: string
  network: string
  text: string
  /** The house's closing line in it, so that it does not come again among the brand's last 30 on a network. */
  closing?: string | null
  title?: string | null
  /** Whether it is of the piece that is written of, so that nothing opens like it, on whatever network. */
  samePiece?: boolean
  /** Whether it is so long ago that another may open like it and share some of its words, but no more. */
  longAgo?: boolean
}

/** A drip that is to be written. */
export interface WriteRequest extends Order {
  /** The kept passages, best first. */
  passages: readonly FoundPassage[]
  accounts: readonly Recipient[]
  /** The day of each beat. */
  days: readonly number[]
  earlier?: readonly EarlierCaption[]
  /** What the accounts' networks show before, between and after, by days from the drip's first; nothing when not said. */
  shown?: readonly Showing[]
  /** By what a picture is known, as in `shown`: like ones by one key; each by its own when not said. */
  alike?: ((key: string) => string) | undefined
  /** The layouts of cards that may be made; none when not said. */
  layouts?: readonly Layout[]
  /** Whether the piece's film has something to show with a passage on a network, in part where it may not be whole; none has where not said. */
  hasFilm?: (passage: FoundPassage | null, network: string, part: boolean) => boolean
  /** The accounts to which the film is shown in part only, since it stands there whole or a passage of it is asked for; none where not said. */
  filmInPart?: ReadonlySet<string>
  /** Days for which a picture rests on a network; 21 when not said. */
  pictureDays?: number
  /** Whether each post needs a card, on which its words stand; only where its network wants one when not said. */
  onCards?: boolean
  /** Write in this angle only; where the piece has no material for it, there is no caption. */
  angle?: Angle | undefined
  /** Whether the points of the whole piece may be one of the posts; they may unless it is said. */
  whole?: boolean | undefined
  /** How many other wordings are kept of each post; six when not said. */
  wordings?: number | undefined
}

/** A post of a drip as written, or why there is none. */
export interface WrittenPost {
  beat: number
  day: number
  account: string
  network: string
  /** Null where there is none left, and for a post of the whole piece. */
  passage: FoundPassage | null
  wording: Wording | null
  others: Wording[]
  /** The piece's address with the house's link tags, also where the words carry none; null where it has no address. */
  link: string | null
  checks: Check[]
  /** Which of the piece's images it shows, by its index, the card that is made of its words, or the piece's film. */
  picture: { image: number } | { card: Card } | { film: 'whole' | 'part' } | null
}

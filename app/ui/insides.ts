import type { Inside } from '../../core/model'

/** What hangs inside a drop of 24 by 24, as lines to be drawn; nothing for a plain post. */
export const INSIDES: Readonly<Record<Exclude<Inside, 'plain'>, string>> = {
  picture: 'M8.8 12.6h6.4v5h-6.4z',
  card: 'M8.8 12.6h6.4v5h-6.4zM10.4 14.4h3.2M10.4 16h2',
  clip: 'M10 12.2l5 2.9-5 2.9z',
  thread: 'M9 13.4h6M9 15.6h6M9 17.8h4',
}

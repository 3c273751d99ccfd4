import { nanoid } from 'nanoid'
import type { KeptColumns } from '../../core/results'

/** A brand's columns once they hold no longer. */
export function staleColumns(brand: string): KeptColumns {
  return { id: brand, stamp: nanoid(), made: null }
}

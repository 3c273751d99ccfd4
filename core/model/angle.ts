import { z } from 'zod'

/** How a caption opens and argues. */
export const ANGLES = [
  'question',
  'number',
  'how-to',
  'contrast',
  'myth',
  'story',
  'checklist',
  'lesson',
  'quotation',
  'definition',
] as const
export const Angle = z.enum(ANGLES)
export type Angle = z.infer<typeof Angle>

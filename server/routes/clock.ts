import { ClockAnswer } from '../../core/model'
import type { App, Context } from '../context'
import { typed } from './typed'

/** The shared clock as it is told. */
export function clockAnswer({ clock, options }: Context): ClockAnswer {
  return {
    now: new Date(clock.now()).toISOString(),
    offsetMilliseconds: clock.offset,
    demo: clock.demo,
    worldUrl: options.worldUrl,
  }
}

/** The shared clock, which app, server and world read. */
export function clockRoutes(app: App, context: Context): void {
  typed(app).get(
    '/api/clock',
    { schema: { summary: 'The shared clock', response: { 200: ClockAnswer } } },
    () => clockAnswer(context),
  )
}

import { z } from 'zod'
import {
  ToShorten,
  ChatLine,
  ChatMessage,
  ChatSettings,
  ChatState,
  MakerOrder,
  MakerSettings,
  MakerState,
  NoticeKind,
  ShortenerSettings,
  ShortenerState,
  ShortLink,
  StockPage,
  StockSettings,
  StockState,
  TOGETHER,
  WriterAnswer,
  WriterSettings,
  WriterState,
} from '../../core/model'
import type { App, Context } from '../context'
import { typed, type TypedApp } from './typed'
import { mustOwn } from './workspace'

/** A new key, or none to keep the one there is; an empty one takes it away. */
const Key = z.string().max(1000).optional()

const TRIAL: ChatMessage[] = [{ role: 'user', content: 'Answer with one short sentence that you are ready.' }]

/** The outside services a person connects: a writer, a shortener, the team chat. Their keys never leave the server. */
export function serviceRoutes(app: App, context: Context): void {
  const services = () => context.parts().services

  void app.register(async (scope) => {
    scope.addHook('preHandler', async (request) => void (await mustOwn(request, context)))
    const routes = typed(scope)

    routes.get(
      '/api/writer',
      { schema: { summary: 'The connected writer and the words of today', response: { 200: WriterState } } },
      () => services().writer.state(),
    )
    routes.put(
      '/api/writer',
      {
        schema: {
          summary: 'Connect a writer, or change how it is asked',
          body: z.object({ settings: WriterSettings, key: Key }),
          response: { 200: WriterState },
        },
      },
      async (request) => {
        await services().writer.connect(request.body.settings, request.body.key)
        return services().writer.state()
      },
    )
    routes.delete(
      '/api/writer',
      { schema: { summary: 'Disconnect the writer and forget its key', response: { 200: WriterState } } },
      async () => {
        await services().writer.disconnect()
        return services().writer.state()
      },
    )
    routes.post(
      '/api/writer/try',
      { schema: { summary: 'One small question to the connected writer', response: { 200: WriterAnswer } } },
      () => services().writer.ask(TRIAL),
    )
    routes.post(
      '/api/writer/ask',
      {
        schema: {
          summary: 'Put a question to the connected writer',
          body: z.object({
            messages: z.array(ChatMessage).min(1).max(12),
            answers: z.int().min(1).max(TOGETHER).default(1),
          }),
          response: { 200: WriterAnswer },
        },
      },
      (request) => services().writer.ask(request.body.messages, request.body.answers),
    )

    routes.get(
      '/api/shortener',
      { schema: { summary: 'The connected shortener', response: { 200: ShortenerState } } },
      () => services().shortener.state(),
    )
    routes.put(
      '/api/shortener',
      {
        schema: {
          summary: 'Connect a shortener',
          body: z.object({ settings: ShortenerSettings, key: Key }),
          response: { 200: ShortenerState },
        },
      },
      async (request) => {
        await services().shortener.connect(request.body.settings, request.body.key)
        return services().shortener.state()
      },
    )
    routes.delete(
      '/api/shortener',
      {
        schema: { summary: 'Disconnect the shortener and forget its key', response: { 200: ShortenerState } },
      },
      async () => {
        await services().shortener.disconnect()
        return services().shortener.state()
      },
    )
    routes.post(
      '/api/shortener/links',
      {
        schema: {
          summary: 'Short links for addresses, in their order',
          body: z.object({ links: z.array(ToShorten).min(1).max(200) }),
          response: { 200: z.object({ links: z.array(ShortLink) }) },
        },
      },
      async (request) => ({ links: await services().shortener.shorten(request.body.links) }),
    )
    routes.post(
      '/api/shortener/clicks',
      {
        schema: {
          summary: 'How often short links were followed',
          body: z.object({ links: z.array(z.url()).min(1).max(200) }),
          response: { 200: z.object({ links: z.array(ShortLink) }) },
        },
      },
      async (request) => ({ links: await services().shortener.clicks(request.body.links) }),
    )
    stockRoutes(routes, context)
    makerRoutes(routes, context)
    chatRoutes(routes, context)
  })
}

function stockRoutes(routes: TypedApp, context: Context): void {
  const stock = () => context.parts().services.stock
  routes.get(
    '/api/stock',
    { schema: { summary: 'The connected stock of pictures', response: { 200: StockState } } },
    () => stock().state(),
  )
  routes.put(
    '/api/stock',
    {
      schema: {
        summary: 'Connect a stock of pictures',
        body: z.object({ settings: StockSettings, key: Key }),
        response: { 200: StockState },
      },
    },
    async (request) => {
      await stock().connect(request.body.settings, request.body.key)
      return stock().state()
    },
  )
  routes.delete(
    '/api/stock',
    { schema: { summary: 'Disconnect the stock and forget its key', response: { 200: StockState } } },
    async () => {
      await stock().disconnect()
      return stock().state()
    },
  )
  routes.post(
    '/api/stock/search',
    {
      schema: {
        summary: 'A page of the pictures that words find in the stock',
        body: z.object({ words: z.string().max(200), page: z.int().min(1).max(1000).default(1) }),
        response: { 200: StockPage },
      },
    },
    (request) => stock().search(request.body.words, request.body.page),
  )
}

function makerRoutes(routes: TypedApp, context: Context): void {
  const maker = () => context.parts().services.maker
  routes.get(
    '/api/maker',
    {
      schema: {
        summary: 'The service that makes pictures, and the orders of today',
        response: { 200: MakerState },
      },
    },
    () => maker().state(),
  )
  routes.put(
    '/api/maker',
    {
      schema: {
        summary: 'Connect a service that makes pictures, or change its budget',
        body: z.object({ settings: MakerSettings, key: Key }),
        response: { 200: MakerState },
      },
    },
    async (request) => {
      await maker().connect(request.body.settings, request.body.key)
      return maker().state()
    },
  )
  routes.delete(
    '/api/maker',
    {
      schema: {
        summary: 'Disconnect the service that makes pictures and forget its key',
        response: { 200: MakerState },
      },
    },
    async () => {
      await maker().disconnect()
      return maker().state()
    },
  )
  routes.post(
    '/api/maker/orders',
    {
      schema: {
        summary: 'Order a picture, its size in pixels',
        body: z.object({
          words: z.string().min(1).max(4000),
          width: z.int().min(64).max(2048),
          height: z.int().min(64).max(2048),
        }),
        response: { 200: z.object({ id: z.string() }) },
      },
    },
    async ({ body: { words, width, height } }) => ({ id: await maker().order(words, { width, height }) }),
  )
  routes.get(
    '/api/maker/orders/:id',
    {
      schema: {
        summary: 'How an order stands',
        params: z.object({ id: z.string().max(200) }),
        response: { 200: MakerOrder },
      },
    },
    (request) => maker().standing(request.params.id),
  )
}

function chatRoutes(routes: TypedApp, context: Context): void {
  const chat = () => context.parts().services.chat
  routes.get(
    '/api/chat',
    { schema: { summary: 'The connected team chat', response: { 200: ChatState } } },
    () => chat().state(),
  )
  routes.put(
    '/api/chat',
    {
      schema: {
        summary: 'Connect a team chat; its address is a secret and is not told again',
        body: z.object({ settings: ChatSettings }),
        response: { 200: ChatState },
      },
    },
    async (request) => {
      await chat().connect(request.body.settings)
      return chat().state()
    },
  )
  routes.delete(
    '/api/chat',
    {
      schema: {
        summary: 'Disconnect the team chat and drop what waits for it',
        response: { 200: ChatState },
      },
    },
    async () => {
      await chat().disconnect()
      return chat().state()
    },
  )
  routes.put(
    '/api/chat/notices',
    {
      schema: {
        summary: 'Which notices the server says in the team chat by itself, also while the app is closed',
        body: z.object({ kinds: z.array(NoticeKind) }),
        response: { 200: z.object({ kinds: z.array(NoticeKind) }) },
      },
    },
    async (request) => {
      await chat().hears(request.body.kinds)
      return { kinds: request.body.kinds }
    },
  )
  routes.post(
    '/api/chat/messages',
    {
      schema: {
        summary: 'Say something in the team chat; what could not be sent at once follows',
        body: z.object({ messages: z.array(ChatLine).min(1).max(100) }),
        response: { 200: ChatState },
      },
    },
    async (request) => {
      await chat().say(request.body.messages)
      await chat().flush()
      return chat().state()
    },
  )
}

import type { ServedNetwork } from '../../core/networks'

/** The network's own OpenAPI description, made from its profile. */
export function describe(profile: ServedNetwork, origin: string): unknown {
  const error = {
    description: 'Refused, with the reason',
    content: {
      'application/json': {
        schema: {
          type: 'object',
          properties: { error: { type: 'string' }, field: { type: 'string' }, reason: { type: 'string' } },
        },
      },
    },
  }
  const path = (method: string, summary: string, answers: Record<string, string>): unknown => ({
    [method]: {
      summary,
      responses: {
        ...Object.fromEntries(Object.entries(answers).map(([code, description]) => [code, { description }])),
        '401': error,
      },
    },
  })
  return {
    openapi: '3.1.0',
    info: { title: profile.name, version: '1', description: `A stand-in network: ${profile.kind}.` },
    servers: [{ url: `${origin}${profile.service.path}` }],
    paths: {
      '/authorize': path('get', 'The page on which a person allows an account', { '200': 'The page' }),
      '/token': path('post', 'Exchange a code for a token', { '200': 'Token and account' }),
      '/account': path('get', 'Check a token', {
        '200': 'The account and its places, with how many follow each, and when the token ends',
      }),
      '/tags': path('get', 'How often tags (name, repeated) were posted with in the last seven days', {
        '200': 'The figures by tag',
      }),
      '/media': path('post', 'Upload a picture, a clip or a document', {
        '201': 'Its id',
        '413': 'Too large',
        '415': 'None of these',
      }),
      '/posts': {
        ...(path('get', 'Find a post by its Idempotency-Key, the parameter key', {
          '200': 'The post',
          '404': 'There is none',
        }) as object),
        ...(path(
          'post',
          `Publish, with an Idempotency-Key. Text up to ${profile.text.limit ?? 'any number of'} characters.`,
          {
            '201': 'The post',
            '200': 'The same post as before',
            '403': 'The token does not reach the target',
            '422': 'A rule is broken; field and reason say which',
            '429': 'Too many; see Retry-After',
          },
        ) as object),
      },
      '/posts/{id}': {
        ...(path('get', 'Read a post', { '200': 'The post' }) as object),
        ...(path('delete', 'Take a post down', { '204': 'Gone' }) as object),
      },
      '/posts/{id}/measures': path('get', `How readers take a post: ${profile.measures.join(', ')}`, {
        '200': 'How often each was counted until now',
        '404': 'There is no such post',
      }),
    },
  }
}

import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import { defineConfig, globalIgnores } from 'eslint/config'
import tseslint from 'typescript-eslint'

const CORE = String.raw`^(\.\./)+core/\w+/`
const face = (regex, room) => ({ regex, message: `Import the face of ${room}, not its inside.` })
const foreign = (...rooms) =>
  rooms.map((room) => ({
    regex: String.raw`^(\.\./)+${room}(/|$)`,
    message: `${room}/ is not imported from here; see docs/builders.md.`,
  }))
const restrict = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] })
const inside = face(CORE, 'a room of core')

const NODE = {
  regex: String.raw`^(node:|fs$|path$|http$|crypto$)`,
  message: 'core runs in browsers, workers and Node alike.',
}
const CHANCE = 'Time and chance are passed into core.'

export default defineConfig(
  globalIgnores(['dist', 'node_modules', 'test-results', 'playwright-report', '.build', '.dripline']),
  js.configs.recommended,
  tseslint.configs.recommended,
  hooks.configs.flat['recommended-latest'],
  {
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      'no-console': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: {
      ...restrict(
        NODE,
        { regex: '^(react|@chakra-ui|swr|idb|fastify)', message: 'core has no interface and no network.' },
        face(String.raw`^\.\./\w+/`, 'the other room'),
        ...foreign('app', 'server', 'cli', 'world', 'demo'),
      ),
      'no-restricted-globals': [
        'error',
        ...[
          'window',
          'document',
          'fetch',
          'localStorage',
          'indexedDB',
          'process',
          'navigator',
          'performance',
        ].map((name) => ({ name, message: 'core has no DOM, no network and no clock.' })),
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "MemberExpression[object.name='Math'][property.name='random']", message: CHANCE },
        { selector: "MemberExpression[object.name='Date'][property.name='now']", message: CHANCE },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: CHANCE },
      ],
    },
  },
  {
    // What judges shares nothing with what writes, and the judge of the tests with nothing at all.
    files: ['core/judging/**/*.ts'],
    rules: restrict(
      NODE,
      face(String.raw`^\.\./\w+/`, 'the other room'),
      ...foreign('app', 'server', 'cli', 'world', 'demo'),
      {
        regex: String.raw`^(\.\./)+(writers|setting|drips|angles|passages)(/|$)`,
        message: 'Nothing that judges imports what writes.',
      },
    ),
  },
  {
    files: ['core/drips/testing/{judge,verbatim}.ts'],
    rules: restrict({
      regex: String.raw`^(?!\./verbatim$)`,
      message: 'The judge of the tests shares nothing with what it judges.',
    }),
  },
  { files: ['cli/**/*.ts'], rules: restrict(inside, ...foreign('app', 'server', 'world', 'demo')) },
  {
    files: ['app/**/*.{ts,tsx}'],
    rules: restrict(
      inside,
      NODE,
      face(String.raw`^(\.\./)+(data/(?!more$)|(ui|workers|shell|desk|writing)/)`, 'the other folder'),
      ...foreign('server', 'cli', 'world', 'demo'),
    ),
  },
  // Inside data/ the folders see one another.
  {
    files: ['app/data/**/*.ts'],
    rules: restrict(inside, NODE, ...foreign('server', 'cli', 'world', 'demo', 'ui', 'shell')),
  },
  { files: ['server/**/*.ts'], rules: restrict(inside, ...foreign('app', 'cli', 'world', 'demo')) },
  { files: ['world/**/*.ts'], rules: restrict(inside, ...foreign('app', 'server', 'cli', 'demo')) },
  {
    files: ['demo/**/*.ts'],
    rules: restrict(
      inside,
      face(String.raw`^(\.\./)+world/`, 'the world'),
      ...foreign('app', 'server', 'cli'),
    ),
  },
  {
    files: [
      'scripts/**/*.mjs',
      'bin/**/*.mjs',
      'docs/**/*.mjs',
      'bench/**/*.ts',
      'train/**/*.ts',
      'e2e/screenshots.ts',
    ],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        Buffer: 'readonly',
        fetch: 'readonly',
        setTimeout: 'readonly',
        AbortSignal: 'readonly',
      },
    },
    rules: { 'no-console': 'off' },
  },
  {
    files: ['**/*.test.ts', '**/*.faults.ts', 'app/data/testing/**', 'e2e/**'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off', 'no-restricted-imports': 'off' },
  },
)

import prettier from 'eslint-config-prettier/flat'
import withNuxt from './.nuxt/eslint.config.mjs'

/** The arrows of the house: app → shared, core · server → shared, core · shared → core · core → nothing. */
const forbid = (files, group, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
})

/** The rooms of core, each reading only those before it. */
const ROOMS = [
  ...['units', 'abrasives', 'air', 'colour', 'formats', 'approval', 'parts', 'piece', 'identify', 'wood', 'safety'],
  ...['examine', 'report', 'materials', 'mixing', 'drying', 'coverage', 'house', 'context', 'acts', 'build', 'plan'],
  ...['section'],
  ...['estimate', 'rules', 'timetable', 'schedule', 'simulate', 'ground', 'store', 'vapour', 'diagnose', 'papers'],
]
const NEVER_IN_CORE = [
  ...['#shared/*', '#imports', 'vue', 'nuxt', 'nuxt/*', 'h3', 'pinia', 'mysql2*', 'zod', 'node:*'],
  ...['**/app/**', '**/server/**', '**/shared/**'],
]
const rooms = ROOMS.map((room, i) =>
  forbid(
    [`core/${room}/**`],
    [...NEVER_IN_CORE, ...ROOMS.slice(i + 1).flatMap(later => [`../${later}`, `../${later}/*`])],
    'core imports nothing but core and a few pure packages, and a room only the rooms before it (ROOMS in this file)',
  ),
)

export default withNuxt(
  { ignores: ['.data/**', '.output*/**', 'docs/**'] },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/no-v-html': 'off',
      'no-nested-ternary': 'error',
      'max-lines': ['error', { max: 350, skipBlankLines: true, skipComments: true }],
    },
  },
  // tables and stories: long by nature
  { files: ['tests/**', 'demo/pieces.ts'], rules: { 'max-lines': 'off' } },
  ...rooms,
  forbid(
    ['shared/**'],
    ['vue', 'h3', 'pinia', 'mysql2*', 'node:*', '**/app/**', '**/server/**'],
    'shared imports core and zod only',
  ),
  forbid(['app/**'], ['**/server/**', 'mysql2*', 'node:*'], 'app imports shared and core, never the server'),
  forbid(
    ['server/**'],
    ['**/app/**', 'vue', 'pinia', '@headlessui/*'],
    'server imports shared and core, never the app',
  ),
  {
    files: ['core/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression[callee.object.name="Date"][callee.property.name="now"]',
          message: 'Time comes in as an argument.',
        },
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Time comes in as an argument.' },
        {
          selector: 'CallExpression[callee.object.name="Math"][callee.property.name="random"]',
          message: 'Chance comes in as a seed.',
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch'],
    },
  },
  prettier,
)

import hooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import tseslint from 'typescript-eslint'

const places = [
  'clients',
  'dossier',
  'fitting',
  'library',
  'log',
  'priorities',
  'sheet',
  'signin',
  'stances',
  'studio',
  'week',
]

/** Who may not import whom: a place no other place, what places share no place, the client's page nothing of the coach's. */
const walls = (files, group, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
})

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  ...tseslint.configs.recommendedTypeChecked,
  hooks.configs.flat['recommended-latest'],
  {
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: {
      globals: globals.browser,
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      // Handlers of events may be promises: what they throw is caught by the page's own boundary.
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
  // Stand-ins for a server promise without waiting.
  { files: ['src/**/*.test.{ts,tsx}'], rules: { '@typescript-eslint/require-await': 'off' } },
  { files: ['*.js', '*.ts'], extends: [tseslint.configs.disableTypeChecked] },
  walls(
    ['src/places/**'],
    places.map((p) => `../${p}/*`),
    'A place imports no other place: what both need belongs in ui or prescription.',
  ),
  walls(
    ['src/{ui,prescription,figures,saving,api}/**'],
    ['**/places/**', '**/link/**'],
    'What places share imports no place.',
  ),
  walls(
    ['src/link/**', 'src/floor/**'],
    ['antd', 'react-router', '@tanstack/*', '**/places/**', '**/saving/**', '**/prescription/**', '**/app/*.ts*'],
    'The client’s page is small: React and what the sheet needs.',
  ),
)

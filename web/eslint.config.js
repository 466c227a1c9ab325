import a11y from 'eslint-plugin-jsx-a11y-x'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

const above = (layer) => ({ group: [`**/${layer}/**`], message: `${layer} stand above.` })

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  ...tseslint.configs.strict,
  hooks.configs.flat.recommended,
  a11y.configs.recommended ?? a11y.flatConfigs.recommended,
  {
    files: ['src/**/*.ts', 'src/**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: { '@typescript-eslint/no-floating-promises': 'error' },
  },
  {
    files: ['src/**/*.tsx'],
    ignores: ['src/**/*.test.tsx'],
    // A page is a hook and parts.
    rules: { 'max-lines-per-function': ['error', { max: 120, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['src/views/**', 'src/instruments/**', 'src/ui/**'],
    rules: {
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Only src/api talks to the network.' }],
    },
  },
  // Arrows run downwards: views, instruments, offline, ui, api.
  {
    files: ['src/instruments/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [above('views')] }] },
  },
  {
    files: ['src/offline/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [above('views'), above('instruments')] }] },
  },
  {
    files: ['src/ui/**', 'src/api/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: [above('views'), above('instruments'), above('offline')] }] },
  },
)

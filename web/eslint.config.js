import hooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  ...tseslint.configs.recommended,
  hooks.configs.flat['recommended-latest'],
  { files: ['src/**/*.{ts,tsx}'], languageOptions: { globals: globals.browser } },
)

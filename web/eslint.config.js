import boundaries from 'eslint-plugin-boundaries'
import pluginVue from 'eslint-plugin-vue'
import a11y from 'eslint-plugin-vuejs-accessibility'
import tseslint from 'typescript-eslint'

// The rooms of the page: each may use only what is listed beside it (docs/architecture.md).
const features = [
  'read',
  'shot',
  'break',
  'safety',
  'library',
  'frames',
  'club',
  'practice',
  'progress',
  'learning',
  'devices',
  'photo',
  'handbook',
  'glance',
]
const below = {
  api: ['api'],
  lib: ['lib', 'api'],
  domain: ['domain', 'lib', 'api'],
  ui: ['ui', 'domain', 'lib', 'api'],
  table: ['table', 'ui', 'domain', 'lib', 'api'],
  position: ['position', 'table', 'ui', 'domain', 'lib', 'api'],
  app: ['app', 'feature', 'position', 'table', 'ui', 'domain', 'lib', 'api'],
}

// Rules that ask the type checker take two thirds of the time: ./test leaves them to ./test long, an ordinary lint has them.
const isQuick = process.env.DEEPBAIZE_QUICK === '1'

const of = (type, name) => ({ element: { type, ...(name ? { captured: { name } } : {}) } })

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.ts', '*.config.*'] },
  ...tseslint.configs.recommended,
  ...pluginVue.configs['flat/essential'],
  ...a11y.configs['flat/recommended'],
  {
    languageOptions: {
      parserOptions: {
        ...(isQuick ? {} : { project: './tsconfig.json' }),
        extraFileExtensions: ['.vue'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    plugins: { boundaries },
    settings: {
      'boundaries/elements': [
        { type: 'feature', pattern: 'src/features/*', capture: ['name'] },
        ...Object.keys(below).map((type) => ({ type, pattern: `src/${type}` })),
      ],
      'import/resolver': { node: { extensions: ['.ts', '.vue'] } },
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            ...Object.entries(below).map(([from, to]) => ({ from: of(from), allow: { to: of(to) } })),
            // Features never import one another.
            { from: of('feature'), allow: { to: of(below.position) } },
            ...features.map((name) => ({ from: of('feature', name), allow: { to: of('feature', name) } })),
          ],
        },
      ],
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      ...(isQuick
        ? { 'vue/no-ref-as-operand': 'off' }
        : {
            '@typescript-eslint/no-floating-promises': 'error',
            '@typescript-eslint/await-thenable': 'error',
            '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
            '@typescript-eslint/no-unnecessary-type-assertion': 'error',
            '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
          }),
      // Element Plus's fields carry their own labels; a list that is pointed at has the same by the keyboard within its rows.
      'vuejs-accessibility/label-has-for': 'off',
      'vuejs-accessibility/form-control-has-label': 'off',
      'vuejs-accessibility/no-static-element-interactions': 'off',
      'vuejs-accessibility/mouse-events-have-key-events': 'off',
    },
  },
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    // Controls are Element Plus's, or our own in ui/ and table/.
    files: ['src/**/*.vue'],
    ignores: ['src/ui/**', 'src/table/**'],
    rules: { 'vue/no-restricted-html-elements': ['error', 'button', 'select', 'input', 'table', 'textarea', 'progress'] },
  },
)

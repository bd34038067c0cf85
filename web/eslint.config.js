import js from '@eslint/js'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

const never = (files, group) => ({ files, rules: { 'no-restricted-imports': ['error', { patterns: [{ group }] }] } })

export default ts.config(
  { ignores: ['dist', 'target', 'node_modules', 'src/api/generated'] },
  js.configs.recommended,
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    rules: {
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/attributes-order': 'off',
    },
  },
  // Components show, composables do, stores remember; dependencies go in that order and never back.
  never(['src/api/**', 'src/editing/**'], ['**/stores/*', '**/bench/**', '**/views/*', '**/shell/*']),
  never(['src/stores/**'], ['**/bench/**', '**/views/*', '**/shell/*']),
  never(['src/bench/**', 'src/shell/**'], ['**/views/*']),
)

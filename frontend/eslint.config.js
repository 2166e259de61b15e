import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import { defineConfig } from 'eslint/config'
import ts from 'typescript-eslint'

// What keeps code readable and right; how it is laid out is prettier's business.
export default defineConfig(
  { ignores: ['dist', 'src/api/schema.d.ts'] },
  ts.configs.recommended,
  vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  prettier,
  {
    rules: {
      eqeqeq: 'error',
      'max-lines': ['error', { max: 450 }],
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      'no-console': 'error',
      'vue/define-macros-order': [
        'error',
        { order: ['defineOptions', 'defineModel', 'defineProps', 'defineEmits', 'defineSlots'] },
      ],
      'vue/no-v-html': 'error', // text from people is text everywhere
      'vue/require-default-prop': 'off', // a prop that may be left out is undefined, and typed so
    },
  },
)

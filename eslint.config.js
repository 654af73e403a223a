import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';

const NO_PLATFORM = [
  'fetch',
  'window',
  'document',
  'process',
  'setTimeout',
  'setInterval',
  'performance',
  'crypto',
  'console',
];

export default tseslint.config(
  { ignores: ['**/node_modules/**', '**/dist/**'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
    rules: {
      // PrimeVue's option types are looser than ours.
      '@typescript-eslint/no-explicit-any': 'off',
      // Prettier lays the templates out.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/require-default-prop': 'off',
      'vue/multi-word-component-names': 'off',
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
    },
  },
  // Tests look into answers of every shape.
  { files: ['**/*.test.ts', '**/testing/*.ts', 'e2e/*.ts'], rules: { '@typescript-eslint/no-explicit-any': 'off' } },
  {
    // A migration says today what it said when it was released: nothing of the living code speaks in it.
    files: ['server/db/migrations/*.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ group: ['*', '.*', '@unto/*'], message: 'Write it out.' }] }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', ...NO_PLATFORM],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Pass a seeded generator in.' },
        { object: 'Date', property: 'now', message: 'Pass the time in.' },
      ],
      'max-lines-per-function': ['error', { max: 70, skipBlankLines: true, skipComments: true }],
    },
  },
);

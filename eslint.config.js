import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.data/**',
      '*.cjs',
      'apps/web/*.cjs',
      'tools/*.mjs',
      'test-results/**',
    ],
  },
  ...tseslint.configs.strictTypeChecked,
  {
    languageOptions: { parserOptions: { projectService: { allowDefaultProject: ['*.js'] } } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      'max-lines': ['error', { max: 320, skipBlankLines: true, skipComments: true }],
      'no-console': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      // The core is handed its clock and its chance, so that the same case gives the same advice.
      'no-restricted-globals': ['error', 'window', 'document', 'fetch', 'setTimeout', 'setInterval', 'process'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Core reads no clock: hand the time in.' },
        { object: 'Math', property: 'random', message: 'Core draws no chance: hand a Random in.' },
      ],
    },
  },
  {
    files: ['**/*.test.{ts,tsx}', 'apps/server/test/**', 'e2e/**'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      'max-lines': 'off',
    },
  },
  // The ORM describes its schemas as classes and is written to with plain objects.
  { files: ['**/entities.ts'], rules: { '@typescript-eslint/no-unsafe-class-instance-assignment': 'off' } },
  { files: ['*.js'], ...tseslint.configs.disableTypeChecked },
);

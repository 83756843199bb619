import next from 'eslint-config-next/core-web-vitals';
import typescript from 'eslint-config-next/typescript';
import regexp from 'eslint-plugin-regexp';

export default [
  { ignores: ['.next/', 'node_modules/', 'data/', 'next-env.d.ts'] },
  ...next,
  ...typescript,
  {
    plugins: { regexp },
    rules: {
      // No expression takes longer than its text is long, whatever somebody types or uploads.
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential' }],
      'no-console': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-else-return': 'error',
      'import/no-anonymous-default-export': 'off',
      'prefer-const': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 400 }],
    },
  },
  { files: ['scripts/**', 'tests/**'], rules: { 'no-console': 'off' } },
];

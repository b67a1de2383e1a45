import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import unlikeSides from './eslint-rules/unlike-sides.js';
import svelteConfig from './web/svelte.config.js';

// A drill is a kind of bit, too.
const KINDS_OF_CUT = '/^(v-carve|profile|pocket|inlay)$/';

export default ts.config(
  { ignores: ['**/build/', '**/.svelte-kit/', '**/node_modules/', '.data/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      // A longer file says why at its head: `eslint max-lines: off -- reason`.
      'max-lines': ['error', { max: 400, skipComments: false }],
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/prefer-svelte-reactivity': 'off',
      'no-undef': 'off',
    },
  },
  {
    // What a kind of cut is like, its folder says (`cuts/<kind>/`, `kindOf`); what stands beside a registry may look in it.
    files: ['{core,machine,web,command}/**/src/**/*.{ts,svelte}', '{core,machine,web,command}/src/**/*.{ts,svelte}'],
    ignores: ['**/*.test.ts', 'core/src/{cuts,tools,machines}/*/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        ...[
          `BinaryExpression[left.property.name='kind'][right.value=${KINDS_OF_CUT}]`,
          `BinaryExpression[left.object.name=/^(cut|c)$/][left.property.name='kind']`,
          `BinaryExpression[left.name='kind'][right.value=${KINDS_OF_CUT}]`,
          `SwitchCase[test.value=${KINDS_OF_CUT}]`,
          `BinaryExpression[operator='in'][right.name=/^(cut|c)$/]`,
        ].map((selector) => ({ selector, message: 'Ask the kind (kindOf) instead of which kind it is.' })),
        ...[
          `BinaryExpression[left.property.name='kind'][right.value=/^(v|end|drill|router)$/]`,
          `SwitchCase[test.value=/^(v|end|drill|router)$/]`,
        ].map((selector) => ({ selector, message: 'Ask the kind of tool or machine instead of which it is.' })),
        {
          selector: `BinaryExpression[left.name='unit'][right.value=/^(in|mm)$/]`,
          message: 'What differs between units stands in quantity/units.ts.',
        },
      ],
    },
  },
  {
    // SQL stands in `lib/server`; routes call it.
    files: ['web/src/routes/**/*.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'MemberExpression[property.name=/^(selectFrom|insertInto|updateTable|deleteFrom)$/]',
          message: 'Put the query into lib/server and call it.',
        },
      ],
    },
  },
  {
    files: ['**/*.test.ts', '**/*-for-tests.ts'],
    plugins: { kerbe: { rules: { 'unlike-sides': unlikeSides } } },
    rules: { 'kerbe/unlike-sides': 'error' },
  },
  {
    // A space at the start of a block is dropped unless it stands in a mustache.
    files: ['**/*.svelte'],
    rules: { 'svelte/no-useless-mustaches': 'off' },
  },
);

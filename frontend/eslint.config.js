import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['node_modules', 'dist', 'src/lib/api/schema.d.ts'] },
	js.configs.recommended,
	...ts.configs.strict,
	...svelte.configs.recommended,
	{ languageOptions: { globals: { ...globals.browser } } },
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } }
	},
	{
		files: ['src/lib/**'],
		rules: {
			'no-restricted-imports': [
				'error',
				{ patterns: [{ group: ['**/routes/**'], message: 'lib knows nothing of the views.' }] }
			]
		}
	},
	{ rules: { 'max-lines': ['error', 400] } },
	{ files: ['**/*.svelte'], rules: { 'max-lines': ['error', 240] } }
);

import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';
import noCircles from './scripts/lint/no-circles.js';

// the one way in which imports point: routes → lib/server and lib/ui → core; core imports nothing of the rest
const room = (files, group, message, ...patterns) => ({
	files,
	rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }, ...patterns] }] }
});

// the framework's own give up a link that was pressed a moment before
const byRefresh = [
	['$app/navigation', ['invalidate', 'invalidateAll']],
	['$app/forms', ['enhance']]
].map(([name, importNames]) => ({
	group: [name],
	importNames,
	message: 'Take refresh, refreshEvery or enhance of $lib/ui/refresh.'
}));

// what the core may not know at all
const outside = [
	'node:*',
	'svelte',
	'svelte/*',
	'@sveltejs/*',
	'$app/*',
	'$lib/*',
	'$env/*',
	'**/src/**',
	'**/cli/**',
	'**/scripts/**',
	'**/demo/**',
	'mysql2',
	'mysql2/*'
];

// the rooms of the core from the ground up: each knows those below it
const storeys = [
	'model',
	'numbers',
	'xml',
	'reports',
	'markup',
	'kinds',
	'scoring',
	'compare',
	'checks',
	'draws',
	'paper',
	'container',
	'formats',
	'take-in',
	'edits'
];
const coreRooms = storeys.map((name, at) =>
	room(
		[`core/${name}/**/*.ts`],
		[
			...outside,
			...storeys
				.slice(at + 1)
				.flatMap((above) => [
					`../${above}`,
					`../${above}/**`,
					`../../${above}`,
					`../../${above}/**`,
					`../../../${above}`,
					`../../../${above}/**`
				])
		],
		`The core imports nothing of the rest, and its rooms know only those below them: ${storeys.join(', ')}.`
	)
);

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'var/', 'node_modules/', 'bench/big.mjs'] },
	js.configs.recommended,
	...ts.configs.strict,
	...svelte.configs.recommended,
	{ languageOptions: { globals: { ...globals.browser, ...globals.node } } },
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } }
	},
	{
		rules: {
			'no-undef': 'off',
			'@typescript-eslint/no-non-null-assertion': 'off',
			'@typescript-eslint/no-unused-vars': [
				'error',
				{ argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' }
			],
			'@typescript-eslint/unified-signatures': 'off',
			'svelte/no-navigation-without-resolve': 'off',
			'svelte/prefer-svelte-reactivity': 'off'
		}
	},
	// rules that ask for types: a promise that nobody waits for is a fault that nobody hears of
	{
		files: ['{core,cli,src,scripts,e2e,demo,bench,test-support}/**/*.ts'],
		ignores: ['**/*.svelte.ts'],
		extends: [ts.configs.strictTypeChecked],
		languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
		rules: {
			'@typescript-eslint/no-floating-promises': 'error',
			'@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
			'@typescript-eslint/await-thenable': 'error',
			// what stands at a place of a list that was just counted is there
			'@typescript-eslint/no-non-null-assertion': 'off',
			'@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowBoolean: true }],
			'@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
			// what a table of functions asks for is a promise, also where one of them has nothing to wait for
			'@typescript-eslint/require-await': 'off',
			// these take a variable that a callback sets for one that stays, and every text that is spread for a slip
			'@typescript-eslint/no-unnecessary-condition': 'off',
			'@typescript-eslint/no-misused-spread': 'off',
			'@typescript-eslint/no-base-to-string': 'off',
			// what the database counts comes as text
			'@typescript-eslint/no-unnecessary-type-conversion': 'off',
			'@typescript-eslint/no-deprecated': 'off'
		}
	},
	{
		// what a route is given is typed by the framework, which svelte-check knows and this does not
		files: ['src/routes/**/*.ts'],
		rules: Object.fromEntries(
			['argument', 'assignment', 'call', 'member-access', 'return'].map((what) => [
				`@typescript-eslint/no-unsafe-${what}`,
				'off'
			])
		)
	},
	{
		// what a test expects is compared, and not used
		files: ['**/*.test.ts', 'e2e/**'],
		rules: {
			'@typescript-eslint/no-unsafe-assignment': 'off',
			'@typescript-eslint/no-unsafe-return': 'off',
			'@typescript-eslint/no-unsafe-member-access': 'off',
			'@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
			'@typescript-eslint/restrict-template-expressions': 'off',
			'@typescript-eslint/no-meaningless-void-operator': 'off',
			'@typescript-eslint/no-confusing-void-expression': 'off'
		}
	},
	{
		files: ['core/**', 'cli/**', 'src/**'],
		ignores: ['**/*.test.ts', 'core/test-support/**'],
		rules: {
			// a table is asked by names that may come from outside, and every object has some that nobody has put into it
			'no-restricted-syntax': [
				'error',
				{
					selector:
						"Program > VariableDeclaration > VariableDeclarator[id.typeAnnotation.typeAnnotation.typeName.name='Record'][id.typeAnnotation.typeAnnotation.typeArguments.params.0.type='TSStringKeyword'] > ObjectExpression[properties.length>0]",
					message: 'Make it a table by lookup() of core/model/lookup.ts, or a Map.'
				}
			]
		}
	},
	{
		files: ['{core,cli,src,scripts}/**/*.ts'],
		ignores: ['**/*.test.ts', 'core/test-support/**'],
		rules: { 'max-lines-per-function': ['error', { max: 80, skipBlankLines: true, skipComments: true }] }
	},
	...coreRooms,
	{
		files: ['core/**/*.ts'],
		plugins: { house: { rules: { 'no-circles': noCircles } } },
		rules: { 'house/no-circles': 'error' }
	},
	room(
		['src/lib/ui/**', 'src/lib/workers/**'],
		['node:*', 'mysql2', 'mysql2/*', '**/cli/**', '**/scripts/**'],
		'Components and web workers run in the browser; they take types alone from the server.',
		...byRefresh
	),
	{ files: ['src/lib/ui/refresh.ts'], rules: { 'no-restricted-imports': 'off' } },
	room(
		['src/lib/server/**'],
		['**/routes/**', '**/lib/ui/**', '$lib/ui/*', '**/cli/**', '**/scripts/**', '**/demo/**'],
		'The server knows nothing of pages.'
	),
	room(
		['src/routes/**'],
		['mysql2', 'mysql2/*', '**/cli/**', '**/scripts/**', '**/demo/**'],
		'Routes are thin: SQL lives under src/lib/server.',
		...byRefresh
	),
	// tests of the core may set up what they need
	{ files: ['**/*.test.ts', 'core/test-support/**'], rules: { 'no-restricted-imports': 'off' } }
);

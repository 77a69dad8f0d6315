import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Something of the application that can be asked for: a page, an endpoint or an action of a page. */
export interface Endpoint {
	/** The route below a course, as its folder is called; empty for the course itself. */
	route: string;
	/** The method of an endpoint, `load` for what a page shows, or the name of an action. */
	what: string;
	/** What it takes from those who ask, below the address of a course. */
	path: string;
	/** What is sent: fields of a form for an action, else JSON or bytes. */
	sent?: Record<string, unknown> | string;
	/** What one has to be allowed to do in the course where looking is not enough. */
	needs?: 'work' | 'manage';
}

const decision = JSON.stringify({ bankName: 'x' });

const emptySheet = { parts: [] };

/** All of them below a course, each with a question that is well-formed. A new one is an entry here. */
export const endpoints: Endpoint[] = [
	{ route: '', what: 'load', path: '' },
	{ route: 'banks', what: 'load', path: 'banks' },
	{ route: 'banks/rows', what: 'GET', path: 'banks/rows?bank=1&from=0' },
	{
		route: 'banks/bulk',
		what: 'POST',
		path: 'banks/bulk?preview=1',
		sent: { do: 'bin', chosen: { bankId: 1 } },
		needs: 'work'
	},
	{ route: 'banks/files', what: 'PUT', path: 'banks/files?type=image/png&name=a.png', sent: 'x', needs: 'work' },
	{ route: 'banks/places', what: 'GET', path: 'banks/places' },
	{
		route: 'banks/questions',
		what: 'POST',
		path: 'banks/questions',
		sent: { bankId: 999_999, question: {} },
		needs: 'work'
	},
	{ route: 'banks/questions/[question]', what: 'GET', path: 'banks/questions/1' },
	{
		route: 'banks/questions/[question]',
		what: 'PUT',
		path: 'banks/questions/1',
		sent: { version: 1, question: {} },
		needs: 'work'
	},
	{
		route: 'banks/questions/[question]',
		what: 'POST',
		path: 'banks/questions/1',
		sent: { version: 99 },
		needs: 'work'
	},
	{
		route: 'banks/dispatch',
		what: 'POST',
		path: 'banks/dispatch',
		sent: { chosen: { bankId: 1, ids: [] } },
		needs: 'work'
	},
	{ route: 'banks/quiz', what: 'GET', path: 'banks/quiz' },
	{
		route: 'banks/quiz',
		what: 'POST',
		path: 'banks/quiz',
		sent: { title: 'x', chosen: { bankId: 1, ids: [] } },
		needs: 'work'
	},
	{ route: 'banks/saved', what: 'POST', path: 'banks/saved', sent: { name: '', query: '' }, needs: 'work' },
	{ route: 'banks/saved', what: 'DELETE', path: 'banks/saved?id=999999', needs: 'work' },
	{ route: 'banks/tags', what: 'GET', path: 'banks/tags?begins=t' },
	{ route: 'banks/tree', what: 'POST', path: 'banks/tree', sent: { do: 'makeBank', name: '' }, needs: 'work' },
	{
		route: 'banks/tree',
		what: 'POST',
		path: 'banks/tree?preview=1',
		sent: { bankId: 1, categories: [1], to: { bankId: 999_999 }, how: 'copy' },
		needs: 'work'
	},
	{ route: 'bin', what: 'load', path: 'bin' },
	{ route: 'bin/back', what: 'POST', path: 'bin/back', sent: { ids: [999_999] }, needs: 'work' },
	{ route: 'bin/back', what: 'DELETE', path: 'bin/back', sent: { forGood: false }, needs: 'manage' },
	{ route: 'dispatch', what: 'load', path: 'dispatch' },
	{ route: 'dispatch', what: 'write', path: 'dispatch', sent: { bank: '1', format: 'csv' }, needs: 'work' },
	{ route: 'dispatch', what: 'workOut', path: 'dispatch', sent: { table: '1' } },
	{ route: 'dispatch', what: 'stopWorking', path: 'dispatch', sent: { table: '1' } },
	{ route: 'dispatch', what: 'stop', path: 'dispatch', sent: { dispatch: '1' }, needs: 'work' },
	{ route: 'dispatch/[dispatch]/file', what: 'GET', path: 'dispatch/1/file' },
	{ route: 'dispatch/status', what: 'GET', path: 'dispatch/status' },
	{ route: 'files/[hash]', what: 'GET', path: `files/${'0'.repeat(64)}` },
	{ route: 'ledger', what: 'load', path: 'ledger' },
	{ route: 'ledger/undo', what: 'GET', path: 'ledger/undo?deed=1' },
	{ route: 'ledger/undo', what: 'POST', path: 'ledger/undo', sent: { deed: 999_999 }, needs: 'work' },
	{ route: 'loads', what: 'load', path: 'loads' },
	{ route: 'loads', what: 'stop', path: 'loads', sent: { load: '1' }, needs: 'work' },
	{ route: 'loads', what: 'again', path: 'loads', sent: { load: '1' }, needs: 'work' },
	{ route: 'loads', what: 'away', path: 'loads', sent: { load: '1' }, needs: 'work' },
	{ route: 'loads/[load]', what: 'load', path: 'loads/1' },
	{ route: 'loads/[load]', what: 'take', path: 'loads/1', sent: { decision }, needs: 'work' },
	{ route: 'loads/[load]', what: 'away', path: 'loads/1', sent: {}, needs: 'work' },
	{ route: 'loads/[load]/questions/[question]', what: 'GET', path: 'loads/1/questions/1' },
	{
		route: 'loads/[load]/questions/[question]',
		what: 'PUT',
		path: 'loads/1/questions/1?name=a.png&file=a.png',
		sent: 'x',
		needs: 'work'
	},
	{ route: 'loads/[load]/receipt', what: 'load', path: 'loads/1/receipt' },
	{ route: 'loads/[load]/receipt', what: 'undo', path: 'loads/1/receipt', sent: { changed: '' }, needs: 'work' },
	{ route: 'loads/[load]/receipt', what: 'told', path: 'loads/1/receipt', sent: { told: '3' }, needs: 'work' },
	{ route: 'loads/[load]/receipt/file', what: 'GET', path: 'loads/1/receipt/file?as=csv' },
	{ route: 'loads/[load]/recipe', what: 'load', path: 'loads/1/recipe', needs: 'work' },
	{ route: 'loads/[load]/recipe', what: 'default', path: 'loads/1/recipe', sent: { recipe: '{}' }, needs: 'work' },
	{ route: 'loads/[load]/recipe/preview', what: 'POST', path: 'loads/1/recipe/preview', sent: { a: 1 }, needs: 'work' },
	{ route: 'loads/[load]/changes', what: 'GET', path: 'loads/1/changes' },
	{ route: 'loads/[load]/review', what: 'GET', path: 'loads/1/review?since=0' },
	{ route: 'loads/[load]/rows', what: 'GET', path: 'loads/1/rows?order=snag&from=0' },
	{
		route: 'loads/[load]/review',
		what: 'POST',
		path: 'loads/1/review',
		sent: { do: 'choose', ids: [1], choice: 'leave' },
		needs: 'work'
	},
	{ route: 'loads/aside', what: 'load', path: 'loads/aside' },
	{ route: 'loads/aside/rows', what: 'GET', path: 'loads/aside/rows' },
	{
		route: 'loads/aside/settle',
		what: 'POST',
		path: 'loads/aside/settle',
		sent: { do: 'leave', ids: [] },
		needs: 'work'
	},
	{ route: 'loads/paste', what: 'load', path: 'loads/paste', needs: 'work' },
	{ route: 'loads/status', what: 'GET', path: 'loads/status' },
	{ route: 'loads/template', what: 'GET', path: 'loads/template?as=csv' },
	{
		route: 'loads/upload',
		what: 'POST',
		path: 'loads/upload',
		sent: { name: 'a.zip', size: 10, mark: '' },
		needs: 'work'
	},
	{ route: 'loads/upload', what: 'PUT', path: 'loads/upload?id=1&offset=0', sent: 'x', needs: 'work' },
	{ route: 'loads/upload', what: 'DELETE', path: 'loads/upload?id=1', needs: 'work' },
	{ route: 'quizzes', what: 'load', path: 'quizzes' },
	{ route: 'quizzes', what: 'make', path: 'quizzes', sent: { title: 'x' }, needs: 'work' },
	{ route: 'quizzes/back', what: 'POST', path: 'quizzes/back', sent: { title: '' }, needs: 'work' },
	{ route: 'quizzes/copy', what: 'GET', path: 'quizzes/copy' },
	{ route: 'quizzes/copy', what: 'POST', path: 'quizzes/copy', sent: { quizId: 999_999 }, needs: 'work' },
	{ route: 'quizzes/find', what: 'GET', path: 'quizzes/find?words=buoy' },
	{ route: 'quizzes/from', what: 'POST', path: 'quizzes/from', sent: { bankId: 999_999 }, needs: 'work' },
	{ route: 'quizzes/gather', what: 'POST', path: 'quizzes/gather?preview=1', sent: { quizzes: [1] }, needs: 'work' },
	{ route: 'quizzes/[quiz]', what: 'load', path: 'quizzes/1' },
	{ route: 'quizzes/[quiz]', what: 'GET', path: 'quizzes/1?whole' },
	{ route: 'quizzes/[quiz]', what: 'PUT', path: 'quizzes/1', sent: { title: 'x' }, needs: 'work' },
	{ route: 'quizzes/[quiz]', what: 'DELETE', path: 'quizzes/999999', sent: {}, needs: 'work' },
	{ route: 'quizzes/[quiz]/alike', what: 'POST', path: 'quizzes/1/alike', sent: emptySheet },
	{ route: 'quizzes/[quiz]/bound', what: 'POST', path: 'quizzes/1/bound', sent: emptySheet },
	{ route: 'quizzes/[quiz]/draw', what: 'POST', path: 'quizzes/1/draw', sent: { ...emptySheet, seeds: ['s-1'] } },
	{ route: 'quizzes/[quiz]/forms', what: 'GET', path: 'quizzes/1/forms' },
	{ route: 'quizzes/[quiz]/forms', what: 'POST', path: 'quizzes/1/forms', sent: { count: 0 }, needs: 'work' },
	{ route: 'quizzes/[quiz]/forms', what: 'DELETE', path: 'quizzes/1/forms', sent: { id: 999_999 }, needs: 'work' },
	{
		route: 'quizzes/[quiz]/forms/difficulty',
		what: 'POST',
		path: 'quizzes/1/forms/difficulty',
		sent: { found: [{ id: 999_999, difficulty: 1 }] },
		needs: 'work'
	},
	{
		route: 'quizzes/[quiz]/forms/marks',
		what: 'POST',
		path: 'quizzes/1/forms/marks',
		sent: { id: 999_999, csv: 'Ines,A,B' }
	},
	{ route: 'quizzes/[quiz]/look', what: 'POST', path: 'quizzes/1/look', sent: emptySheet },
	{ route: 'quizzes/[quiz]/names', what: 'POST', path: 'quizzes/1/names', sent: '[1]' },
	{ route: 'quizzes/[quiz]/pool', what: 'POST', path: 'quizzes/1/pool', sent: { ...emptySheet, part: 0 } },
	{ route: 'quizzes/[quiz]/print', what: 'load', path: 'quizzes/1/print?forms=1' },
	{ route: 'quizzes/[quiz]/print/word', what: 'GET', path: 'quizzes/1/print/word?forms=1' },
	{ route: 'quizzes/[quiz]/questions', what: 'POST', path: 'quizzes/1/questions', sent: 'x' },
	{ route: 'quizzes/[quiz]/versions', what: 'GET', path: 'quizzes/1/versions' },
	{ route: 'quizzes/[quiz]/versions', what: 'POST', path: 'quizzes/1/versions', sent: { id: 1 } },
	{ route: 'quizzes/series', what: 'GET', path: 'quizzes/series' },
	{
		route: 'quizzes/series',
		what: 'POST',
		path: 'quizzes/series',
		sent: { categories: [999_999], title: 'x' },
		needs: 'work'
	},
	{ route: 'settings', what: 'load', path: 'settings' },
	{
		route: 'settings',
		what: 'rename',
		path: 'settings',
		sent: { name: '', code: 'x', intake: '' },
		needs: 'manage'
	},
	{ route: 'settings', what: 'settings', path: 'settings', sent: { points: 'x' }, needs: 'manage' },
	{ route: 'settings', what: 'invite', path: 'settings', sent: { email: '', role: 'look' }, needs: 'manage' },
	{ route: 'settings', what: 'role', path: 'settings', sent: { person: '999999', role: 'look' }, needs: 'manage' },
	{ route: 'settings', what: 'out', path: 'settings', sent: { person: '999999' }, needs: 'manage' },
	{ route: 'settings', what: 'withdraw', path: 'settings', sent: { invitation: '1' }, needs: 'manage' },
	{ route: 'settings/copy', what: 'POST', path: 'settings/copy', sent: { name: 'x', code: '' }, needs: 'manage' },
	{ route: 'settings', what: 'state', path: 'settings', sent: { state: 'nowhere' }, needs: 'manage' },
	{ route: 'snags', what: 'load', path: 'snags' },
	{ route: 'snags', what: 'stop', path: 'snags', sent: {}, needs: 'work' },
	{ route: 'snags', what: 'stopMending', path: 'snags', sent: {}, needs: 'work' },
	{ route: 'snags', what: 'check', path: 'snags', sent: {}, needs: 'work' },
	{ route: 'snags/rows', what: 'GET', path: 'snags/rows?check=no-key&from=0' },
	{ route: 'snags', what: 'keep', path: 'snags', sent: { question: '1' }, needs: 'work' },
	{ route: 'snags', what: 'keepThis', path: 'snags', sent: { kept: '1', other: '2' }, needs: 'work' },
	{
		route: 'snags',
		what: 'both',
		path: 'snags',
		sent: { check: 'near-duplicate', question: '1', other: '2' },
		needs: 'work'
	},
	{
		route: 'snags',
		what: 'waive',
		path: 'snags',
		sent: { check: 'no-key', question: '1', scope: 'question' },
		needs: 'work'
	},
	{ route: 'snags', what: 'unwaive', path: 'snags', sent: { waiver: '1' }, needs: 'work' },
	{ route: 'snags', what: 'mendPlaces', path: 'snags', sent: { check: 'category-empty' }, needs: 'work' },
	{ route: 'snags/mend', what: 'POST', path: 'snags/mend', sent: { check: 'no-key' }, needs: 'work' },
	{ route: 'snags/report', what: 'load', path: 'snags/report' },
	{ route: 'snags/report/csv', what: 'GET', path: 'snags/report/csv' },
	{ route: 'snags/preview', what: 'GET', path: 'snags/preview?check=no-key&question=1' }
];

/** What is outside of all courses, by its path from the root; `keeper` is for those alone who look after the installation. */
export const outside: (Omit<Endpoint, 'needs'> & { for: 'anybody' | 'person' | 'keeper' })[] = [
	{ route: '', what: 'load', path: '', for: 'person' },
	{ route: '', what: 'make', path: '', sent: { name: '' }, for: 'keeper' },
	{ route: '', what: 'putBack', path: '', sent: { course: '1' }, for: 'person' },
	{ route: 'health', what: 'GET', path: 'health', for: 'anybody' },
	{ route: 'invited/[token]', what: 'load', path: 'invited/made-up', for: 'anybody' },
	{ route: 'invited/[token]', what: 'join', path: 'invited/made-up', sent: { name: 'x' }, for: 'anybody' },
	{ route: 'invited/[token]', what: 'accept', path: 'invited/made-up', sent: {}, for: 'anybody' },
	{ route: 'invited/[token]', what: 'password', path: 'invited/made-up', sent: { password: 'x' }, for: 'anybody' },
	{ route: 'me', what: 'load', path: 'me', for: 'person' },
	{ route: 'me', what: 'name', path: 'me', sent: { name: '' }, for: 'person' },
	{ route: 'me', what: 'password', path: 'me', sent: { before: '' }, for: 'person' },
	{ route: 'me', what: 'device', path: 'me', sent: { device: '999999' }, for: 'person' },
	{ route: 'people', what: 'load', path: 'people', for: 'keeper' },
	{ route: 'people', what: 'invite', path: 'people', sent: { email: '' }, for: 'keeper' },
	{ route: 'people', what: 'withdraw', path: 'people', sent: { invitation: '999999' }, for: 'keeper' },
	{ route: 'people', what: 'password', path: 'people', sent: { person: '999999' }, for: 'keeper' },
	{ route: 'people', what: 'keeper', path: 'people', sent: { person: '999999', keeper: '1' }, for: 'keeper' },
	{ route: 'people', what: 'leave', path: 'people', sent: { person: '999999' }, for: 'keeper' },
	{ route: 'signin', what: 'load', path: 'signin', for: 'anybody' },
	{ route: 'signin', what: 'default', path: 'signin', sent: { email: '' }, for: 'anybody' },
	{ route: 'signout', what: 'load', path: 'signout', for: 'person' },
	{ route: 'signout', what: 'default', path: 'signout', sent: {}, for: 'anybody' }
];

/** The methods of HTTP of endpoints. */
const methods = new Set(['GET', 'POST', 'PUT', 'DELETE', 'PATCH']);

/** Everything that the routes below a folder offer, as `route what`, out of their files. */
export function offered(below: 'courses/[course]' | ''): string[] {
	const folder = join(decodeURIComponent(new URL('../src/routes', import.meta.url).pathname), below);
	return readdirSync(folder, { recursive: true, withFileTypes: true }).flatMap((entry) => {
		const route = entry.parentPath.slice(folder.length + 1);
		const text = /^\+(page\.)?server\.ts$/.test(entry.name)
			? readFileSync(join(entry.parentPath, entry.name), 'utf8')
			: '';
		const exported = [...text.matchAll(/^export const (\w+)/gm)].map((found) => found[1]!);
		const actions = /^export const actions = \{\n([\s\S]*?)^\};/m.exec(text)?.[1] ?? '';
		const names = [...actions.matchAll(/^\t(\w+): async/gm)].map((found) => found[1]!);
		return [...exported.filter((name) => methods.has(name) || name === 'load'), ...names].map(
			(name) => `${route} ${name}`
		);
	});
}

/** Whoever asks: by a cookie, from a site. */
export interface Asker {
	cookie?: string;
	origin?: string;
}

/** Asks for an endpoint of a course, or outside of all where none is named; `changed` puts another path or something else to be sent in its place. */
export async function ask(
	address: string,
	course: number | string | null,
	endpoint: Pick<Endpoint, 'what' | 'path' | 'sent'>,
	{ cookie, origin = address }: Asker,
	changed: Partial<Pick<Endpoint, 'path' | 'sent'>> = {}
): Promise<Response> {
	const { path, sent } = { ...endpoint, ...changed };
	const isAction = !methods.has(endpoint.what) && endpoint.what !== 'load';
	const method = isAction ? 'POST' : endpoint.what === 'load' ? 'GET' : endpoint.what;
	const action = !isAction || endpoint.what === 'default' ? '' : `${path.includes('?') ? '&' : '?'}/${endpoint.what}`;
	const body =
		method === 'GET' || sent === undefined
			? undefined
			: typeof sent === 'string'
				? sent
				: isAction
					? new URLSearchParams(sent as Record<string, string>)
					: JSON.stringify(sent);
	const place = course === null ? `/${path}` : `/courses/${course}${path && `/${path}`}`;
	return fetch(`${address}${place}${action}`, {
		method,
		redirect: 'manual',
		headers: {
			Accept: isAction || method === 'GET' ? 'text/html' : 'application/json',
			...(cookie ? { cookie } : {}),
			...(method === 'GET' ? {} : { origin }),
			...(typeof body === 'string' ? { 'Content-Type': 'application/json' } : {})
		},
		...(body === undefined ? {} : { body })
	});
}

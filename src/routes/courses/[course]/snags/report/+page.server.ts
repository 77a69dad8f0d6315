import { courseAt } from '$lib/server/access';
import { bankNames } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';
import { completenessOf, reportLines } from '$lib/server/snags/report';

export const load = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const banks = await bankNames(db, course.id);
	const bank = banks.find(({ id }) => id === keyIn(url, 'bank')) ?? banks[0] ?? null;
	if (!bank) return { banks, bank, lines: [], all: 0, completeness: [] };
	const [{ lines, all }, completeness] = await Promise.all([reportLines(db, bank.id), completenessOf(db, bank.id)]);
	return { banks, bank, lines, all, completeness };
};

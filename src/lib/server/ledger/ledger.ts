import { rows, run, type Database } from '../db/pool';
import type { ReceiptLine } from '../loads/receipt';

/** One deed in the ledger. */
export interface Deed {
	courseId: number;
	personId: number;
	/** What was done, in a few words: "took in". */
	deed: string;
	/** What it was done to: the name of a file, a bank, a check. */
	subject: string;
	questions: number;
	/** Where in the application that can be seen. */
	address?: string;
	/** The receipt of a load, by the categories of its file, as it is at that moment. */
	receipt?: ReceiptLine[];
}

/** Writes a deed into the ledger. */
export async function record(
	db: Database,
	{ courseId, personId, deed, subject, questions, address = '', receipt }: Deed
): Promise<void> {
	await run(
		db,
		'INSERT INTO ledger (course_id, person_id, deed, subject, questions, address, receipt) VALUES (?, ?, ?, ?, ?, ?, ?)',
		[courseId, personId, deed, subject.slice(0, 255), questions, address, receipt ? JSON.stringify(receipt) : null]
	);
}

/** The newest deeds of a course. */
export async function deedsOf(
	db: Database,
	courseId: number,
	most = 200
): Promise<
	{
		id: number;
		deed: string;
		subject: string;
		questions: number;
		address: string;
		done: Date;
		person: string;
		receipt: ReceiptLine[] | null;
		/** Whether it can be taken back, or was. */
		wayBack: 'none' | 'open' | 'done';
	}[]
> {
	const found = await rows<Awaited<ReturnType<typeof deedsOf>>[number] & { stored: string | null }>(
		db,
		'SELECT l.id, l.deed, l.subject, l.questions, l.address, l.done, l.receipt AS stored, l.way_back AS wayBack, p.name AS person FROM ledger l JOIN people p ON p.id = l.person_id WHERE l.course_id = ? ORDER BY l.id DESC LIMIT ?',
		[courseId, most]
	);
	return found.map(({ stored, ...one }) => ({
		...one,
		receipt: stored ? (JSON.parse(stored) as ReceiptLine[]) : null
	}));
}

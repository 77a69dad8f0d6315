import { parseArgs } from 'node:util';
import { ContainerError } from '../core/container/container';
import { commands } from './commands';

// whoever reads has had enough, as `head` has: that is no fault of anybody
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
	if (error.code !== 'EPIPE') throw error;
	process.exit(0);
});

const usage = `barrow: question banks on the command line

  ./barrow inspect FILE --plain      what is in a file, in a form that belongs to no format
  ./barrow inspect FILE --mapping RECIPE.json   a table, JSON or XML of no standard shape by a recipe
  ./barrow inspect FILE --json       the same in full: questions, quizzes and reports (docs/formats.md)
  ./barrow check FILE                what is wrong in it; exit 1 where something is broken
                                     --json: as JSON; --only ID,ID: these checks alone (docs/checks.md)
  ./barrow check FILE --mend ID,ID OUT --to FORMAT   mends what these checks find, and writes what comes of it
  ./barrow convert IN OUT --to FORMAT writes it anew; says what is lost, and proves what was kept
                                     (qti12 qti12-xml qti21 qti22 qti30 cc12 cc13 text csv xlsx json xml archive)
                                     --worked-out N: that many numeric questions for each calculated one,
                                     where the format has no such kind
  ./barrow convert IN OUT --to paper as a page to be printed, or --to paper-docx as a Word document
                                     --keys: its keys; --paper letter: for sheets of that size
  ./barrow compare A B               same, changed, only here, only there; exit 1 where they differ
  ./barrow recipe guess FILE         a recipe for a table, JSON or XML, to be corrected and handed on as --mapping
  ./barrow draw SHEET --seed S       a sitting of a draw sheet, the same for ever from the same seed (docs/draws.md)
                                     --count N: as many, from seeds that follow; --json: as JSON
                                     SHEET is JSON, or a package with a quiz (--quiz TITLE where it holds several)
  ./barrow chances SHEET             what students get: chances, overlap, points, spread; exit 1 where it cannot be filled

Exit codes: 0 done, 1 found something wrong, 2 called wrongly, 3 the file cannot be read.
`;

const { values, positionals } = (() => {
	try {
		return parseArgs({
			allowPositionals: true,
			options: {
				plain: { type: 'boolean' },
				json: { type: 'boolean' },
				to: { type: 'string' },
				mapping: { type: 'string' },
				only: { type: 'string' },
				mend: { type: 'string' },
				'worked-out': { type: 'string' },
				seed: { type: 'string' },
				count: { type: 'string' },
				quiz: { type: 'string' },
				keys: { type: 'boolean' },
				paper: { type: 'string' },
				help: { type: 'boolean', short: 'h' }
			}
		});
	} catch (error) {
		process.stderr.write(`${(error as Error).message}\n\n${usage}`);
		process.exit(2);
	}
})();
const [name = '', ...files] = positionals;
const command = commands.get(name);

if (values.help) process.stdout.write(usage);
else if (!command || files.length !== (typeof command.files === 'number' ? command.files : command.files(values))) {
	process.stderr.write(usage);
	process.exitCode = 2;
} else {
	try {
		process.exitCode = await command.run(files, values);
	} catch (error) {
		const code = (error as NodeJS.ErrnoException).code;
		const words =
			error instanceof ContainerError
				? error.message
				: code === 'ENOENT'
					? `There is no file “${(error as NodeJS.ErrnoException).path}”.`
					: code === 'EISDIR'
						? 'That is a folder; name a file.'
						: code === 'EACCES'
							? 'The file may not be read or written: look at its permissions.'
							: code === 'ENOSPC'
								? 'The disk is full: make room and run it again.'
								: null;
		if (words === null) throw error;
		process.stderr.write(`${words}\n`);
		process.exitCode = 3;
	}
}

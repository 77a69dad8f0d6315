import type { Container } from '../container/container';

const baseOf = (path: string) => {
	const name = path.split(/[\\/]/).pop() ?? '';
	try {
		return decodeURIComponent(name).toLowerCase();
	} catch {
		// a stray percent sign stands for itself
		return name.toLowerCase();
	}
};

/** The path of the file of a package that has the name of another, in whatever folder, without regard to case; null where none has it, or several have. */
export function fileNamedLike({ files, packaged }: Container, path: string): string | null {
	if (!packaged) return null;
	const wanted = baseOf(path);
	const found = wanted ? [...files].filter((file) => baseOf(file.path) === wanted) : [];
	return found.length === 1 ? found[0]!.path : null;
}

/** The paths of this application that a sign-in may lead to: the courses, and what belongs to one. */
const ownPath = /^\/(?:courses\/[1-9]\d{0,14}(?:\/[A-Za-z0-9-]+)*)?$/;

/**
 * The path that a sign-in leads back to, out of what an address says: one of this application, else its first page. It
 * is read as a browser reads it, so that nothing that a browser takes for another site passes.
 */
export function wayBack(to: string | null, origin: string): string {
	if (!to?.startsWith('/')) return '/';
	try {
		const url = new URL(to, origin);
		return url.origin === origin && ownPath.test(url.pathname) ? `${url.pathname}${url.search}` : '/';
	} catch {
		return '/';
	}
}

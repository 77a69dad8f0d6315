const browsers: [RegExp, string][] = [
	[/Edg\//, 'Edge'],
	[/OPR\//, 'Opera'],
	[/Firefox\//, 'Firefox'],
	[/Chrom(?:e|ium)\//, 'Chrome'],
	[/Safari\//, 'Safari']
];
const systems: [RegExp, string][] = [
	[/Android/, 'Android'],
	[/iPhone|iPad/, 'iOS'],
	[/Windows/, 'Windows'],
	[/Mac OS X|Macintosh/, 'macOS'],
	[/CrOS/, 'ChromeOS'],
	[/Linux/, 'Linux']
];

/** What a browser says of itself (RFC 9110, 10.1.5) in the words of its owner: “Firefox on Linux”. */
export function deviceName(userAgent: string): string {
	const browser = browsers.find(([pattern]) => pattern.test(userAgent))?.[1] ?? 'A browser';
	const system = systems.find(([pattern]) => pattern.test(userAgent))?.[1];
	return system ? `${browser} on ${system}` : browser;
}

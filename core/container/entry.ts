/** One file in a package. */
export interface Entry {
	/** The path with forward slashes, without a leading one. */
	path: string;
	/** Bytes once unpacked, as the package says. */
	size: number;
}

import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';

// RFC 7914; cost as OWASP's password storage advice has it: N = 2^17, r = 8, p = 1
const cost = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 2 ** 20 };
const keyLength = 32;

const derive = (password: string, salt: Buffer, options: ScryptOptions) =>
	new Promise<Buffer>((resolve, reject) =>
		scrypt(password.normalize('NFKC'), salt, keyLength, options, (error, key) => (error ? reject(error) : resolve(key)))
	);

/** A password as it is stored: the algorithm, its cost, the salt and the key, with dollar signs between. */
export async function hashPassword(password: string): Promise<string> {
	const salt = randomBytes(16);
	return [
		'scrypt',
		cost.N,
		cost.r,
		cost.p,
		salt.toString('base64'),
		(await derive(password, salt, cost)).toString('base64')
	].join('$');
}

/** Whether a password is the one that was stored. Takes as long where it is not. */
export async function passwordIs(password: string, stored: string): Promise<boolean> {
	const [name, N, r, p, salt, key] = stored.split('$');
	if (name !== 'scrypt' || !salt || !key) return false;
	const wanted = Buffer.from(key, 'base64');
	const found = await derive(password, Buffer.from(salt, 'base64'), {
		N: Number(N),
		r: Number(r),
		p: Number(p),
		maxmem: cost.maxmem
	});
	return wanted.length === found.length && timingSafeEqual(wanted, found);
}

import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoSignIn } from '../demo/fill';
import { Visitor } from './browser';

/** An administrator of the demo school at the tray of one course, with files to hand in. */
export class Day {
	private constructor(
		readonly visitor: Visitor,
		/** The key of the course. */
		readonly course: string,
		/** Where its files are put on this machine. */
		readonly folder: string
	) {}

	/** Signs in, and opens the loads of a course by its name. */
	static async begin(courseName: string, address = process.env.APPLICATION!): Promise<Day> {
		const visitor = await Visitor.open(address);
		await visitor.signIn(demoSignIn.email, demoSignIn.password);
		await visitor.press(courseName);
		await visitor.reads('Loads of this course');
		const course = /\/courses\/(\d+)/.exec(await visitor.driver.getCurrentUrl())![1]!;
		return new Day(visitor, course, mkdtempSync(join(tmpdir(), 'barrow-day-')));
	}

	/** Puts a file on this machine; gives its path. */
	put(name: string, content: Uint8Array | string): string {
		const path = join(this.folder, name);
		writeFileSync(path, content);
		return path;
	}

	/** Goes to the tray and hands a file in; ends when the page says what is waited for. */
	async hand(
		name: string,
		content: Uint8Array | string,
		wanted: string | RegExp = new RegExp(`${name.replaceAll('.', '\\.')}[\\s\\S]*to review`)
	): Promise<void> {
		const path = this.put(name, content);
		await this.visitor.go(`/courses/${this.course}/loads`);
		await (await this.visitor.find('input[type=file]:not([webkitdirectory])')).sendKeys(path);
		await this.visitor.reads(wanted);
	}

	/** Closes the browser, and takes the files away. */
	async end(): Promise<void> {
		await this.visitor.close();
		rmSync(this.folder, { recursive: true, force: true });
	}
}

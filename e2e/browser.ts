import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, error, logging, Origin, type WebElement } from 'selenium-webdriver';
import * as chrome from 'selenium-webdriver/chrome';

/** How long something may take to appear, on a machine that has other things to do, and how often is looked for it, in milliseconds. */
const patience = Number(process.env.PATIENCE ?? 60_000);
const often = 50;

/** A headless browser with what a test does with it. */
export class Visitor {
	private constructor(
		readonly driver: chrome.Driver,
		readonly address: string,
		readonly downloads: string,
		private readonly profile: string
	) {}

	/** Opens a browser of 1280 by 800 on an application. */
	static async open(address: string): Promise<Visitor> {
		const profile = mkdtempSync(join(tmpdir(), 'barrow-browser-'));
		const downloads = join(profile, 'downloads');
		const options = new chrome.Options();
		options.setBinaryPath('/usr/lib/chromium/chromium-headless-shell');
		options.addArguments(
			'--headless',
			'--no-sandbox',
			'--disable-gpu',
			'--disable-quic',
			'--no-first-run',
			'--disable-background-networking',
			'--disable-component-update',
			'--disable-sync',
			'--disable-dev-shm-usage',
			'--window-size=1280,800',
			`--user-data-dir=${profile}`
		);
		const preferences = new logging.Preferences();
		preferences.setLevel(logging.Type.BROWSER, logging.Level.ALL);
		options.setLoggingPrefs(preferences);
		options.setBrowserName('chrome-headless-shell');
		const driver = chrome.Driver.createSession(options, new chrome.ServiceBuilder('/usr/bin/chromedriver').build());
		await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
			width: 1280,
			height: 800,
			deviceScaleFactor: 1,
			mobile: false
		});
		mkdirSync(downloads);
		await driver.setDownloadPath(downloads);
		return new Visitor(driver, address, downloads, profile);
	}

	/** Goes to a page and waits until it is alive. */
	async go(path: string): Promise<void> {
		await this.driver.get(this.address + path);
		await this.settle();
	}

	/** Waits until something is so; `problem` says what is amiss where it never is. */
	async until<Found>(
		isSo: () => Promise<Found>,
		problem = 'what was waited for never came',
		wait = patience
	): Promise<Found> {
		const tried = async () => {
			try {
				return await isSo();
			} catch (reason) {
				// what was found was drawn anew in the same moment, or another thing moved over it
				if (reason instanceof error.StaleElementReferenceError || reason instanceof error.ElementClickInterceptedError)
					return null;
				throw reason;
			}
		};
		return (await this.driver.wait(tried, wait, problem, often))!;
	}

	/** The first element that is found, once it is there. */
	async located(by: By, problem: string, wait = patience): Promise<WebElement> {
		return (await this.until(async () => (await this.driver.findElements(by))[0], problem, wait))!;
	}

	/** Waits until the page has an address. */
	async isAt(address: RegExp, problem: string): Promise<void> {
		await this.until(async () => address.test(await this.driver.getCurrentUrl()), problem);
	}

	/** Waits until the page has been made alive. */
	async settle(): Promise<void> {
		await this.until(
			() =>
				this.driver.executeScript(
					"return document.readyState === 'complete' && document.documentElement.dataset.alive === ''"
				),
			'the page does not come alive'
		);
	}

	/** Signs in and waits for the courses. */
	async signIn(email: string, password: string): Promise<void> {
		await this.go('/signin');
		await (await this.find('input[name=email]')).sendKeys(email);
		await (await this.find('input[name=password]')).sendKeys(password);
		await this.press('Sign in');
		await this.isAt(/\/$/, 'nobody is signed in');
		await this.settle();
	}

	/** Opens a course from the list of courses by its name; gives its key. */
	async openCourse(name: string): Promise<string> {
		await this.press(name);
		await this.isAt(/\/courses\/\d+/, `“${name}” does not open`);
		await this.settle();
		return /\/courses\/(\d+)/.exec(await this.driver.getCurrentUrl())![1]!;
	}

	/** Presses keys where the focus is. */
	async type(...keys: string[]): Promise<void> {
		for (const key of keys) {
			await (await this.driver.switchTo().activeElement()).sendKeys(key);
			await this.driver.sleep(120);
		}
	}

	/** The first element for a selector, once it is there. */
	async find(selector: string, wait = patience): Promise<WebElement> {
		return this.located(By.css(selector), `nothing on the page for ${selector}`, wait);
	}

	/** Presses the button, link or tab with these words. */
	async press(words: string): Promise<void> {
		const path = `//*[self::button or self::a or @role='tab' or @data-part='item' or @data-part='branch-control'][contains(normalize-space(.), ${JSON.stringify(words)}) or @aria-label=${JSON.stringify(words)}]`;
		await this.until(async () => {
			const [found] = await this.driver.findElements(By.xpath(path));
			if (!found) return false;
			await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', found);
			if (!(await found.isEnabled())) return false;
			await found.click();
			return true;
		}, `nothing to press says “${words}”`);
		await this.driver.sleep(150);
	}

	/** Waits until nothing moves or fades any more, but for what goes on as long as work does. */
	async still(): Promise<void> {
		await this.until(
			() =>
				this.driver.executeScript(
					"return document.getAnimations().every((one) => one.playState !== 'running' || one.effect?.getComputedTiming().iterations === Infinity)"
				),
			'the page never came to rest'
		);
	}

	/** All the words on the page. */
	async words(): Promise<string> {
		return (await this.driver.executeScript<string>('return document.body.innerText')).replaceAll('\u00a0', ' ');
	}

	/** Waits until the page says something. */
	async reads(words: string | RegExp, wait = patience): Promise<string> {
		let last = '';
		try {
			await this.until(
				async () => {
					last = await this.words().catch(() => '');
					return typeof words === 'string' ? last.includes(words) : words.test(last);
				},
				'',
				wait
			);
		} catch {
			throw new Error(`the page never said ${String(words)}; it says:\n${last.slice(0, 3000)}`);
		}
		return last;
	}

	/** Sets the choice of a list by its label. */
	async choose(label: string, option: string | RegExp): Promise<void> {
		let texts: string[] = [];
		const found = await this.until(
			async () => {
				const options = await this.driver.findElements(By.css(`select[aria-label="${label}"] option`));
				texts = await this.driver.executeScript<string[]>(
					'return arguments[0].map(({ text }) => text.trim())',
					options
				);
				return options[texts.findIndex((text) => (typeof option === 'string' ? text === option : option.test(text)))];
			},
			`“${label}” offers no ${String(option)}`
		);
		await found!.click();
		await this.driver.sleep(150);
	}

	/** Writes into a field, in place of what stands there, and leaves it. */
	async write(selector: string, text: string): Promise<void> {
		const field = await this.find(selector);
		await this.driver.executeScript('arguments[0].select()', field);
		await field.sendKeys(text, '\t');
		await this.driver.sleep(150);
	}

	/** Takes one element up with the mouse and lets it go on another, `x` pixels beside the middle of each. */
	async drag(from: WebElement, to: WebElement, x = 0): Promise<void> {
		await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', from);
		await this.driver
			.actions({ async: true })
			.move({ origin: from, x, y: 0 })
			.press()
			.move({ origin: Origin.POINTER, x: 0, y: -6, duration: 80 })
			.move({ origin: to, x, y: 0, duration: 300 })
			.move({ origin: to, x: x + 2, y: 1, duration: 80 })
			.pause(200)
			.release()
			.perform();
	}

	/** What the browser's console has said that is worse than a note. */
	async complaints(): Promise<string[]> {
		return (await this.driver.manage().logs().get(logging.Type.BROWSER))
			.filter((entry) => entry.level.value >= logging.Level.WARNING.value)
			.map((entry) => entry.message);
	}

	/** Light or dark. */
	async mode(mode: 'light' | 'dark'): Promise<void> {
		await this.driver.executeScript(
			`localStorage.setItem('mode', '${mode}'); document.documentElement.dataset.mode = '${mode}'`
		);
	}

	/** A picture of what is seen, as PNG. */
	async picture(): Promise<Buffer> {
		return Buffer.from(await this.driver.takeScreenshot(), 'base64');
	}

	/** Closes the browser. */
	async close(): Promise<void> {
		await this.driver.quit();
		rmSync(this.profile, { recursive: true, force: true });
	}
}

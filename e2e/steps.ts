import { By } from 'selenium-webdriver';
import type { Visitor } from './browser';

/** Does what somebody does at a page, and counts the steps: each click, each field that is written, each choice, each key. */
export class Steps {
	/** How many there were since `begin`. */
	count = 0;

	constructor(readonly visitor: Visitor) {}

	/** Counts from nothing. */
	begin(): void {
		this.count = 0;
	}

	/** Presses the button, link or tab with these words. */
	async press(words: string): Promise<void> {
		this.count += 1;
		await this.visitor.press(words);
	}

	/** Writes into a field. */
	async write(selector: string, text: string): Promise<void> {
		this.count += 1;
		await this.visitor.write(selector, text);
	}

	/** Ticks the box whose label or name has these words. */
	async tick(words: string): Promise<void> {
		this.count += 1;
		const path = `//label[contains(normalize-space(.), ${JSON.stringify(words)})]/input[@type="checkbox"] | //input[@type="checkbox"][@aria-label=${JSON.stringify(words)}]`;
		const box = await this.visitor.located(By.xpath(path), `no box for “${words}”`);
		await this.visitor.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', box);
		await box.click();
	}

	/** Sets the choice of a list by its label. */
	async choose(label: string, option: string | RegExp): Promise<void> {
		this.count += 1;
		await this.visitor.choose(label, option);
	}

	/** Sets the choice of a list in a sheet that is open, by the words in front of it. */
	async chooseInSheet(label: string, option: string): Promise<void> {
		this.count += 1;
		const path = `//*[@role="dialog"][@data-state="open"]//label[starts-with(normalize-space(.), ${JSON.stringify(label)})]//option[starts-with(normalize-space(.), ${JSON.stringify(option)})]`;
		const found = await this.visitor.located(By.xpath(path), `“${label}” offers no “${option}”`);
		await found.click();
		await this.visitor.driver.sleep(150);
	}

	/** Opens a menu by the name of its button, and takes what has these words: two steps. */
	async menu(button: string, words: string): Promise<void> {
		await this.press(button);
		await this.item(words);
	}

	/** Takes what has these words out of the menu that is open. */
	async item(words: string): Promise<void> {
		this.count += 1;
		const { driver } = this.visitor;
		await this.visitor.until(async () => {
			const items = await driver.findElements(By.xpath(`//*[@role="menuitem"][contains(., ${JSON.stringify(words)})]`));
			for (const item of items)
				if (await item.isDisplayed()) {
					await item.click();
					return true;
				}
			return false;
		}, `no menu offers “${words}”`);
		await driver.sleep(150);
	}

	/** Presses a key where the focus is. */
	async key(key: string): Promise<void> {
		this.count += 1;
		await this.visitor.type(key);
	}
}

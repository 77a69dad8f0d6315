import { writeFileSync } from 'node:fs';
import { demoSignIn } from '../demo/fill';
import { Visitor } from '../e2e/browser';
const visitor = await Visitor.open('http://127.0.0.1:4190');
const shot = async (name: string) => { await visitor.driver.sleep(600); writeFileSync(`/tmp/shots/${name}.png`, Buffer.from(await visitor.driver.takeScreenshot(), 'base64')); };
try {
	await visitor.go('/signin');
	await visitor.signIn(demoSignIn.email, demoSignIn.password);
	await visitor.go('/courses/1/quizzes/1'); await shot('quiz-1280');
	await visitor.go('/courses/2/snags?check=escaped-twice'); await visitor.reads('Mend this'); await visitor.press('Mend this'); await visitor.reads('1 question mended'); await shot('snags-toast');
	await visitor.go('/courses/1/ledger');
	const html = await visitor.driver.getPageSource();
	const receipt = /\/courses\/1\/loads\/\d+\/receipt/.exec(html)?.[0];
	if (receipt) { await visitor.go(receipt); await shot('receipt'); await visitor.mode('dark'); await shot('receipt-dark'); }
	console.log(await visitor.complaints());
} finally { await visitor.close(); }

import { fold } from '../../markup/text';
import type { AcceptedNumber } from '../../model/pieces';
import { numberAnswer } from '../drafts/number-answer';

/** Units that people put behind a number; what else stands there makes the answer a text ("12 May"). */
const units = new Set(
	'm cm mm km dm ft in yd nm nmi mi inches feet metres meters kilometres miles cables cable fathoms fathom kn kt kts knots knot mph km/h m/s g kg t tonnes tons tonne lb n kn·m l ml litres liters m² m2 m³ m3 ° °c °f degrees degree deg % percent hpa mbar mb kpa bar pa psi s sec secs seconds second min mins minutes minute h hr hrs hours hour days day weeks v mv kv a ma ah w kw hz khz mhz ghz ohm ohms ω'.split(
		' '
	)
);

/** A number that is accepted with the unit that stands behind it, as people write it: "3.4 m", "050°", "3.1 to 3.3 knots". */
export function numberWithUnit(text: string): { number: AcceptedNumber; unit: string | null } | null {
	const plain = fold(text).replace(/^(?:approx(?:imately)?\.?|about|ca\.?|circa|~|≈)\s*/i, '');
	const bare = numberAnswer(plain);
	if (bare) return { number: bare, unit: null };
	// "156.8 MHz (tolerance 0.05)", "156.8 (± 0.05)"
	const apart =
		/^(.+?)\s*[,;(]\s*(?:(?:with\s+)?(?:a\s+)?(?:tolerance|margin)(?:\s+of)?\s*[:=]?|±|\+\s*\/?\s*-)\s*([\d.,]+\s*%?)[^\d)]*\)?$/i.exec(
			plain
		);
	if (apart) {
		const value = numberWithUnit(apart[1]!);
		const around = value && 'value' in value.number ? numberAnswer(`${value.number.value} ± ${apart[2]!}`) : null;
		if (around) return { number: around, unit: value!.unit };
	}
	// "2.9 m ± 0.2", and "3 (three)", where the bracket only says it again
	const around = /^([^±]+?)\s*(?:±|\+\s*\/?\s*-)\s*([\d.,]+)\s*([^\d\s.,]\S{0,11})?$/.exec(plain);
	const before = around && numberWithUnit(around[1]!);
	if (before?.unit && 'value' in before.number && (!around![3] || around![3] === before.unit)) {
		const number = numberAnswer(`${before.number.value} ± ${around![2]!}`);
		if (number) return { number, unit: before.unit };
	}
	const said = /^(.*\d.*?)\s*\([^()\d]+\)$/.exec(plain);
	if (said) return numberWithUnit(said[1]!);
	const found = /^(.*?[\d.])\s*([^\d\s.,+±-][^\d\s]{0,11}|%|°)$/.exec(plain);
	const unit = found?.[2]?.replace(/\.$/, '');
	if (!unit || !units.has(unit.toLowerCase())) return null;
	const number = numberAnswer(
		found![1]!.replace(new RegExp(`(\\d)\\s*${unit.replace(/[^\w]/g, '\\$&')}(?=\\s)`, 'g'), '$1')
	);
	return number ? { number, unit } : null;
}

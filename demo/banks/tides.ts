import { bank, essay, figure, note, one, several, truth, word } from '../build';

/** The bank "Spring intake" of Tides and Charts. */
export const tides = bank([
	[
		'Tidal theory',
		[
			note(
				'Before you begin',
				'Heights are in metres above chart datum unless a question says otherwise. Keep the practice tables of Gullhaven at hand.'
			),
			one(
				'What raises the tide',
				'Which body has the greatest share in raising the tides on Earth?',
				['*The Moon', 'The Sun', 'Venus', 'Jupiter'],
				{
					feedback: 'The Sun is far heavier, and so far away that its share is a little less than half of the Moon’s.'
				}
			),
			truth(
				'Twice a day',
				'On most coasts of Europe there are two high waters and two low waters in a lunar day.',
				true
			),
			figure(
				'A lunar day',
				'About how many minutes later does the Moon pass overhead from one day to the next?',
				{ from: 48, to: 52 },
				{ feedback: 'A lunar day is about 24 hours and 50 minutes long.' }
			),
			word(
				'Standing water',
				'What is the short time called at high or low water when the level does not change?',
				['stand', 'the stand', 'stand of the tide'],
				{
					wrong: 'It is not slack water, which speaks of the stream.'
				}
			),
			several(
				'Higher than predicted',
				'What can make the water stand higher than the tables say?',
				['*Low air pressure', 'High air pressure', '*A strong onshore wind', 'Fog'],
				{ tags: ['weather'] }
			)
		]
	],
	[
		'Tidal theory / Springs and neaps',
		[
			one(
				'When springs come',
				'At which phases of the Moon do spring tides occur?',
				['*New and full moon', 'First and last quarter', 'Only at full moon', 'At no phase in particular'],
				{
					right: 'Moon, Earth and Sun are in line then.'
				}
			),
			truth('Neap range', 'The range of a neap tide is smaller than that of a spring tide.', true),
			truth('Springs in spring', 'Spring tides occur only in the months of March, April and May.', false, {
				wrong: 'They come about twice in each lunar month, the whole year round.'
			}),
			one(
				'After the moon',
				'How long after new or full moon do the greatest tides usually come on the coasts of western Europe?',
				['*One to two days', 'One to two hours', 'A week', 'A fortnight']
			),
			figure(
				'Springs to springs',
				'About how many days lie between one spring tide and the next? Give a whole number.',
				{ from: 14, to: 15 }
			),
			several('At equinox', 'Which of these hold for the springs near the equinoxes?', [
				'*They have the greatest ranges of the year',
				'*Their low waters are especially low',
				'There is only one high water in the day',
				'They come at the quarters of the Moon'
			])
		]
	],
	[
		'Tidal theory / Rule of twelfths',
		[
			one(
				'The third hour',
				'By the rule of twelfths, how much of the range does the tide rise in the third hour?',
				['*Three twelfths', 'One twelfth', 'Two twelfths', 'Six twelfths'],
				{
					picture: ['twelfths.svg', 'A bar for each of the six hours after low water']
				}
			),
			figure(
				'Half the range',
				'After how many hours from low water has the tide risen by half its range, by the rule of twelfths?',
				[3, 0]
			),
			figure(
				'Two hours of flood',
				'Low water is 0.8 m and the range is 4.8 m. What is the height two hours after low water, by the rule of twelfths, in metres?',
				[2, 0.05],
				{
					points: 2,
					feedback: 'One twelfth and two twelfths are 1.2 m, on top of 0.8 m.'
				}
			),
			truth('Everywhere the same', 'The rule of twelfths gives good results in every harbour of the world.', false, {
				feedback: 'It supposes a regular curve with six hours of rise and six of fall.'
			}),
			essay(
				'Why the rule fails',
				'A harbour stands at the head of a long, shallow estuary. Explain why the rule of twelfths can mislead there, and what you would use instead.',
				{ points: 6 }
			)
		]
	],
	[
		'Tidal theory / Levels',
		[
			one(
				'What C is for',
				'In the drawing, what is measured downwards from level C?',
				['*Charted depths', 'Heights of tide', 'Heights of lights', 'Clearances under bridges'],
				{
					picture: ['levels.svg', 'Three levels drawn against a sloping shore; C is chart datum']
				}
			),
			word(
				'Lowest level',
				'Chart datum on many modern charts is LAT. Write out the three words.',
				['lowest astronomical tide'],
				{ points: 2 }
			),
			one('Drying height', 'A figure with a line under it stands on a green area of the chart. What does it give?', [
				'*How far the place stands above chart datum',
				'The depth at chart datum',
				'The depth at high water',
				'The height of a cliff'
			]),
			figure(
				'Depth of water',
				'The charted depth is 3.2 m and the height of the tide is 2.7 m. How deep is the water, in metres?',
				[5.9, 0.05]
			),
			figure(
				'Over the bank',
				'A bank dries 1.4 m and the height of the tide is 3.9 m. How much water lies over the bank, in metres?',
				[2.5, 0.05],
				{ points: 2 }
			),
			truth(
				'Clearance',
				'The clearance under a bridge is never less than the charted one as long as the water stands below the level it is charted from.',
				true
			)
		]
	],
	[
		'Chartwork',
		[
			one(
				'Measuring distance',
				'Where on a Mercator chart do you measure distance?',
				[
					'*On the latitude scale, level with the place',
					'On the longitude scale',
					'On the latitude scale, anywhere',
					'On the border of the title'
				],
				{ tags: ['plotting'] }
			),
			figure('A nautical mile', 'How many metres are there in one international nautical mile?', [1852, 0]),
			truth('A minute of latitude', 'A minute of latitude is taken as one nautical mile in chartwork.', true),
			several('On every chart', 'What has to be looked at before a chart is used?', [
				'*The units of its depths',
				'*The date of its last correction',
				'*Its datum',
				'The price'
			]),
			word('A knot', 'Write the unit of speed of one nautical mile in an hour.', ['knot', 'knots', '= 0.5 kn'])
		]
	],
	[
		'Chartwork / Bearings',
		[
			figure(
				'True to magnetic',
				'The true bearing is 090° and the variation is 5° west. What is the magnetic bearing, in degrees?',
				[95, 0],
				{
					feedback: 'West is added when going from true to magnetic.'
				}
			),
			figure(
				'Magnetic to true',
				'The magnetic bearing is 212° and the variation is 4° east. What is the true bearing, in degrees?',
				[216, 0]
			),
			figure('Back bearing', 'A bearing is 047°. What is the back bearing, in degrees?', [227, 0]),
			one(
				'Deviation',
				'What causes the deviation of a compass?',
				[
					'*The magnetism of the vessel',
					'The distance of the magnetic pole from the true one | That is variation.',
					'The swell',
					'The tidal stream'
				],
				{ points: 1 }
			),
			truth('Variation changes', 'Variation changes from place to place and from year to year.', true)
		]
	],
	[
		'Chartwork / Fixing a position',
		[
			one(
				'The small triangle',
				'Three bearings make a small triangle on the chart. What is the safe thing to do?',
				[
					'*Take the corner nearest to danger as your position',
					'Take the middle and forget about it',
					'Leave out the bearing you like least',
					'Sail on until it is gone'
				],
				{ picture: ['three-bearings.svg', 'Three position lines that make a small triangle'] }
			),
			several(
				'A position line',
				'What gives a position line?',
				[
					'*A compass bearing of a charted beacon',
					'*Two charted marks in transit',
					'*A radar range of a headland',
					'A bearing of a passing ship'
				],
				{ points: 3 }
			),
			word('In line', 'What are two charted objects called that stand in one line?', [
				'transit',
				'a transit',
				'in transit',
				'leading line'
			]),
			truth(
				'Good angles',
				'Two bearings that cross at a right angle give a better fix than two that cross at ten degrees.',
				true
			),
			essay(
				'A fix by three bearings',
				'Describe step by step how you fix the position of a vessel by three compass bearings, from choosing the marks to writing on the chart.',
				{ points: 8 }
			),
			one(
				'Order of bearings',
				'You take bearings of marks ahead, astern and abeam. Which do you take last?',
				['*The one abeam', 'The one ahead', 'The one astern', '^It makes no difference'],
				{
					feedback: 'The bearing of a mark abeam changes fastest.'
				}
			)
		]
	],
	[
		'Tide tables',
		[
			figure('Range from the curve', 'Read the curve. What is the range of this tide, in metres?', [4.4, 0.1], {
				picture: ['tide-curve.svg', 'A tide curve between 0.8 m at 1215 and 5.2 m at 0600 and 1830']
			}),
			one('Duration of the fall', 'High water is at 0600 and low water at 1215. How long does the tide fall?', [
				'*6 hours 15 minutes',
				'5 hours 45 minutes',
				'12 hours 30 minutes',
				'6 hours'
			]),
			word(
				'Tables for other ports',
				'What do the tables call a port whose tides are found by differences from another port?',
				['secondary port', 'a secondary port']
			),
			figure(
				'A difference',
				'High water at the standard port is 5.2 m. The difference for the secondary port is −0.4 m. What is high water there, in metres?',
				[4.8, 0.02]
			)
		]
	]
]);

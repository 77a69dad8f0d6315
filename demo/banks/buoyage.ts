import { bank, essay, figure, note, one, several, truth, word } from '../build';

/** The bank "Marks of region A" of Buoyage and Lights. */
export const buoyage = bank([
	[
		'Lateral marks',
		[
			note(
				'Which region',
				'All questions of this bank are about IALA region A, to which the waters of Gullhaven belong.'
			),
			one('Port hand colour', 'You come in from sea. What colour is a port-hand mark?', [
				'*Red',
				'Green',
				'Yellow',
				'Black and yellow'
			]),
			one('Starboard hand shape', 'What shape has a starboard-hand buoy that is told by its shape?', [
				'*Conical',
				'Can',
				'Spherical',
				'Square'
			]),
			truth('A red can', 'Coming in from sea, you leave a red can buoy on your port side.', true, {
				picture: ['laterals.svg', 'A channel with a red can to the left and a green cone to the right on the way in']
			}),
			truth('Going out', 'Going out to sea, you leave a green conical buoy on your starboard side.', false, {
				wrong: 'The direction of buoyage runs in from sea; going out, the sides change over.'
			}),
			several('A port-hand buoy', 'What may a port-hand buoy carry?', [
				'*A red light',
				'*A red can as a topmark',
				'A green light',
				'Two black balls'
			]),
			word('Direction', 'What is the direction called by which the sides of lateral marks are told?', [
				'direction of buoyage',
				'the direction of buoyage',
				'conventional direction of buoyage'
			])
		]
	],
	[
		'Lateral marks / Preferred channel',
		[
			one(
				'Green, red, green',
				'A buoy is green with one broad red band. Where does the preferred channel run, coming in?',
				['*To port of it', 'To starboard of it', 'On either side', 'Nowhere: it marks a danger'],
				{ feedback: 'Treat it as a starboard-hand mark to follow the preferred channel, which is then to port.' }
			),
			one('Rhythm of its light', 'Which rhythm has the light of a preferred channel mark?', [
				'*Composite group flashing 2 + 1',
				'Very quick',
				'Isophase',
				'Occulting'
			]),
			truth(
				'Red with green',
				'A red buoy with one broad green band is left to port to follow the preferred channel.',
				true
			)
		]
	],
	[
		'Cardinal marks',
		[
			one('Cones up', 'Which mark in the picture is the north cardinal mark?', ['*A', 'B', 'C'], {
				picture: ['cardinals.svg', 'Three pillar buoys with two black cones each'],
				shuffle: false
			}),
			one('South of the danger', 'Two cones point down. On which side of the mark is the safe water?', [
				'*South',
				'North',
				'East',
				'West'
			]),
			word('Bases together', 'An east cardinal mark has two cones, base to base. What colour are its cones?', [
				'black'
			]),
			figure('Flashes of the west', 'How many flashes are there in a group of a west cardinal light?', [9, 0], {
				feedback: 'As on the face of a clock: three in the east, six in the south, nine in the west.'
			}),
			figure('Flashes of the east', 'How many flashes are there in a group of an east cardinal light?', [3, 0]),
			one('South light', 'How does a south cardinal light show?', [
				'*Six flashes and one long flash',
				'Three flashes',
				'Nine flashes',
				'Flashing without a pause'
			]),
			several('Cardinal colours', 'Which colours do cardinal buoys have?', ['*Black', '*Yellow', 'Red', 'Green']),
			truth(
				'Named for',
				'A cardinal mark is named for the side on which it lies of the danger, and it is passed on that side.',
				true
			),
			essay(
				'Finding the safe side',
				'You meet a pillar buoy, yellow above and black below, at dusk. Describe all that tells you what it is and on which side to pass.',
				{ points: 6 }
			)
		]
	],
	[
		'Other marks',
		[
			one(
				'Red and black',
				'A buoy has black and red horizontal bands and two black balls as its topmark. What is it?',
				['*An isolated danger mark', 'A safe water mark', 'A special mark', 'A new wreck mark']
			),
			one('Safe water', 'Which colours has a safe water mark?', [
				'*Red and white vertical stripes',
				'Red and white horizontal bands',
				'Yellow',
				'Blue and yellow stripes'
			]),
			word('Yellow cross', 'A yellow buoy carries a yellow cross. What kind of mark is it? Write one word.', [
				'special',
				'special mark',
				'a special mark'
			]),
			truth('Round a safe water mark', 'There is safe water all round a safe water mark.', true),
			one('New danger', 'Which light has an emergency wreck marking buoy?', [
				'*Blue and yellow in turn',
				'Red and green in turn',
				'White, quick',
				'Yellow, steady'
			]),
			several('Special marks', 'What may a special mark show?', [
				'*The limits of a swimming area',
				'*A measuring buoy',
				'*A spoil ground',
				'The middle of a fairway'
			]),
			truth(
				'Isolated danger light',
				'The light of an isolated danger mark is white and shows groups of two flashes.',
				true
			)
		]
	],
	[
		'Lights of vessels',
		[
			one(
				'Red light only',
				'At night you see one red light of a vessel, and above it a white one. Which side of her do you see?',
				['*Her port side', 'Her starboard side', 'Her stern', 'Her bow, from dead ahead'],
				{ picture: ['sidelights.svg', 'The arcs of the red, green and white lights of a vessel'] }
			),
			figure('Arc of a sidelight', 'Over how many degrees does each sidelight show?', [112.5, 0.1]),
			figure('Arc of the sternlight', 'Over how many degrees does a sternlight show?', [135, 0]),
			figure('Arc of the masthead light', 'Over how many degrees does a masthead light show?', [225, 0]),
			truth('All round', 'A light that shows over an unbroken arc of 360° is an all-round light.', true),
			one('At anchor', 'What does a vessel of less than 50 metres show at anchor by night?', [
				'*One all-round white light',
				'Two red lights',
				'Sidelights and a sternlight',
				'A yellow light'
			]),
			several(
				'Not under command',
				'What does a vessel not under command show by night when she makes no way?',
				[
					'*Two all-round red lights, one over the other',
					'Sidelights',
					'A sternlight',
					'A green light over a white one'
				],
				{ points: 1 }
			),
			word(
				'Pilot vessel',
				'A pilot vessel on duty shows two all-round lights, one over the other. What colour is the upper one?',
				['white']
			),
			one('Trawling', 'Which all-round lights tell of a vessel that trawls?', [
				'*Green over white',
				'Red over white',
				'White over red',
				'Red over red'
			])
		]
	],
	[
		'Day shapes',
		[
			one('At anchor by day', 'Which shape tells of a vessel at anchor?', ['*1', '2', '3'], {
				picture: ['day-shapes.svg', 'Shape 1 is one ball, shape 2 two cones point to point, shape 3 three balls'],
				shuffle: false
			}),
			one('Aground', 'Which shape tells of a vessel aground?', [
				'*Three balls in a line',
				'One ball',
				'Two balls',
				'A cylinder'
			]),
			word('Sail and engine', 'A sailing vessel that also uses her engine shows one shape. Which?', [
				'cone',
				'a cone',
				'cone point down',
				'a cone, point down'
			]),
			truth('Cylinder', 'A vessel constrained by her draught may show a cylinder.', true),
			essay(
				'A night approach',
				'Plan the lights and marks that you would look for, in order, on a night approach to a harbour that you do not know. Say where you would find them before you sail.',
				{
					points: 8
				}
			)
		]
	],
	[
		'Characters of lights',
		[
			one('Isophase', 'What is an isophase light?', [
				'*Light and dark are equally long',
				'The light is longer than the dark',
				'The dark is longer than the light',
				'It does not change'
			]),
			one('Occulting', 'What is an occulting light?', [
				'*The light is longer than the dark',
				'Light and dark are equally long',
				'The dark is longer than the light',
				'It is steady'
			]),
			figure(
				'Period',
				'A chart says Fl(3) 10s. How many seconds is it from the beginning of one group to the beginning of the next?',
				[10, 0]
			),
			several(
				'On the chart',
				'A chart says Fl(2) R 6s 12m 9M. What is true?',
				[
					'*The light is red',
					'*It stands 12 metres high',
					'*It can be seen for 9 nautical miles',
					'It flashes six times'
				],
				{
					points: 3
				}
			),
			word('Letter for quick', 'Which letter stands on charts for a quick light?', ['!Q'], {
				wrong: 'It is written as a capital.'
			})
		]
	]
]);

import type { Difficulty, Question } from '$core/paper';
import { pick, no, reckoned, short, yes, type Draft } from './drafts';

/**
 * Questions of the bank, one on each line: `?` a choice, the right one first; `+` true, `-` false; `=` a word and what is
 * accepted; `#` a number, how far it may be off, its unit. `@` begins a topic with its difficulty.
 */
const LINES = `
@ Collision regulations / Conduct | medium
? Every vessel shall at all times keep a proper lookout by… | sight, hearing and all available means | radar alone | sight alone | radio alone
? A safe speed is one at which a vessel can… | take proper and effective action and stop in good time | keep to her timetable | be steered by one person | be heard by others
? Risk of collision is deemed to exist if the compass bearing of an approaching vessel… | does not appreciably change | changes quickly | is ahead | is abeam
? Action to avoid collision should be… | positive and in good time | small and repeated | left to the last moment | announced by radio first
? In a narrow channel a vessel keeps as near as is safe to… | the outer limit on her starboard side | the outer limit on her port side | the middle | the shallower side
? A vessel crossing a traffic lane of a separation scheme does so on a heading… | as nearly as practicable at right angles | along the lane | as small as possible to the lane | against the traffic
? Of two sailing vessels with the wind on different sides, which keeps out of the way? | the one with the wind on the port side | the one with the wind on the starboard side | the larger | the faster
? Of two sailing vessels with the wind on the same side, which keeps out of the way? | the one to windward | the one to leeward | the larger | the one astern of the wind
? A vessel is overtaking when she comes up from more than how far abaft the beam? | 22.5° | 10° | 45° | 67.5°
? Two power-driven vessels meet head-on. Each alters course… | to starboard | to port | towards the shore | as they agree by lamp
? In a crossing of two power-driven vessels, the one keeps clear that has the other… | on her starboard side | on her port side | right astern | to leeward
? A give-way vessel in a crossing should, if she can, avoid… | crossing ahead of the other | slowing down | passing astern of the other | altering to starboard
? The stand-on vessel keeps her course and speed until… | it is clear that the other does not act | she hears a bell | the other is abeam | she is within a mile
? A power-driven vessel under way keeps out of the way of… | a vessel engaged in fishing | a vessel overtaking her | any smaller vessel | any faster vessel
? A sailing vessel under way keeps out of the way of… | a vessel not under command | any power-driven vessel | a seaplane on the water | a vessel that overtakes her
? In restricted visibility, a vessel that hears a fog signal forward of her beam should first… | reduce to the least speed at which she can be steered | sound five blasts | alter to port | stop her radar
+ The rules on lookout apply in every condition of visibility.
+ A vessel that is in doubt whether she is overtaking assumes that she is.
+ A vessel of less than 20 metres shall not impede one that can navigate only within a narrow channel.
- A sailing vessel that overtakes a power-driven vessel has the right of way.
- A vessel at anchor in a separation zone is to be preferred to anchoring elsewhere.
- Rules for vessels in sight of one another apply in fog when they see each other by radar alone.
@ Collision regulations / Lights and shapes | medium
? At night you see a single white light low on the water that does not change its bearing. It may be… | the sternlight of a vessel ahead of you | the port sidelight of a vessel | a masthead light with both sidelights | a vessel aground
? A vessel towing by night, with a tow of less than 200 metres, shows forward in a vertical line… | two masthead lights | three masthead lights | one masthead light | two red lights
? A tow longer than 200 metres shows by day… | a diamond | a ball | two cones | a cylinder
? A towing light is… | yellow | blue | violet | orange
? A vessel engaged in trawling shows by night… | green over white | red over white | white over red | red over red
? A vessel not under command shows by day… | two balls in a vertical line | two cones, points together | a diamond | three balls
? A vessel at anchor of less than 50 metres shows by night… | one all-round white light | two red lights | a masthead light | a flashing yellow light
? An air-cushion vessel in non-displacement mode shows in addition… | an all-round flashing yellow light | a flashing blue light | two green lights | a red sternlight
? A vessel engaged in minesweeping shows… | three all-round green lights | three all-round red lights | two yellow lights | one blue light
? A sailing vessel that is also being propelled by engine shows by day… | a cone, point down | a ball | a cylinder | a diamond
? A masthead light is visible, on a vessel of 50 metres or more, from at least… | 6 miles | 3 miles | 2 miles | 1 mile
? The minimum range of a sternlight on a vessel of 12 to 50 metres is… | 2 miles | 1 mile | 5 miles | 6 miles
+ Sidelights are shown by a vessel under way that makes way through the water.
+ A rowing boat may show the lights of a sailing vessel.
- A vessel at anchor shows her sidelights.
- A black cylinder is shown by a vessel not under command.
@ Collision regulations / Sound signals | easy
? Two short blasts, in sight of one another, mean… | I am altering my course to port | I am altering my course to starboard | my engines go astern | I am at anchor
? Three short blasts mean… | I am operating astern propulsion | I am altering my course to port | keep clear | I need a pilot
? A power-driven vessel under way but stopped sounds in fog… | two prolonged blasts | one prolonged blast | one short blast | a bell
? A vessel at anchor of less than 100 metres sounds in fog… | a bell for five seconds each minute | two short blasts | a gong alone | a siren
? A prolonged blast lasts… | four to six seconds | one second | two to three seconds | ten seconds
? A vessel nearing a bend where others may be hidden sounds… | one prolonged blast | two short blasts | a bell | five short blasts
+ A short blast lasts about one second.
- A vessel of less than 12 metres must carry a gong.
@ Buoyage / Lateral marks | easy
? In region A, a starboard-hand mark is… | green | red | yellow | black and yellow
? The topmark of a port-hand mark in region A is… | a red can | a green cone | a black ball | two black cones
? The topmark of a starboard-hand mark is shaped like… | a cone, point up | a can | a cross | a ball
? A preferred-channel mark to starboard in region A is red with a band that is… | green | white | yellow | black
? The light of a lateral port-hand mark in region A is… | red | green | white | yellow
+ Sailing with the direction of buoyage in region A, red marks are left to port.
- Lateral marks have the same colours in regions A and B.
- A starboard-hand mark in region A has a red light.
@ Buoyage / Cardinal marks | medium
? Black, yellow and black in horizontal bands is… | an east cardinal mark | a west cardinal mark | a north cardinal mark | a south cardinal mark
? Yellow, black and yellow in horizontal bands is… | a west cardinal mark | an east cardinal mark | a north cardinal mark | a south cardinal mark
? Black above yellow is… | a north cardinal mark | a south cardinal mark | an east cardinal mark | a west cardinal mark
? Yellow above black is… | a south cardinal mark | a north cardinal mark | an east cardinal mark | a west cardinal mark
? Two cones with their points together are the topmark of… | a west cardinal mark | an east cardinal mark | a north cardinal mark | a south cardinal mark
? Two cones base to base are the topmark of… | an east cardinal mark | a west cardinal mark | a north cardinal mark | a south cardinal mark
? An east cardinal mark shows how many flashes in a group? | three | six | nine | two
? A west cardinal mark shows how many flashes in a group? | nine | three | six | four
? A south cardinal mark shows six flashes and then… | one long flash | nothing | three more | a red flash
? The light of every cardinal mark is… | white | yellow | green | red
+ A cardinal mark is named by the side on which it is safe to pass.
- A north cardinal mark shows a red light by night.
@ Buoyage / Other marks | easy
? An isolated danger mark has the colours… | black and red | red and white | yellow alone | black and yellow
? A safe water mark has… | red and white vertical stripes | red and black bands | green and white bands | yellow and black bands
? The topmark of a special mark is… | a yellow cross | a red ball | two black balls | a black cone
? The topmark of an isolated danger mark is… | two black balls | one red ball | two cones | a yellow cross
? An emergency wreck marking buoy is striped in… | blue and yellow | red and white | black and red | green and white
? A safe water mark may be used as… | a landfall mark | a mark of a new wreck | a port-hand mark | a mark of a spoil ground
@ Chart work / Symbols and charts | easy
? On a chart, a figure such as 12₅ tells… | a depth of 12.5 metres | a height of 12.5 metres | a distance of 12.5 miles | a course of 125°
? The letters “S” and “M” beside a depth tell of… | the nature of the bottom | the strength of the stream | the kind of light | the time of high water
? “Oc” before a light’s period tells that it is… | dark for shorter than it is lit | lit for shorter than it is dark | always on | orange
? “Iso 4s” is a light that is… | lit and dark for equal times | flashing four times | seen for four miles | four metres high
? “Q” is a light that… | flashes quickly | is quiet | is quarter-mile in range | has four colours
? Heights of lights are given on charts above… | mean high water springs | chart datum | mean sea level | the sea bed
? Corrections to charts are published in… | notices to mariners | the tide tables | the log book | the sailing directions alone
? One minute of latitude is, to common practice, equal to… | one nautical mile | one statute mile | one kilometre | one cable
? A cable is what part of a nautical mile? | a tenth | a half | a quarter | a hundredth
? A large-scale chart shows… | a small area in detail | a large area without detail | only depths | only land
+ The compass rose shows the variation and its yearly change.
- Longitude is used to measure distance on a Mercator chart.
- A chart’s title never tells in what units its depths are given.
@ Chart work / Position and course | medium
? The course that a vessel makes good is… | her course over the ground | her course by compass | her heading | her course through the water
? Leeway is the angle between a vessel’s heading and… | her wake | the magnetic meridian | the stream | the nearest land
? A running fix uses… | two bearings of one object at different times | two objects at one time | the depth alone | the log alone
? A position reckoned from course and distance alone is called… | a dead reckoning position | an observed position | a fix | a transit
? A horizontal angle between two marks gives as a position line… | a circle through both marks | a straight line to one mark | a great circle | a parallel of latitude
? A compass error is the sum of… | variation and deviation | heel and trim | leeway and drift | set and rate
? When the error is west, the compass reads… | best, that is more than true | least, that is less than true | the same as true | only magnetic
? A great circle on a Mercator chart appears as… | a curve towards the pole | a straight line | a curve towards the equator | a circle
? “Doubling the angle on the bow” gives the distance off as… | the distance run between the bearings | half the distance run | twice the distance run | the height of the light
? A clearing bearing is used to… | stay on the safe side of a danger | find the set | correct the compass | measure the depth
# A vessel steams at 12 knots for 2 hours 30 minutes. How far does she go? | 30 | 0.1 | nautical miles
# At 8 knots, how long does a passage of 36 nautical miles take? | 4.5 | 0.05 | hours
# True course 120°, variation 6° east. What is the magnetic course? | 114 | 0 | °
# Compass course 045°, deviation 2° west, variation 5° west. What is the true course? | 38 | 0 | °
# A bearing of 045° relative on a heading of 330° is which true bearing? | 15 | 0 | °
# A log reads 112.4 and four hours later 150.8. What was the mean speed through the water? | 9.6 | 0.05 | knots
+ Two position lines that cross at a small angle make a poor fix.
- Deviation is found on the chart.
@ Tides / Words and causes | easy
? The range of a tide is the difference between… | high water and the next low water | high water and chart datum | springs and neaps | two high waters
? Tides are greatest about two days after… | new and full moon | the quarters | the equinox alone | each sunset
? The height of tide is measured above… | chart datum | mean sea level | the sea bed | the highest tide
? A tide that comes twice a day is called… | semi-diurnal | diurnal | mixed | neap
? The equinoctial springs come near… | March and September | June and December | each new year | each full moon in summer
? A stream that runs towards the shore or up a river as the tide rises is called… | the flood | the ebb | slack water | the stand
? HAT is the highest tide that… | can be predicted under average weather | was ever measured | comes at each spring | is found at neaps
? An onshore gale tends to make the water level… | higher than predicted | lower than predicted | exactly as predicted | salty
+ The moon has more effect on the tides than the sun.
+ Neap tides have a smaller range than springs.
- High water comes at the same time each day.
- Chart datum is always mean sea level.
@ Tides / Reckoned | medium
# High water is 5.9 m and low water 1.3 m. What is the range? | 4.6 | 0.01 | m
# The range is 4.8 m. How far does the tide rise in the third hour by the rule of twelfths? | 1.2 | 0.01 | m
# The range is 3.6 m. How far does it rise in the first hour by the rule of twelfths? | 0.3 | 0.01 | m
# A wreck is charted at 4.2 m; the height of tide is 2.9 m. How deep is the water over it? | 7.1 | 0.01 | m
# A bank dries 2.1 m. What height of tide floats a draught of 1.5 m with 0.5 m under the keel? | 4.1 | 0.01 | m
# A stream sets for 3 hours at 1.8 knots. How far does it carry a vessel? | 5.4 | 0.05 | nautical miles
# A bridge has 18.0 m clear at mean high water springs of 5.6 m. How much is clear at a height of tide of 3.2 m? | 20.4 | 0.05 | m
# Springs run at 3.0 knots and neaps at 1.4. What is the rate half-way between? | 2.2 | 0.05 | knots
@ Radio / Procedure | easy
? Before sending, an operator first… | listens whether the channel is in use | says “over” | raises the aerial | switches to full power
? A radio check is best made… | on a working channel or by routine call | on channel 16 at length | by a distress alert | by flares
? The reply “Say again” asks the other to… | repeat the message | spell each word | stop sending | change channel
? “I spell” is followed by… | letters of the phonetic alphabet | figures alone | the position | the call sign of the coast station
? “Wait” in a radio message means… | I must pause for a few seconds | the message has ended | change channel | send a distress alert
? “Correction” means that… | something said was wrong and follows right | the message was received | the channel changes | the course was altered
? “Mayday relay” is sent by… | a station that passes on another’s distress | the vessel in distress | a vessel aground in a harbour | a coast station closing down
? A false distress alert should be… | cancelled by voice at once | ignored | answered by another alert | left to the coast station to find
? A position in a distress message is best given by… | latitude and longitude or bearing and distance from a mark | the name of the sea | the time | the course alone
? In low power a hand-held VHF set sends with about… | 1 watt | 25 watts | 100 watts | 10 milliwatts
= Which word, said three times, comes before an urgent message about the safety of a person? | pan-pan ; pan pan ; panpan
= Which word begins a safety message? | sécurité ; securite ; securitay
= Which VHF channel is first for bridge-to-bridge safety? | 13 ; channel 13
= What do the letters EPIRB’s “R” stand for? | radio
= What is the word for “yes” in radio procedure? | affirmative
= What is the word for “no” in radio procedure? | negative
+ A distress call has priority over all others.
- A ship station may send without a call sign or name.
- Music may be sent on a working channel to test it.
@ Radio / Distress and safety | medium
? An EPIRB of 406 MHz is located by… | satellites | radar alone | the lightship | the tide table
? A search and rescue transponder is seen on a radar as… | a line of twelve dots | a single large echo | a circle at the centre | a cross
? Digital selective calling sends a distress alert… | at the press of a covered button | by voice alone | by flag | every hour
? NAVTEX sends messages about safety on the frequency of… | 518 kHz | 156.8 MHz | 2182 kHz | 406 MHz
? Sea area A1 is within range of… | a VHF coast station with digital selective calling | a medium-wave station alone | satellites alone | no station
? The power of a fixed VHF set at sea is at most… | 25 watts | 5 watts | 50 watts | 100 watts
? The range of VHF between two yachts is typically… | 10 to 15 miles | 1 mile | 100 miles | 500 miles
+ A distress alert by digital selective calling contains the vessel’s MMSI.
- An EPIRB may be tested by sending a distress alert.
@ Stability / Words | easy
? Freeboard is measured from the waterline to… | the upper edge of the deck line | the keel | the bridge | the load line of fresh water
? The draught is the depth of… | the keel below the waterline | the hold | the water below the keel | the deck above the waterline
? Trim is the difference between… | the draughts forward and aft | the heel to either side | the freeboard and the draught | the cargo and the ballast
? A list is… | a steady heel | a change of trim | the roll in a sea | a table of cargo
? The displacement of a vessel equals… | the mass of the water that she displaces | her cargo | her length times her beam | her deadweight alone
? The deadweight is… | what she carries: cargo, fuel, stores, people | her mass when empty | the mass of her hull | her anchor and cable
? The centre of gravity of a vessel moves towards… | a weight that is loaded | the side that is dry | the keel always | the bow always
? A weight that hangs from a derrick acts as if it were at… | the head of the derrick | the deck | the keel | the hook
? The reserve of buoyancy is… | the watertight volume above the waterline | the water in the tanks | the lifejackets on board | the ballast
? A tender vessel has… | a small metacentric height | a large metacentric height | a deep draught | a high freeboard
+ A vessel with a large metacentric height comes back quickly from a roll.
+ Filling a double-bottom tank completely takes away its free surface.
- Timber on deck that takes up water makes a vessel stiffer.
- Free surface depends only on how deep the tank is.
@ Stability / Reckoned | hard
# A weight of 50 t is moved 8 m across a vessel of 5000 t. How far does her centre of gravity move? | 0.08 | 0.001 | m
# KM is 6.9 m, KG 6.1 m and the rise by free surface 0.15 m. What is the effective GM? | 0.65 | 0.005 | m
# GM is 0.5 m and the heel 6°, with a sine of 0.1045. What is GZ? | 0.052 | 0.001 | m
# A box barge of 40 m by 10 m floats at 2 m in fresh water. What does she displace? | 800 | 1 | t
# A vessel sinks 1 cm for each 12 t. How much deeper is she after loading 180 t? | 15 | 0.1 | cm
# Draughts are 3.2 m forward and 3.8 m aft. What is the mean draught? | 3.5 | 0.01 | m
# 100 t are loaded 4 m above the centre of gravity of a vessel of 1900 t. How far does it rise? | 0.2 | 0.005 | m
@ Weather / Systems | medium
? In the northern hemisphere, air around a high moves… | clockwise | anticlockwise | straight outwards | straight inwards
? A line on a weather map that joins places of equal pressure is… | an isobar | an isotherm | an isobath | a contour
? A warm front is drawn with… | half circles | triangles | both in turn on one side | a dotted line
? A cold front is drawn with… | triangles | half circles | a double line | circles
? An occlusion forms when… | a cold front overtakes a warm front | two highs meet | a low fills | the sea is warmer than the air
? After a cold front has passed, the visibility usually… | improves | becomes worse | is nil | is unchanged for a day
? A ridge is a region of… | higher pressure drawn out from a high | lower pressure | calm around the equator | fog
? The sea breeze blows by day from… | the sea to the land | the land to the sea | the pole | the mountains to the sea
? A land breeze is strongest… | by night | at noon | in the afternoon | in fog
? The geostrophic wind blows… | along the isobars | across the isobars towards the low | from high to low directly | only at night
? A squall line brings… | sudden gusts and heavy showers | steady drizzle | a calm | haze
? A falling glass with a backing wind tells of… | an approaching low | an approaching high | fine weather | a land breeze
? Radiation fog forms over… | land that cools on a clear, calm night | a warm sea by day | a cold current under moist air | mountains in wind
+ Gusts near showers can come from another direction than the mean wind.
+ Hot, moist air over a cold current makes fog.
- A deepening low has a rising pressure at its centre.
- In the southern hemisphere air moves clockwise around a high.
@ Weather / Forecasts | easy
? “Imminent” in a gale warning means within… | 6 hours | 12 hours | 24 hours | 1 hour
? “Soon” in a gale warning means within… | 6 to 12 hours | 1 hour | 12 to 24 hours | 2 days
? “Later” in a gale warning means in… | more than 12 hours | 6 hours | less than an hour | three days
? Visibility that is “good” is more than… | 5 miles | 1 mile | half a mile | 10 miles
? Visibility that is “poor” is… | 1000 metres to 2 miles | 2 to 5 miles | more than 5 miles | less than 1000 metres
? “Veering” tells that the wind changes… | clockwise | anticlockwise | in strength alone | to calm
? “Backing” tells that the wind changes… | anticlockwise | clockwise | in strength alone | to a gale
? A barometric tendency of “rising slowly” tells of… | a small rise over three hours | a large fall | no change | a storm within the hour
@ Safety / Survival | easy
? A liferaft is made fast before it is launched by… | its painter | its drogue | its canopy | its ballast bags
? The first thing to do in a liferaft is to… | cut the painter and get clear | fire all flares | drink water | lower the canopy
? A hydrostatic release frees a raft when it is… | some metres under water | in the sun | pulled by hand | heated
? A drogue on a liferaft… | slows its drift and steadies it | makes it faster | collects rain | lights it
? A lifejacket of 150 newtons will… | turn most unconscious people face up | only help swimmers | keep a boat afloat | light by itself always
? Hypothermia is… | a dangerous fall of body temperature | a fear of heights | a burn by the sun | a lack of salt
? A casualty with hypothermia should be… | warmed slowly and kept lying down | rubbed hard | given alcohol | made to run
? Water in a liferaft is first given after… | 24 hours, but to the injured | one hour | three days | each meal
? An orange smoke signal is used… | by day | by night alone | in fog alone | under water
? A hand-held red flare is held… | to leeward, at arm’s length | to windward | over the raft’s floor | inside the canopy
+ Lifejackets are put on before entering a liferaft.
+ A parachute flare rises to about 300 metres.
- Sea water may be drunk in a liferaft if mixed with fresh.
- A white hand flare is a signal of distress.
@ Safety / Fire | easy
? The three sides of the fire triangle are heat, fuel and… | oxygen | water | smoke | pressure
? A fire of flammable liquids is of class… | B | A | D | F
? A fire of solid materials such as wood is of class… | A | B | C | F
? An electrical fire is first… | cut off from its supply | put out with water | fanned | left to burn
? A foam extinguisher works mainly by… | smothering | cooling the room | cutting the supply | weighing the fuel down
? Boundary cooling is done to… | keep a fire from spreading through bulkheads | put out oil | clear smoke | fill a tank
? On finding a fire, the first act is to… | raise the alarm | fetch a hose | open the doors | close the log
? A dry powder extinguisher leaves behind… | a residue that harms machines | nothing | foam | ice
+ A carbon dioxide system needs a space to be closed and empty of people.
- Water is right for a fire of burning oil in a deep pan.
@ Safety / Aboard | medium
? A muster list tells… | each person’s duties in an emergency | the cargo | the courses | the meals
? An enclosed space is entered only after… | it has been ventilated and its air tested | it has been painted | a shout into it | the lights are off
? A permit to work is needed for… | hot work | making tea | reading the log | washing the deck
? When going aloft, a person is protected by… | a harness with a lifeline | a lifebuoy | a whistle | gloves alone
? A mooring line under load should be… | kept clear of its snap-back | stepped over slowly | held by hand | wetted
? A Williamson turn is used to… | come back onto the reciprocal track | anchor | reduce the roll | leave a berth
? A stretcher is needed when a casualty may have… | an injury of the spine | a cold | a cut finger | seasickness
? In cardiopulmonary resuscitation of an adult, the ratio of compressions to breaths is… | 30 to 2 | 5 to 1 | 15 to 5 | 2 to 30
+ A person overboard is best recovered lying flat where that is possible.
- A heaving line is made fast to the thrower’s wrist.
`;

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const SPOKEN =
	'Alfa Bravo Charlie Delta Echo Foxtrot Golf Hotel India Juliett Kilo Lima Mike November Oscar Papa Quebec Romeo Sierra Tango Uniform Victor Whiskey X-ray Yankee Zulu'.split(
		' '
	);
const MORSE =
	'.- -... -.-. -.. . ..-. --. .... .. .--- -.- .-.. -- -. --- .--. --.- .-. ... - ..- ...- .-- -..- -.-- --..'.split(
		' '
	);
/** Single letters of the International Code of Signals; R has no meaning of its own. */
const FLAGS: Record<string, string> = {
	A: 'I have a diver down; keep well clear at slow speed',
	B: 'I am taking in, discharging or carrying dangerous goods',
	C: 'Yes',
	D: 'Keep clear of me; I am manoeuvring with difficulty',
	E: 'I am altering my course to starboard',
	F: 'I am disabled; communicate with me',
	G: 'I require a pilot',
	H: 'I have a pilot on board',
	I: 'I am altering my course to port',
	J: 'I am on fire and have dangerous cargo; keep well clear',
	K: 'I wish to communicate with you',
	L: 'You should stop your vessel instantly',
	M: 'My vessel is stopped and making no way through the water',
	N: 'No',
	O: 'Man overboard',
	P: 'All persons should report on board; the vessel is about to go to sea',
	Q: 'My vessel is healthy, and I request free pratique',
	S: 'I am operating astern propulsion',
	T: 'Keep clear of me; I am engaged in pair trawling',
	U: 'You are running into danger',
	V: 'I require assistance',
	W: 'I require medical assistance',
	X: 'Stop carrying out your intentions and watch for my signals',
	Y: 'I am dragging my anchor',
	Z: 'I require a tug'
};
/** The Beaufort scale: what each force is called, and its mean wind in knots. */
const BEAUFORT: [string, string][] = [
	['calm', 'less than 1'],
	['light air', '1 to 3'],
	['light breeze', '4 to 6'],
	['gentle breeze', '7 to 10'],
	['moderate breeze', '11 to 16'],
	['fresh breeze', '17 to 21'],
	['strong breeze', '22 to 27'],
	['near gale', '28 to 33'],
	['gale', '34 to 40'],
	['strong gale', '41 to 47'],
	['storm', '48 to 55'],
	['violent storm', '56 to 63'],
	['hurricane', '64 and more']
];
const POINTS = 'N NNE NE ENE E ESE SE SSE S SSW SW WSW W WNW NW NNW'.split(' ');

type Line = { topic: string; difficulty: Difficulty; draft: Draft };

/** Three others of a list, always the same for one place. */
function others<T>(list: readonly T[], at: number): T[] {
	return [5, 11, 17].map((step) => list[(at + step) % list.length]);
}

/** Questions that are alike but for one thing: letters, flags, forces of the wind, points of the compass. */
function families(): Line[] {
	const flags = Object.keys(FLAGS);
	const on = (topic: string, difficulty: Difficulty, drafts: Draft[]) =>
		drafts.map((draft): Line => ({ topic, difficulty, draft }));
	return [
		...on(
			'Signals / Phonetic alphabet',
			'easy',
			// Q is asked in a paper.
			[...LETTERS].flatMap((letter, i) =>
				letter === 'Q' ? [] : [short(`Which word of the phonetic alphabet stands for ${letter}?`, [SPOKEN[i]])]
			)
		),
		...on(
			'Signals / Flags',
			'hard',
			flags.map((letter, i) => {
				const [one, two, three] = others(flags, i).map((other) => FLAGS[other]);
				return pick(`The flag ${SPOKEN[LETTERS.indexOf(letter)]}, flown alone, means…`, FLAGS[letter], one, two, three);
			})
		),
		...on(
			'Signals / Morse',
			'hard',
			[...LETTERS].map((letter, i) =>
				short(`A lamp sends ${MORSE[i].split('').join(' ')}. Which letter is it?`, [letter])
			)
		),
		...on(
			'Weather / Beaufort scale',
			'medium',
			BEAUFORT.flatMap(([name, knots], force) => {
				const [one, two, three] = [3, 6, 9].map((step) => BEAUFORT[(force + step) % BEAUFORT.length]);
				return [
					pick(`Wind of force ${force} is called…`, name, one[0], two[0], three[0]),
					pick(`In knots, the mean wind of force ${force} is…`, knots, one[1], two[1], three[1])
				];
			})
		),
		...on(
			'Chart work / Points of the compass',
			'easy',
			POINTS.map((point, i) => reckoned(`How many degrees is the point ${point}, from 0 to 359?`, i * 22.5, 0.5, '°'))
		)
	];
}

function fromLine(line: string): Draft {
	const [stem, ...rest] = line.slice(2).split(' | ');
	const accepted = () => rest[0].split(' ; ');
	switch (line[0]) {
		case '?':
			return pick(stem, rest[0], ...rest.slice(1));
		case '+':
			return yes(stem);
		case '-':
			return no(stem);
		case '=':
			return short(stem, accepted());
		case '#':
			return reckoned(stem, Number(rest[0]), Number(rest[1]), rest[2]);
		default:
			throw new Error(`No kind of question: ${line}`);
	}
}

/** All of them, each with an id of its own. */
export function bankOfLines(): Question[] {
	const lines: Line[] = [];
	let [topic, difficulty] = ['', 'easy' as Difficulty];
	for (const line of LINES.split('\n').filter(Boolean))
		if (line.startsWith('@ ')) [topic, difficulty] = line.slice(2).split(' | ') as [string, Difficulty];
		else lines.push({ topic, difficulty, draft: fromLine(line) });
	return [...lines, ...families()].map(
		({ topic, difficulty, draft }, i) => ({ ...draft, id: `bl-${i + 1}`, topic, difficulty }) as Question
	);
}

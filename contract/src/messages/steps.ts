/** The steps at a chain: what is done, why, and what to see or feel before it is done. */

/** Taking a chain off, for whatever. */
const removing = {
  'motor-off': {
    what: 'Switch the motor off. Take the battery out, or lock it off as its maker says.',
    why: 'A motor that starts on its own pulls fingers into the chain.',
    check: 'The display is dark and turning the cranks wakes nothing.',
  },
  'set-tool': {
    what: 'Set the pin tool: driver wound right back, cradle to this chain, lock nut backed off.',
    why: 'A pin driven off centre bends the plate. A bench tool holds the chain square; a multi-tool wants watching all the way.',
    check: 'The chain sits down in the cradle and the driver meets the middle of the pin.',
  },
  'identify-joint': {
    what: 'Find the joint and see what it is.',
    why: 'How you open it depends on what it is.',
    check: 'It is clearly one of the four drawings.',
  },
  'note-way': {
    what: 'Tie a thread round the outer plate that leads on the top run, on the side facing you.',
    why: 'Nothing on the plates says which way it ran. Put back the other way round it runs rough for a while.',
  },
  slack: {
    what: 'Shift to the smallest sprocket and the smallest ring.',
    'what_smallest-ring': 'Shift to the smallest sprocket and the smallest ring.',
    'what_off-ring': 'Shift to the smallest sprocket, then lift the chain off the ring.',
    'what_largest-ring': 'Shift to the smallest sprocket. Leave it on the largest ring.',
    why: 'The less the cage pulls, the less the chain whips when it opens.',
  },
  'lock-cage': {
    what: 'Swing the cage forward and lock it.',
    why: 'Nothing should be opened or joined against its spring.',
    check: 'The lower run hangs loose.',
  },
  'clutch-off': { what: 'Turn the clutch off.', why: 'With it on, the cage springs back hard.' },
  'slacken-axle': {
    what: 'Slacken the axle and push the wheel forward.',
    why: 'With no tensioner, the wheel is all there is to give slack.',
  },
  'turn-eccentric': {
    what: 'Slacken the eccentric and turn it until the chain hangs loose.',
    why: 'Nothing else gives slack on this chain.',
  },
  'hold-ends': {
    what: 'Bring the joint to the lower run and hang the hook in, one end either side.',
    why: 'A chain that flies apart hits hands and paint.',
    check: 'The hook carries the pull and the joint is slack.',
  },
  'open-link': {
    what: 'Open the link with the pliers that pull inwards.',
    what_hand: 'Open the link by hand: press its two plates together and slide the ends towards each other.',
    what_pliers: 'Open the link with opening pliers: a jaw on each of its rollers, and squeeze.',
    what_never: 'Squeeze this link open with the pliers and throw it away: its maker does not mean it to be opened.',
    why: 'Squeezed together, the pins slide out of the narrow end of their slots. Closing pliers push the other way.',
    check: 'Both halves come away and no pin is bent.',
  },
  'open-anywhere': {
    what: 'Cut the chain wherever it is easiest.',
    why: 'The chain is scrap and its link is good for one use only.',
  },
  'open-pin': {
    what: 'Set the tool square on a pin and drive it out.',
    what_kept: 'Set the tool square on a pin well away from the joining pin and drive it out.',
    what_scrap: 'Set the tool square on any pin and drive it out.',
    what_convert: 'Set the tool square on the joining pin and drive it right out.',
    why: 'A hole that has had a joining pin in it does not hold a second one.',
    why_convert: 'It is to be closed with a link from now on: the outer link with this pin comes out.',
    why_scrap: 'None of these pins is used again.',
    check:
      'It goes stiff, gives suddenly, then easy. If it goes off line, back out. Ends that stick are flexed apart, not pulled.',
  },
  'open-riveted': {
    what: 'Set the tool square on a pin and drive it out.',
    what_out: 'Set the tool square on a pin and drive it right out.',
    'what_left-in': 'Drive a pin until it is held in the far outer plate only, and leave it there.',
    what_convert: 'Set the tool square on a pin and drive it right out.',
    why: 'A pin that is to go back in must not leave its plate.',
    why_out: 'This pin does not go back in.',
    why_convert: 'It is to be closed with a link from now on: one outer link comes out.',
    check:
      'It goes stiff, gives suddenly, then easy. If it goes off line, back out. Ends that stick are flexed apart, not pulled.',
  },
  'open-clip': {
    what: 'One jaw on the pin, one on the end of the clip: slide it off and catch it.',
    why: 'The clip springs away, and nothing else holds the plate on.',
  },
  'open-broken': {
    what: 'Draw the broken chain off, torn plates away from your hands.',
    why: 'Torn plates cut.',
  },
  'outer-out': {
    what: 'Now the next pin of the same outer link: drive it out and lift that outer link away.',
    why: 'A link goes between two inner ends. Pins from two different places would leave you with two pieces of chain.',
    check: 'One piece of chain, an inner link at both ends, and one outer link in your hand.',
  },
  'let-go': {
    what: 'Ease the hook out and hold the top run above the chainstay.',
    why: 'An end that runs away takes paint with it.',
  },
  'draw-out': {
    what: 'Draw the chain out to the rear.',
    what_cage: 'Draw it out rearwards over the sprocket; let the other end run through pulleys and cage.',
    what_plain: 'Draw it off the sprocket and the ring.',
    why: 'Pulled forward, a loose end catches in the cage.',
  },
} as const

/** Putting a chain on and closing it, for whatever. */
const refitting = {
  direction: {
    what: 'The marked side faces away from the bike.',
    what_chain: 'The marked side of the chain faces away from the bike.',
    'what_chain-arrow':
      'The marked side of the chain faces away from the bike. The link’s arrow points the way it travels: forward on the top run.',
    'what_chain-letters': 'The marked side of the chain and the link’s letters face away from the bike.',
    what_arrow: 'The link’s arrow points the way the chain travels: forward on the top run, rearward below.',
    'what_arrow-letters':
      'The link’s arrow points the way the chain travels, forward on the top run; its letters face away from the bike.',
    what_letters: 'The link’s letters face away from the bike.',
    what_noted: 'The thread leads on the top run, facing you, as it ran before.',
    why: 'Its plates are cut to work one way.',
    why_noted: 'It has worn in one way and runs quietest that way.',
    check: 'You can read the marks standing on the drive side.',
    check_noted: 'The thread is where you tied it.',
  },
  'route-front': {
    what: 'Through the front cage or guide first.',
    'what_front-derailleur': 'Through the front derailleur’s cage first, bike {{position}}.',
    'what_chain-guide': 'Through the chain guide first, bike {{position}}.',
    what_unknown: 'Through the front cage or guide first, if there is one; bike {{position}}.',
    why: 'Forget it now and you find out when the chain is closed.',
  },
  'route-rear': {
    what: 'Round the sprocket.',
    what_sprocket: 'Round the sprocket, inside any guard, the upper run on to the ring.',
    what_timing: 'Round the rings of both cranksets.',
    why: 'On the wrong side of a guard it rubs.',
  },
  'route-pulleys': {
    what: 'Round the sprocket, upper pulley, behind the cage’s tab, lower pulley.',
    what_upright:
      'Over the sprocket, down in front of the upper pulley, behind the tab, round the lower pulley and out to the rear. Swing the cage forward for room and let it back slowly.',
    'what_upside-down':
      'Under the sprocket, up past the upper pulley, behind the tab, round the lower pulley and out to the rear. Hold the cage: it falls the other way now.',
    'what_on-side': 'Round the sprocket, past the upper pulley, behind the tab, round the lower pulley.',
    why: 'In front of the tab it still runs, but rubs and wears through.',
    check: 'Both pulleys have it, and the tab is on the outside of the chain.',
  },
  'wide-narrow': {
    what: 'Outer links on the wide teeth.',
    why: 'The other way round it rides up and drops off.',
    check: 'It sits right down all the way round.',
  },
  'ends-together': {
    what: 'Bring the ends together on the lower run and hang the hook in.',
    why: 'You need both hands for the joint.',
  },
  'phase-cranks': {
    what: 'Set both cranksets as they were to each other.',
    why: 'One tooth out is felt on every turn.',
    check: 'The cranks are in line, or as the riders like them.',
  },
  'length-before': {
    what: 'Look at the length before you close it.',
    why: 'Now it is put right in a minute.',
    check: 'The cage hangs as it should and nothing pulls tight.',
  },
  'maker-sheet': {
    what: 'The link’s maker says: {{sheet}}',
    why: 'The maker’s sheet comes before these steps.',
  },
  'clear-wax': {
    what: 'Scrape the wax off the outer plates and push the plugs out of the pin holes.',
    why: 'A pin sitting on wax locks on one side only.',
    check: 'You can see through the holes.',
  },
  'oil-link': { what: 'A drop of oil on the link’s pins, then wipe.', why: 'It seats with less force.' },
  'join-link': {
    what: 'Put the link’s halves in from opposite sides, the two pins away from each other.',
    what_arrow: 'Put the link’s halves in from opposite sides, its arrow the way the chain travels.',
    what_plain: 'Put the link’s halves in from opposite sides: one pin each, each through the other’s wide slot end.',
    why: 'Closed badly, a chain comes apart under load.',
  },
  'first-catch': {
    what: 'Pull the ends apart by hand until the halves catch.',
    why: 'Under a light pull they line up, so that snapping them home needs no force.',
    check: 'Each pin sits mid-slot, not still in the wide end.',
  },
  'snap-pliers': {
    what: 'Snap it home with closing pliers: jaws inside, push the rollers apart.',
    why: 'Pulled by hand it often only looks closed.',
  },
  'snap-pedal': {
    what: 'Turn the link to the top run. Wheels on the ground, brake held, weight on the pedal.',
    why: 'The pull snaps it home, and you hear it.',
  },
  'look-click': {
    what: 'How did it click? Shake it and look at both sides.',
    why: 'Half closed looks closed from one side.',
    check: 'Both pins are at the narrow ends of their slots, on both sides.',
  },
  'new-link': {
    what: 'Take that link out and put a new one in.',
    why: 'A link that did not click gets no second try.',
  },
  'join-pin': {
    what: 'Press the joining pin in.',
    what_guided: 'Push the guide through from the far side by hand, then press: tight, loose, tight. Stop there.',
    what_preset: 'The pin is in the end plate already, without a guide: press until its two ends stand out the same.',
    why: 'One turn too many and it is through; one too few and the plate works loose.',
    check: 'It stands out a hair on both sides, like the pins beside it.',
  },
  'new-pin': {
    what: 'Drive the rest of the pin out and begin with a new one at the next pin.',
    why: 'A pin that broke has hurt its hole.',
    check: 'The plate is not torn.',
  },
  'guide-off': {
    what: 'Take the guide off with pliers.',
    what_snapped: 'Snap the guide off with pliers, without twisting.',
    what_pulled: 'Pull the guide straight out with pliers.',
    why: 'Twisting it opens up the hole.',
  },
  'join-re-press': {
    what: 'Press the old pin back in, from the side the tool reaches, until its ends are even.',
    what_allowed: 'Press the old pin back in, from the side the tool reaches, until its ends are even.',
    what_caution: 'Press the old pin back in until its ends are even. It is a weak spot on this chain: change it soon.',
    why: 'If it is uneven, a plate lets go under load.',
    check: 'The same on both sides.',
  },
  'join-clip': {
    what: 'Plate on, clip on: its closed end leads.',
    why: 'Open end first, a twig can take it off.',
    check: 'It has snapped in behind both pins.',
  },
  'unlock-cage': {
    what: 'Undo the cage lock.',
    why: 'Left locked, the chain runs slack and drops.',
    check: 'The cage pulls.',
  },
  'back-on-ring': {
    what: 'Lift the chain back on to its ring.',
    what_plain: 'Lift the chain back on to its ring.',
    what_pedal: 'Lift the chain on to the large ring before you close it.',
    why: 'You lifted it off for slack.',
    why_pedal: 'The pedal pulls nothing while the chain is off its ring.',
  },
  'clutch-on': {
    what: 'Turn the clutch on.',
    why: 'Left off, the chain slaps and drops.',
    check: 'The cage is stiff to push.',
  },
  'set-tension': {
    what: 'Set the tension.',
    what_axle: 'Pull the wheel back until the chain has about 1 cm of play at its tightest spot.',
    what_timing: 'Turn the eccentric until the chain has a little play at its tightest spot.',
    why: 'Too tight wears the bearings, too slack drops the chain.',
    check: 'Turn it all the way round: the tightest spot counts.',
  },
  'tighten-axle': {
    what: 'Tighten the axle, wheel in line, to its maker’s torque.',
    what_axle: 'Tighten the axle, wheel in line, to its maker’s torque.',
    what_timing: 'Tighten the eccentric to its maker’s torque.',
    why: 'A wheel that moves throws the chain.',
    check: 'Brake and mudguard clear, and nothing moves by hand.',
  },
} as const

/** What else belongs to changing a chain. */
const changing = {
  pick: { what: 'Lay out what you need.', why: 'Nobody wants to look for it with greasy hands and an open chain.' },
  'count-old': {
    what: 'Count the old chain, and see how it hangs on the two smallest and the two largest.',
    what_shortened: 'Count the old chain. It was shortened after a break, so its count is not the right one.',
    why: 'How it hangs now tells you whether its length was right.',
  },
  'measure-broken': {
    what: 'Measure a good stretch of it before anything else.',
    why: 'A worn chain is changed, not mended: the next link is as thin as the one that broke.',
    check: 'Its wear is known, and it is worth the work.',
  },
  'two-pockets': {
    what: 'What comes out goes in one pocket, the new link or pin in the other.',
    why: 'A bent outer link looks like a new one when your hands are black.',
  },
  'lay-bike': {
    what: 'Turn the bike so that the drive is up.',
    'what_on-side': 'Lay it on its left side, the drive up, on something soft.',
    'what_upside-down': 'Stand it on saddle and bar, a rag under both.',
    why: 'The chain hangs free of spokes and mech, and you see both sides of it.',
  },
  'take-out': {
    what: 'Take out what you marked.',
    what_link:
      'Drive the pins of each marked place right out and lift the piece away: an inner link is left at both ends.',
    what_pin: 'Drive one pin right out, leave the last one standing in its outer plate: one end inner, one outer.',
    why: 'Everything bent goes, and what stays has to suit the joint.',
    check: '{{count}} pitches are in your hand, none of them from anywhere else.',
  },
  'put-in': {
    what: 'Lay the piece into the gap.',
    what_link:
      'Lay the piece into the gap: {{count}} of chain, an inner link at both its ends, a link at each side of it.',
    what_pin: 'Lay the piece into the gap: {{count}} of chain, its inner end to the outer end.',
    why: 'It keeps the chain at its length. It wears differently from the rest, so mark it.',
    check: 'Inner and outer take turns all the way through.',
  },
  'count-mended': {
    what: 'Count it before you thread it: {{pitches}}, the link counted in.',
    why: 'A pitch lost here is a gear lost out there.',
    check: 'The count is {{pitches}}.',
  },
  'join-others': {
    what: 'Close the other joint the same way.',
    what_other: 'Close the other {{count}} joints the same way.',
    why: 'A chain is as strong as its worst joint.',
    check: 'Every one of them looked at from both sides.',
  },
  'cage-screw': {
    what: 'Largest sprocket: if the upper pulley rubs on it, turn the mech’s body screw in until it clears.',
    why: 'A shorter chain pulls the cage forward, up against the largest sprocket.',
    check: 'The pulley runs free on the largest sprocket, back-pedalled.',
  },
  'find-cause': {
    what: 'Find what broke it: a bent tooth, a stiff link, a shift under full load, a joint that never clicked.',
    why: 'What broke it once breaks it again.',
    check: 'It is written down, or that it was not found.',
  },
  'tell-rider': {
    what: 'Give the rider the sheet: which gears to keep off, and to have it changed soon.',
    why: 'A mended chain is for getting on, not for good.',
  },
  'way-home': {
    what: 'Tell the rider: sit, shift gently, straight home. The chain is changed before the next ride.',
    why: 'This joint holds a little, not for long.',
  },
  'look-broken': {
    what: 'Run the whole chain through your fingers, both sides: bent plates, and where it broke.',
    why: 'A chain does not break for nothing, and a bent plate is the next to go.',
    check: 'Every link was looked at.',
  },
  'keep-old': {
    what: 'Put the old chain aside. Keep it until the test ride is done.',
    why: 'If the new one skips, it may go back on.',
  },
  clean: {
    what: 'Clean what the new chain will run on: sprockets, rings, pulleys. Cover the disc.',
    why: 'Old grit wears a new chain from the first turn.',
  },
  'look-teeth': {
    what: 'Look at the teeth: sprockets, rings, pulleys.',
    why: 'A new chain skips on teeth that have worn to the old one.',
    check: 'Both flanks the same; no hooks, no points.',
  },
  strip: {
    what: 'Strip the new chain of its factory coat and dry it.',
    why: 'Wax only holds on clean steel.',
  },
  'wax-first': { what: 'Wax it by the pot’s recipe, then let it hang.', why: 'The first coat goes in deepest.' },
  'ready-waxed': {
    what: 'This chain comes waxed: fit it as it is, and wipe off loose flakes.',
    why: 'Stripping it would take off the coat it was sold with.',
  },
  'wipe-coat': {
    what: 'Wipe the outside. The factory coat stays inside until the first oil.',
    why: 'What sits on the outside only picks up grit.',
  },
  'hang-new': {
    what: 'Hang the new chain up, or lay it on paper.',
    why: 'Its coat picks up every grain from the floor.',
  },
  'degrease-link': {
    what: 'Clean the grease off the new link and dry it.',
    why: 'Wax does not stick to grease.',
  },
  'size-on-bike': {
    what: 'Find the length on the bike.',
    why: 'Nobody knows what this bike wants. Held in place, the chain shows it.',
    check: 'It looks like the middle drawing: neither slack nor strained.',
  },
  'length-new': {
    what: 'Count off {{pitches}} pitches beside the old chain: compare counts, not lengths.',
    what_whole: 'Count off {{pitches}} pitches beside the old chain: compare counts, not lengths.',
    what_shortened: 'Count off {{pitches}} pitches. Do not copy the old chain: it was shortened.',
    why: 'The old chain is longer by its wear.',
    check: 'Counted twice, with the joint.',
  },
  cut: {
    what: 'Take {{count}} pitches off, tool square on the pin.',
    why: 'That leaves {{pitches}} with the joint.',
  },
  'wipe-ends': { what: 'Wipe the cut ends clean.', why: 'A splinter in there makes a stiff link.' },
  'oil-ends': {
    what: 'A drop of oil on the cut ends straight away, then wipe.',
    why: 'The tool pushed the coat out there.',
  },
  'keep-offcut': {
    what: 'Tie up the {{count}} pitches you cut off and label them with the bike.',
    why: 'They are the right piece to mend this chain with.',
  },
  'check-ends': {
    what: 'Look at both ends.',
    'what_both-inner': 'Look at both ends: an inner link on each.',
    'what_one-outer': 'Look at both ends: one inner, one outer.',
    why: 'The joint only goes on ends like that.',
    check: 'Looked at, not remembered.',
  },
  'length-after': {
    what: 'Look at the length again, closed: largest-largest by hand, then smallest-smallest.',
    why: 'Too short tears the derailleur off.',
    check: 'There is some left on the two largest, and nothing hangs on the two smallest.',
  },
  'mend-count': {
    what: 'Open it, put the count right, and close it again with a joint of its own.',
    why: 'Every gear has to be ridable, or the rider told which is not.',
    check: 'Counted again.',
  },
  'stiff-link': {
    what: 'Turn backwards slowly and watch for a hop.',
    why: 'A stiff link jumps at the pulley.',
    check: 'Every link has gone past.',
  },
  'free-stiff': {
    what: 'Bend it sideways to free it, or give the spreading seat a few degrees of the handle.',
    why: 'Its plates have been pressed together.',
    check: 'It drops by its own weight.',
  },
  'back-pedal': {
    what: 'Turn backwards and feel for drag.',
    why: 'If it drags, the chain is threaded wrong. Stop and look.',
    check: 'It runs free.',
  },
  'every-gear': {
    what: 'Try every gear by hand, largest-largest last and slowly. Look at the gap over the upper pulley.',
    why: 'A new chain shifts differently from a worn one.',
    check: 'All of them, up and down.',
  },
  'hub-gears': {
    what: 'Try every gear of the hub and look at its cable marks.',
    why: 'The wheel was moved.',
    check: 'The marks line up.',
  },
  'first-oil': {
    what: 'A small drop on each roller of the lower run, joint to joint. Turn, wait, wipe the outside dry. Cover the disc.',
    why: 'A stripped chain has nothing on it.',
  },
  'rotor-clean': {
    what: 'Look at the brake disc and pads.',
    why: 'Oil or wax on them and the brake fails.',
    check: 'Nothing on the disc.',
  },
  'motor-on': { what: 'Battery in, motor on.', why: 'Now nobody’s hands are in the drive.' },
  'test-ride': {
    what: 'Ride it hard, on every sprocket that gets used.',
    why: 'Skipping only shows under load.',
    check: 'No skip, no noise, nothing opens.',
  },
  'fit-cassette': {
    what: 'Fit a new cassette, lockring to its maker’s torque.',
    why: 'The old one had worn to the old chain.',
    check: 'It seats, and there is no play.',
  },
  'old-back': {
    what: 'Put the old chain back on with a new link, and run both out together.',
    why: 'The rider has chosen to.',
    check: 'Closed and looked at like a new one.',
  },
  'ride-again': {
    what: 'Ride it hard again.',
    why: 'Whatever you changed has to be proved too.',
    check: 'No skip.',
  },
  'make-safe': {
    what: 'Leave the bike safe: chain closed or right off, wheel tight, cage unlocked. Write it on the tag.',
    why: 'Somebody may take it and ride.',
    check: 'It can be ridden, or plainly cannot.',
  },
  'old-goes': {
    what: 'Get rid of the old chain.',
    what_scrapped: 'Put the old chain in the scrap.',
    what_spare: 'Label the old chain and keep it as a spare.',
    what_rotation: 'Label the old chain: it stays in rotation.',
    what_training: 'Put the old chain in the practice box with its wear on a label.',
    why: 'The ride is done.',
  },
  baseline: {
    what: 'Close the job, then measure the new chain.',
    why: 'Every later reading is set against the first.',
  },
  'carry-card': {
    what: 'Tell the rider which spare link and tools to carry.',
    why: 'At the roadside only the right link will do.',
  },
} as const

/** Cleaning a chain until it may be treated. */
const cleaning = {
  'measure-first': {
    what: 'Measure it before you treat it.',
    why: 'There is no sense in treating a chain that is due off.',
  },
  rinse: { what: 'Rinse the drive with plain water. No jet.', why: 'A jet drives grit and water into the bearings.' },
  'brush-on-bike': {
    what: 'Brush degreaser into the lower run and rinse. Keep it off the hubs.',
    why: 'Brushed backwards along the run, the dirt goes down and away.',
  },
  box: {
    what: 'Clip the cleaning box on the lower run and turn backwards two dozen turns. Empty it, rinse, turn again.',
    why: 'Its brushes reach the rollers without opening anything.',
  },
  soak: {
    what: 'Lay it in degreaser, shake it, brush it, rinse it.',
    why: 'What is between the rollers only comes out moving.',
  },
  ultrasonic: {
    what: 'Hang it in the ultrasonic bath, loose, and rinse it after.',
    why: 'It shakes out of the rollers what no brush reaches. Do not stretch it over the basket: every link should move.',
  },
  boil: {
    what: 'Pour boiling water with wax remover over it, twice. Draw it out with the hook.',
    why: 'The water floats the old wax and the grit in it away.',
  },
  'strip-chain': {
    what: 'Strip it in stages, fresh solvent each time, until the last bath stays clear.',
    why: 'Any oil left under the wax keeps the wax from holding.',
    check: 'The last bath is clear and the chain rattles dry.',
  },
  'clean-around': {
    what: 'While it is off, clean sprockets, rings and pulleys.',
    why: 'A clean chain on a dirty drive is dirty again on the way out.',
  },
  'wipe-dry': {
    what: 'Pull it through a cloth until the cloth stays clean.',
    why: 'The rest would go in with the wax or oil.',
  },
  dry: {
    what: 'Dry it right through: boiling water and air, warm air, compressed air, or overnight. Never an oven.',
    why: 'Water left inside rusts under oil and spits in hot wax.',
    check: 'Blown through, nothing comes out of the rollers.',
  },
} as const

/** Waxing in hot wax. */
const waxing = {
  heat: {
    what: 'Switch the pot on, lid on, and set the timer.',
    'what_slow-cooker': 'Switch the slow cooker on, lid on, and set the timer. Stir once it is molten.',
    what_thermostat: 'Set the thermostat to the recipe and stay by it: it heats fast.',
    what_bag: 'Lay the sealed bag in hot water. The water must not reach the seal.',
    why: 'Heated slowly it never overshoots. Never a flame, a hob or a microwave: wax burns.',
  },
  'link-apart': {
    what: 'Keep the link out of the wax.',
    what_out: 'Take the link off and keep it out of the wax.',
    what_in: 'Hang both halves of the link in with the chain.',
    why: 'Wax at the pins can keep it from locking on one side.',
    why_in: 'Waxed too, it runs as dry as the rest. Clear its pins before you close it.',
  },
  'hook-through': {
    what: 'Put a hook or wire through the end link.',
    why: 'You want to swish it and draw it out without reaching in.',
  },
  untangle: {
    what: 'Lay the chains out one by one, untangled.',
    why: 'Tangled in hot wax, you need both hands in there.',
  },
  'lower-in': {
    what: 'Lower it in slowly, right under.',
    what_pot: 'Lower it in slowly, until it is right under.',
    what_bag: 'Coil it in the bag, press the air out and seal it.',
    why: 'Dropped in, hot wax splashes.',
  },
  'soak-wax': {
    what: 'Leave it in for the recipe’s time.',
    why: 'The steel has to get as hot as the wax before it runs in.',
  },
  swish: {
    what: 'Swish it about.',
    what_soaked: 'Swish it about for a minute.',
    what_bubbles: 'Swish it about until no more bubbles come up.',
    why: 'Each bubble is air that was where the wax should be. It has nothing to do with water: a wet chain should not be in here.',
    check: 'No more bubbles.',
  },
  'pot-off': {
    what: 'Take the pot off the heat.',
    'what_slow-cooker': 'Switch off and lift the inner pot out of its heater with two cloths.',
    what_thermostat: 'Switch off and set the pot on a cold plate.',
    what_bag: 'Lift the bag out of the water and lay it flat.',
    why: 'As it cools, more wax stays in the links.',
  },
  skin: {
    what: 'Wait until a skin forms.',
    why: 'Drawn too hot, the wax runs straight out again.',
    check: 'The surface goes dull from the edge.',
  },
  draw: {
    what: 'Draw it out and let it drip over the pot.',
    why: 'What drips now need not be wiped off later.',
  },
  'slow-draw': {
    what: 'Stir the skin in, then draw the chain out slowly, a hand’s width at a time.',
    why: 'Slow and cool leaves the thickest coat.',
  },
  hang: {
    what: 'Hang it up straight until it is hard.',
    why: 'In a cold room it goes hard at once but bonds slowly: leave it the full time.',
  },
  flex: {
    what: 'Pull it round a bar to flex every link, and wipe off the flakes.',
    why: 'Wax locks the links. Flexed now they do not shift badly on the first ride.',
  },
  'fit-stiff': {
    what: 'Fit it stiff, and turn the cranks until it stops shedding flakes.',
    why: 'The drive flexes it as well as a bar, and the flakes fall on the floor.',
  },
} as const

/** Oiling and dripping on the bike. */
const drops = {
  'cover-rotor': { what: 'Cover the brake disc.', why: 'One drop on it and the brake fails.' },
  'smallest-sprocket': { what: 'Shift to the smallest sprocket.', why: 'It is furthest from the spokes and the disc.' },
  'drop-each-roller': {
    what: 'A small drop on each roller of the lower run, from joint to joint.',
    why: 'Oil works inside the roller. On the plates it only holds dirt.',
  },
  'drip-each-roller': {
    what: 'A drop of drip wax on each roller, from joint to joint, until it stands between the plates.',
    why: 'It has to run in while it is wet; what is not reached now stays dry.',
  },
  'turn-cranks': { what: 'Turn the cranks backwards by hand, a dozen turns.', why: 'Turning works it in.' },
  'creep-in': { what: 'Leave it to creep in.', why: 'Wiped at once, you wipe half of it off again.' },
  set: { what: 'Leave it to set before it is ridden.', why: 'Ridden wet it flings off and holds dust.' },
  'wipe-outside': { what: 'Wipe every outside surface dry.', why: 'Oil on the outside carries grit in.' },
} as const

export const steps = { ...removing, ...refitting, ...changing, ...cleaning, ...waxing, ...drops } as const

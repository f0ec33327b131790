import type { Topic } from '../../domain/handbook'

/** What the handbook says of a figure: in a coach's words, how it is found, how exact it is and against what it was checked. */
export type Paragraph = {
  topic: Topic
  title: string
  /** What it means, and what to do with it. */
  means: string
  found: string
  exact: string
}
type Chapter = { title: string; paragraphs: Paragraph[] }

export const chapters: Chapter[] = [
  {
    title: 'The shot',
    paragraphs: [
      {
        topic: 'chance',
        title: 'Chance of a pot',
        means:
          'How many of a hundred strokes like this one you would pot, with your skill, your hand and your reach. A 95 % pot is missed once in twenty; 50 % is the toss of a coin.',
        found:
          'The stroke is simulated many times, each time with the errors that a player like you makes in direction, sighting, pace, height and side. A list first shows a quick estimate, then the simulated one.',
        exact:
          'Sampling error is about 1 %. How well your skill is known matters more: the presets are within about 5 % of what players of that standard pot, and worse for doubles. Your own log improves it.',
      },
      {
        topic: 'errors',
        title: '± errors',
        means:
          'How far off a figure may be because only a limited number of strokes was simulated. Figures closer than their errors are called level: then play the one you prefer.',
        found:
          'From the scatter of eight independent series of strokes, with Student’s t. Strokes used to choose the best are never used to report how good it is.',
        exact:
          'Checked on some 400 figures against 8,192 further strokes each: the errors are as large as stated, and once in twenty more than twice that.',
      },
      {
        topic: 'spread',
        title: 'Where the white may stop',
        means:
          'The inner area holds 68 of a hundred strokes, the outer one 95. A long thin area shows what matters most: pace if it lies along the white’s path, the height of the tip or the contact if it lies across.',
        found: 'The smallest areas that hold as many of the strokes played with your errors (Hyndman 1996).',
        exact:
          'The area is drawn on a grid of 15 mm. Each stroke in it agrees with an independent program to 2 mm after as many as eight contacts; a table that is not level, or not the one you set, is not in it.',
      },
      {
        topic: 'allowance',
        title: 'Allowance',
        means:
          'Where to aim instead of at the ghost ball. Side pushes the white off line (squirt), a raised butt curves it back (swerve), and friction drags the object ball thick (throw). “Aim 2 mm thinner” is the sum of the three, at the contact.',
        found:
          'Squirt from the weight of the cue’s end, swerve from the motion of the ball on the cloth, throw from the friction between two balls at their speed of slip (Alciatore’s fit to measured data). Then the aim that really pots is searched for.',
        exact: 'The laws are published; how heavy the end of your cue is, is not. Set it in Conditions if your cue squirts less or more.',
      },
      {
        topic: 'fullness',
        title: 'Cut and fullness',
        means:
          'How much of the object ball the white covers as you look along the shot: full, three-quarter, half, quarter, fine. At half-ball the middle of the white is aimed at the edge of the ball; thinner than that you aim edge to edge.',
        found: 'Plane geometry: fullness is 1 − sin(cut).',
        exact: 'Exact for balls of one size.',
      },
      {
        topic: 'window',
        title: 'Window, tolerance, pocket open',
        means:
          'How far the aim may be off and the ball still goes in, off the jaws included. “Pocket open” is the same as an angle at the ball. A window of ±1 mm at the contact is hard for anybody.',
        found:
          'From the clear opening between the jaws, and how much farther off a jaw still lets a ball in; that part was fitted to strokes that were played.',
        exact: 'As exact as the pockets that are set in Conditions: no rule gives their shape, and no two tables are alike.',
      },
      {
        topic: 'whatIf',
        title: 'What if',
        means:
          'The same stroke with one thing changed. Lines draws each setting beside the others and says what it does. Ladder sweeps one knob from end to end: which ball or gap each stretch of settings reaches, and how wide it is; a narrow one asks for a better cue arm than a wide one. By pace says from where on the white comes back. Parts of the pocket is for thin pots, where little else can be chosen.',
        found:
          'Every setting is played once without an error, the aim found anew so that the ball still goes, unless you keep the aim. Where a ladder turns from one thing into the next is bisected.',
        exact:
          'An edge is within a twenty-fifth of a step. A stretch narrower than a twentieth of a tip, or a fifth of a pace, may be overlooked, above all far on, after several cushions.',
      },
      {
        topic: 'reach',
        title: 'Reach',
        means:
          'How you get at the white: naturally, at a stretch, with the other hand or the rest; and how far the butt must be raised to clear the rail or a ball. Your errors grow with it.',
        found: 'From your hand, your height and where the white lies; the butt from the shape of rail and cue.',
        exact: 'The geometry is exact; how much worse you are with the rest is part of your skill: 1.2 times for a county player.',
      },
      {
        topic: 'pace',
        title: 'Pace 1 to 10',
        means:
          'How hard you swing the cue: 3 is a gentle roll-in, 5 a medium shot, 10 as hard as you can. “Table lengths” is how far a plain ball would run.',
        found:
          'The speed of the cue is 0.24 · pace^1.47 m/s: 1.2 m/s at 3, 2.6 at 5, 7.1 at 10. If your own numbers differ, set them in Settings, or let your attempts at the routine Pace scale say them: every pace is then typed and shown in yours, with the standard one beside it.',
        exact: 'A convention, common practice without a source. Your own numbers may differ.',
      },
      {
        topic: 'tip',
        title: 'Tips',
        means:
          'Where the tip meets the white. One tip is 10 mm of tip movement; a quarter of a tip is much. The red ring is the miscue limit, half a radius from the middle.',
        found: 'The tip is domed, so the contact moves by 84 % of what the tip does.',
        exact: 'The limit is common practice: a worn or shiny tip slips sooner.',
      },
      {
        topic: 'lines',
        title: 'Lines of strokes',
        means:
          'Every stroke you play on the desk, or keep, leaves its line. Change one thing by a little and see what it moved. Drag the ring of the white to where it really stopped, and that is kept with it; press Played again for the next attempt, and from the third on you are told what they have in common.',
        found:
          'A change is told against the line before it: how much longer the white runs after the contact, and how much wider it comes off the same cushion.',
        exact: 'As exact as the strokes themselves.',
      },
      {
        topic: 'guess',
        title: 'Guess first',
        means: 'Mark where the white will stop before you see it. Your eye learns from seeing at once how far off it was.',
        found: 'The distance between your mark and the answer; the mean of the last twenty beside the twenty before them.',
        exact: 'The mean of twenty guesses moves by luck alone by about an eighth.',
      },
    ],
  },
  {
    title: 'The choice',
    paragraphs: [
      {
        topic: 'map',
        title: 'Where to be',
        means:
          'The brighter, the better a place is for the next ball: an angle that takes you on, within reach, off the cushion. The cross marks the best place, not the only one.',
        found: 'For a grid of places the next pot and what it leads to are valued quickly.',
        exact: 'A guide, good to a few percent; the plan itself simulates the strokes.',
      },
      {
        topic: 'points',
        title: 'Points',
        means:
          'What a plan makes on average when its breaks are played to their end with your errors. Half of the breaks are above the median shown beside it.',
        found: 'The break is played out again and again; after a miss it counts what the miss leaves to the other player.',
        exact: 'Its error is one click away. Later shots are chosen quickly, so the figure tends to be low.',
      },
      {
        topic: 'win',
        title: 'Frame won',
        means:
          'The chance that you win the frame from here, the other player being as good as you said. It is the one measure that pots, safeties and escapes share.',
        found:
          'A game of visits with the score, the balls left and both skills is solved exactly; its figures are fitted to frames played by the advice against itself.',
        exact:
          'Over 200 frames, stated chances from 15 to 85 % came out within 2 or 3 % in nine of ten bands, and within 6 % in the other. Near calls are labelled.',
      },
      {
        topic: 'safety',
        title: 'What a safety leaves',
        means:
          '“Pot left 30 %”: in so many of a hundred strokes the other player has a pot he would rather take than not. Thick and thin tell the two ways of going wrong apart.',
        found: 'Every stroke that is played with your errors is judged with the other player’s skill.',
        exact: 'About 2 or 3 %, as the list says.',
      },
      {
        topic: 'family',
        title: 'Family of an escape',
        means:
          'Escapes are kept in the memory by family: from anywhere in this band of places, off that point of the cushion, the same stroke hits the ball. A broad band is an escape worth learning; where the white lies near its edge, look for another.',
        found:
          'The stroke is played once from every cell of a grid, 75 mm wide, aimed at the same point of the first cushion; the cells from which it hits the same ball off the same cushions are the band.',
        exact:
          'Played without an error of yours, on a table as set in Conditions. To the left and right of the white the band is measured by the centimetre.',
      },
      {
        topic: 'compare',
        title: 'Strokes compared',
        means:
          'Two to four of your own strokes side by side: what each is worth, what it leaves if it runs long or short, and what half a step of pace or a quarter of a tip does to it. The right one is often the one that hardly minds.',
        found: 'All are played with the same errors, so that a small difference shows.',
        exact: 'Against twenty pairs simulated 128 times, none came out the wrong way round.',
      },
      {
        topic: 'skill',
        title: 'Skill',
        means:
          'How you miss: four presets from learner to tour, or your own figures. Look at what it means on Players: ten shots, and how often each goes in.',
        found:
          'Errors of direction, sighting, allowance, pace, height and side, growing with power and reach, with a bad stroke now and then.',
        exact: 'Fitted to the breaks that players of each standard make, then to what they pot. Nobody is a preset.',
      },
    ],
  },
  {
    title: 'Table and practice',
    paragraphs: [
      {
        topic: 'conditions',
        title: 'Conditions',
        means:
          'Cloth, cushions, pockets, balls and cue. A rolling ball runs 1.6 times as far on a quick match cloth as on a slow club cloth, and no chance is better than the pockets it was reckoned for.',
        found: 'The model’s constants, each with its source or the range seen in practice.',
        exact: 'Play a plain ball up and down the table at your five, see where it stops, and set the cloth until the plan agrees.',
      },
      {
        topic: 'learning',
        title: 'What strokes tell',
        means:
          'Where balls ended says what the cue did, how the cloth runs and how you miss. Each figure comes with the range that holds it in 90 of 100 cases; what your strokes say nothing about is said too.',
        found:
          'The stroke is simulated with hundreds of errors, weighed by your own, and those that end where it was seen count. For a table, its figures and the errors of all strokes are looked for together.',
        exact:
          'On made-up tables and players the ranges hold the truth in some 85 of 100. Two causes that leave the same end cannot be told apart: a ball that stops short was too soft or too low.',
      },
      {
        topic: 'devices',
        title: 'What devices tell',
        means:
          'A camera over the table says which ball was met first, what went in and where everything stopped. A sensor on the cue says whether its speed still rose when the tip met the ball: just short of the peak is what players want.',
        found:
          'Balls are followed from picture to picture; a stroke is read once all lie still. The cue’s speed is the slope of its travel over 24 ms, taken evenly before and after, so that it does not lag; the contact is where the speed breaks.',
        exact:
          'Of 500 made-up strokes, seen with 3 mm of noise, some 495 are read right. A ball that is moved by less than 5 mm is not seen to move, and nobody sees what was called: the colour struck first counts as named.',
      },
      {
        topic: 'success',
        title: 'Success in practice',
        means:
          'How many of your attempts worked, with a 95 % interval for your true rate. Ten attempts say little: 7 of 10 means anything from 40 to 89 %.',
        found: 'Wilson’s interval for a share; weeks are compared at one mix of routines, each routine against itself.',
        exact: 'A trend is shown from ten attempts on, and only if it is more than chance.',
      },
    ],
  },
]

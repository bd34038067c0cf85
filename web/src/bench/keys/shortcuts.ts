/** What the keys do on the Bench; the sheet shows this list. */
export const shortcuts: { group: string; keys: { key: string; does: string }[] }[] = [
  {
    group: 'Focus',
    keys: [
      { key: 'M', does: 'Main subject: back to the automatic band' },
      { key: 'N, Shift N', does: 'Next face or subject, the one before' },
      { key: 'E', does: 'In a clip: follow the nearer eye of the face' },
      { key: 'Click, drag', does: 'Focus on a spot, on an area' },
      { key: 'Arrows, Enter', does: 'In the picture: aim, focus there' },
      { key: 'Arrows', does: 'In the plan: move the band (Shift: farther, Alt: turn)' },
      { key: 'L', does: 'In the plan: level the band' },
    ],
  },
  {
    group: 'Look',
    keys: [
      { key: 'V, Shift V', does: 'Next depth view, the one before' },
      { key: 'C', does: 'Focus check: where the photo itself is sharp' },
      { key: 'O', does: 'The untouched photo while held' },
      { key: 'S', does: 'Split; again: turn it; again: off' },
      { key: 'B', does: 'Original beside the result' },
      { key: 'G', does: 'Loupe at the pointer' },
    ],
  },
  {
    group: 'Ladder, on the Depth step',
    keys: [
      { key: 'Click, or Arrows, Enter', does: 'A rung farther than the chosen one (Shift: as far)' },
      { key: 'Drag', does: 'Move a rung; in the plan: to its place in the order' },
      { key: 'Left, Right, Delete', does: 'On a rung of the deck: nearer, farther, remove' },
    ],
  },
  {
    group: 'Touch-up',
    keys: [
      { key: 'Drag', does: 'Paint (Shift: level or upright)' },
      { key: 'Shift click', does: 'Straight line from the last point' },
      { key: 'E', does: 'Erase while held' },
      { key: 'P', does: 'Show what is painted, or not' },
      { key: '[ and ], Shift wheel', does: 'Smaller, larger brush' },
      { key: 'Arrows, Enter', does: 'In the picture: aim, one dab' },
      { key: 'Escape', does: 'Drop the stroke that is being painted' },
      { key: '. and ,', does: 'Inspector: next fault, the one before' },
      { key: 'A, X', does: 'Inspector: mend it, skip it' },
    ],
  },
  {
    group: 'Shapes, in the picture',
    keys: [
      { key: 'Arrows', does: 'Move the chosen shape (Shift: farther)' },
      { key: '[ and ], T, Shift T', does: 'Smaller, larger; turn it' },
      { key: 'N, Shift N', does: 'Next shape, the one before' },
      { key: 'D, Delete', does: 'Copy it, remove it' },
    ],
  },
  {
    group: 'Time, in a clip',
    keys: [
      { key: 'Space', does: 'Play the stretch, stop' },
      { key: 'J, K, L', does: 'Play backwards, stop, play; again: faster' },
      { key: 'Left, Right', does: 'One frame (Shift: ten, Ctrl: to the next mark or cut)' },
      { key: 'I, Shift I', does: 'The stretch begins, ends here' },
      { key: 'Home, End', does: 'To the ends of the stretch' },
      { key: 'R', does: 'Render the stretch' },
      { key: 'Delete', does: 'Remove the chosen marks (drag: move, Alt drag: copy)' },
    ],
  },
  {
    group: 'Zoom',
    keys: [
      { key: 'Wheel, + and -', does: 'Zoom at the pointer, at the aim' },
      { key: 'Alt drag', does: 'Move the picture' },
      { key: '0, 1', does: 'Whole picture, 100 %' },
      { key: 'Double click', does: 'Between the two' },
    ],
  },
  {
    group: 'Work',
    keys: [
      { key: 'Ctrl Z, Ctrl Shift Z', does: 'Undo, redo' },
      { key: 'H', does: 'History: all steps' },
      { key: 'F1 to F7', does: 'Depth, Focus, Touch-up, Lens, Shapes, Atmosphere, Deliver' },
      { key: '?', does: 'This sheet' },
    ],
  },
]

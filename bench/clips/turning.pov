// Somebody turns her head and comes nearer, somebody else passes before her. `clock` runs from 0 to 1 over 3 seconds, 72 frames.
#include "../scenes/card.inc"
#declare Eye = <0.1 - 0.05 * sin(clock * 6), 1.55 + 0.01 * sin(clock * 11), -1.9>; #declare Target = <0.02, 1.5, 0>;
Lens(Eye, Target, 44, 16 / 9, 0, 1) Outdoors()
#declare HeadX = -0.22 + 0.4 * clock; #declare HeadZ = 0.35 - 0.6 * clock; #declare HeadTurn = -22 + 40 * clock;
Scorecard(union {
  plane { y, 0 T(TGrass) }
  Subject(object { Bust(<0.12, 0.28, 0.3>, <0.8, 0.58, 0.46>, <0.3, 0.16, 0.07>, 500) rotate y * HeadTurn translate <HeadX, 1.42, HeadZ> })
  object { House(9, 6, 5.4, 3, TBrick(<0.55, 0.3, 0.22>), 0) translate <-4, 0, 14> }
  object { Tree(7, 2.6, <0.16, 0.3, 0.08>) translate <4.2, 0, 9> }
  object { Tree(6, 2.2, <0.22, 0.32, 0.1>) translate <8, 0, 15> }
  object { Pole(5) translate <1.6, 0, 6> }
  object { Person(<0.35, 0.3, 0.12>, <0.2, 0.2, 0.2>, <0.7, 0.5, 0.4>, <0.1, 0.08, 0.06>) rotate y * -90 translate <-0.95 + 1.5 * clock, -0.12, -0.85> }
  object { Person(<0.15, 0.2, 0.4>, <0.2, 0.2, 0.2>, <0.7, 0.5, 0.4>, <0.1, 0.08, 0.06>) rotate y * 90 translate <1.9 - 3 * clock, 0, 4> }
}, Eye, Target, 0.6)

// A train passes; a board and a post stand before it. `clock` runs from 0 to 1 over 3 seconds, 72 frames. Points on the train go with TrainX.
#include "../scenes/card.inc"
#declare Eye = <0.06 * sin(clock * 5), 1.7 + 0.03 * sin(clock * 9), -9>; #declare Target = <0.5 + 0.25 * sin(clock * 4), 1.7 + 0.05 * sin(clock * 7), 6>;
Lens(Eye, Target, 48, 16 / 9, 0, 1) Outdoors()
#declare TrainX = 9 - 16 * clock;
Scorecard(union {
  plane { y, -0.2 T(TGrass) }
  box { <-60, -0.19, 3.6>, <60, -0.1, 8.4> T(TBallast) }
  object { Track(-60, 60) translate <0, -0.1, 6> }
  object { Locomotive(<0.05, 0.2, 0.36>, <0.62, 0.07, 0.05>, <0.55, 0.08, 0.05>) translate <TrainX, 0, 6> }
  object { Coach(<0.5, 0.3, 0.1>, <0.42, 0.42, 0.4>, 0.2) translate <TrainX + 10.1, 0, 6> }
  box { <-1.9, 0.3, 1.0>, <0.35, 2.9, 1.08> T(TPlaster(<0.8, 0.74, 0.6>)) }
  box { <-1.7, 1.2, 0.98>, <0.15, 2.6, 1> T(texture { Paint(<0.15, 0.3, 0.24>) }) }
  cylinder { <-1.6, -0.2, 1.04>, <-1.6, 3.1, 1.04>, 0.06 T(TSteel) } cylinder { <0.05, -0.2, 1.04>, <0.05, 3.1, 1.04>, 0.06 T(TSteel) }
  object { Pole(5) translate <2.6, -0.2, 2> }
  object { House(16, 6, 5.5, 2.8, TBrick(<0.5, 0.28, 0.2>), 0) translate <-12, -0.2, 20> }
  object { Tree(7, 2.6, <0.16, 0.3, 0.08>) translate <5, -0.2, 18> }
  object { Tree(6, 2.2, <0.22, 0.32, 0.1>) translate <10, -0.2, 22> }
  object { Fir(8, 1.8) translate <1, -0.2, 26> }
}, Eye, Target, 3.0)

// A portrait: the camera goes round a little, somebody passes behind. `clock` runs from 0 to 1 over 1.5 seconds.
#include "../scenes/card.inc"
#declare Eye = <0.1 - 0.35 * clock, 1.55, -1.3 + 0.04 * clock>; #declare Target = <0.02, 1.5, 0>;
Lens(Eye, Target, 44, 16 / 9, 0, 1) Outdoors()
Scorecard(union {
  plane { y, 0 T(TGrass) }
  object { Bust(<0.35, 0.08, 0.1>, <0.82, 0.6, 0.48>, <0.22, 0.12, 0.06>, 500) rotate y * -14 translate <0.03, 1.42, 0> }
  object { House(9, 6, 5.4, 3, TBrick(<0.55, 0.3, 0.22>), 0) translate <-4, 0, 14> }
  object { Tree(7, 2.6, <0.16, 0.3, 0.08>) translate <4.2, 0, 9> }
  object { Tree(6, 2.2, <0.22, 0.32, 0.1>) translate <8, 0, 15> }
  object { Pole(5) translate <1.6, 0, 6> }
  object { Person(<0.15, 0.2, 0.4>, <0.2, 0.2, 0.2>, <0.7, 0.5, 0.4>, <0.1, 0.08, 0.06>) rotate y * -90 translate <-2 + 2.2 * clock, 0, 4> }
}, Eye, Target, 0.9)

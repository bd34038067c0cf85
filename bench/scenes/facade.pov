#include "card.inc"
#declare Eye = <-2, 1.6, -9>; #declare Target = <1.2, 5.4, 4>;
Lens(Eye, Target, 64, 1.5, 0, 1) Outdoors()
Scorecard(union {
  plane { y, 0 T(TStone) }
  object { House(14, 8, 13, 4, TPlaster(<0.72, 0.64, 0.5>), 0) translate <2, 0, 4> }
  object { House(8, 8, 9.5, 3, TBrick(<0.5, 0.26, 0.2>), 0) rotate y * 60 translate <-9.5, 0, 2> }
  #declare I = 0; #while (I < 5) cylinder { <-4 + I * 3, 0, 2.2>, <-4 + I * 3, 3.4, 2.2>, 0.2 T(TStone) } #declare I = I + 1; #end
  box { <-4.6, 3.4, 1.8>, <8.6, 3.8, 4> T(TStone) }
  object { Person(<0.3, 0.1, 0.1>, <0.15, 0.15, 0.2>, <0.7, 0.5, 0.4>, <0.1, 0.07, 0.05>) translate <-0.6, 0, -1> }
  object { Pole(7) translate <4.6, 0, -2> } object { Wire(<4.6, 6.7, -2>, <-12, 7.4, -1>, 0.5, 0.015) }
}, Eye, Target, 4.0)

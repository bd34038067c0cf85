// A walk along a street: the camera goes forward, people come and go. `clock` runs from 0 to 1 over 1.5 seconds.
#include "../scenes/card.inc"
#declare Eye = <0.8 - 0.25 * clock, 1.6 + 0.02 * sin(clock * 12), -3.4 + 1.5 * clock>; #declare Target = Eye + <-0.5 + 0.3 * clock, -0.3, 7>;
Lens(Eye, Target, 56, 16 / 9, 0, 1) Outdoors()
Scorecard(union {
  plane { y, 0 T(TTarmac) }
  box { <-7, 0, -6>, <-3.6, 0.14, 90> T(TStone) } box { <3.6, 0, -6>, <7, 0.14, 90> T(TStone) }
  #declare I = 0;
  #while (I < 6)
    object { House(7, 6, 5 + mod(I, 3) * 1.6, 2.6, TPlaster(<0.75 - I * 0.05, 0.66, 0.5 + I * 0.05>), 0) rotate y * -90 translate <-6, 0, 1 + I * 7.4> }
    object { House(7, 6, 6 - mod(I, 2) * 1.5, 2.4, TBrick(<0.5, 0.28 + I * 0.03, 0.2>), 0) rotate y * 90 translate <6, 0, 4 + I * 7.4> }
    object { Pole(4.4) translate <-3.9, 0, 2 + I * 6> }
    #declare I = I + 1;
  #end
  object { Person(<0.5, 0.12, 0.1>, <0.12, 0.13, 0.2>, <0.72, 0.5, 0.38>, <0.12, 0.08, 0.05>) rotate y * 12 translate <0.35, 0, 1.2 + 1.4 * clock> }
  object { Person(<0.2, 0.3, 0.22>, <0.2, 0.18, 0.15>, <0.6, 0.4, 0.3>, <0.2, 0.15, 0.1>) rotate y * 160 translate <-2 + 1.8 * clock, 0, 9> }
  object { Person(<0.3, 0.3, 0.5>, <0.25, 0.2, 0.2>, <0.8, 0.6, 0.5>, <0.4, 0.3, 0.15>) rotate y * 60 translate <2.4 - 1.6 * clock, 0, 14> }
  object { Tree(6, 2, <0.18, 0.3, 0.09>) translate <4.3, 0, 20> }
}, Eye, Target, 1.0)

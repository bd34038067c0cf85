#include "card.inc"
// Thin things in front: a mesh fence, reeds, wires, a lattice mast.
#declare Eye = <0.2, 1.5, -4>; #declare Target = <0.4, 1.8, 6>;
Lens(Eye, Target, 50, 1.5, 0, 1) Outdoors()
Scorecard(union {
  plane { y, 0 T(TGrass) }
  object { Track(-30, 40) translate z * 5 }
  object { Locomotive(<0.12, 0.14, 0.35>, <0.6, 0.1, 0.06>, <0.5, 0.1, 0.06>) translate <1, 0, 5> }
  object { Signal(4.6, <0.75, 0.1, 0.08>) translate <-1.6, 0, 0.6> }
  #declare I = 0;
  #while (I < 9) cylinder { <-3 + I * 0.75, 0, -2.1>, <-3 + I * 0.75, 1.25, -2.1>, 0.025 T(TWood) } #declare I = I + 1; #end
  #declare I = 0;
  #while (I < 4) object { Wire(<-3, 0.35 + I * 0.28, -2.1>, <3, 0.35 + I * 0.28, -2.1>, 0.01, 0.006) } #declare I = I + 1; #end
  #declare I = 0; #while (I < 34) object { Reed(Between(0.6, 1.4), Between(-0.3, 0.3), rand(Rnd)) translate <Between(0.4, 2.6), 0, Between(-2.6, -1.8)> } #declare I = I + 1; #end
  object { Wire(<-14, 5.4, 9>, <14, 5.6, 9>, 0.5, 0.02) } object { Wire(<-14, 4.9, 9>, <14, 5.1, 9>, 0.5, 0.02) }
  object { Pole(6) translate <-7, 0, 9> } object { Pole(6) translate <8, 0, 9> }
  object { House(8, 6, 5, 3, TPlaster(<0.8, 0.74, 0.6>), 0) translate <-6, 0, 16> } object { House(9, 6, 4.6, 2.6, TBrick(<0.5, 0.25, 0.18>), 0) translate <6, 0, 20> }
  object { Tree(7, 2.4, <0.17, 0.3, 0.08>) translate <0, 0, 22> }
}, Eye, Target, 1.6)

#include "card.inc"
#declare Eye = <-0.5, 0.95, -1.9>; #declare Target = <0.05, 0.5, 0>;
Lens(Eye, Target, 46, 1.5, 0, 1) Outdoors()
Scorecard(union {
  plane { y, 0 T(TGrass) }
  #declare I = 0; #while (I < 900) cone { 0, 0.006, <Between(-0.06, 0.06), Between(0.05, 0.16), Between(-0.06, 0.06)>, 0.001 translate <Between(-2.5, 2.5), 0, Between(-1.4, 4)> T(texture { Flat(<0.2 + rand(Rnd) * 0.15, 0.33, 0.09>) }) } #declare I = I + 1; #end
  object { Dog(<0.55, 0.36, 0.2>) rotate y * 24 translate <0.05, 0, 0.1> }
  sphere { <0.62, 0.09, -0.35>, 0.09 T(texture { Gloss(<0.7, 0.1, 0.08>) }) }
  #declare I = 0; #while (I < 12) cylinder { <-6 + I * 1.1, 0, 6>, <-6 + I * 1.1, 1.1, 6>, 0.05 T(TWood) } #declare I = I + 1; #end
  box { <-7, 0.85, 5.97>, <7, 0.95, 6.03> T(TWood) } box { <-7, 0.45, 5.97>, <7, 0.55, 6.03> T(TWood) }
  object { Tree(6, 2.4, <0.16, 0.3, 0.08>) translate <-4, 0, 10> } object { Tree(7, 2.6, <0.2, 0.32, 0.1>) translate <3, 0, 12> }
  object { House(9, 6, 4.6, 3, TPlaster(<0.75, 0.6, 0.5>), 0) translate <8, 0, 20> }
}, Eye, Target, 1.2)

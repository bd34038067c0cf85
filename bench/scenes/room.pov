#include "card.inc"
#declare Eye = <-0.9, 1.5, -2.2>; #declare Target = <0.5, 1.1, 4>;
Lens(Eye, Target, 66, 1.5, 0, 1) Indoors(1.2, 2.7, 1)
Scorecard(union {
  object { Hall(3, 6, 3) }
  object { Window(1.4, 1.6, 0.8) translate <-1.2, 1, 5.99> } object { Window(1.4, 1.6, 0.8) translate <1.2, 1, 5.99> }
  box { <-0.9, 0.7, 1.4>, <1.1, 0.75, 2.4> T(TWood) }
  #declare S = -1; #while (S < 2) cylinder { <0.1 + S * 0.9, 0, 1.5>, <0.1 + S * 0.9, 0.7, 1.5>, 0.03 T(TWood) } cylinder { <0.1 + S * 0.9, 0, 2.3>, <0.1 + S * 0.9, 0.7, 2.3>, 0.03 T(TWood) } #declare S = S + 2; #end
  object { Chair(<0.15, 0.3, 0.4>) rotate y * 200 translate <-0.2, 0, 0.9> } object { Chair(<0.15, 0.3, 0.4>) translate <0.5, 0, 2.9> }
  object { Chair(<0.5, 0.35, 0.12>) rotate y * 250 translate <-1.9, 0, 1.5> }
  box { <2.5, 0, 2>, <2.98, 2.1, 4.4> T(texture { TWood scale 2 }) }
  #declare I = 0; #while (I < 18) box { <2.44, 0.3 + 0.6 * mod(I, 3), 2.1 + 0.12 * I>, <2.5, 0.6 + 0.6 * mod(I, 3), 2.19 + 0.12 * I> T(texture { Flat(<rand(Rnd), 0.3, rand(Rnd) * 0.6>) }) } #declare I = I + 1; #end
  object { Cup(0.05, 0.1, <0.8, 0.8, 0.75>) translate <0.2, 0.75, 1.8> }
  object { Coach(<0.45, 0.1, 0.08>, <0.3, 0.3, 0.3>, 0.2) scale 0.1 translate <0.3, 0.75, 2.1> }
  cylinder { <0.2, 3, 2>, <0.2, 2.1, 2>, 0.008 T(texture { Flat(<0.05, 0.05, 0.05>) }) } cone { <0.2, 1.95, 2>, 0.25, <0.2, 2.12, 2>, 0.05 T(texture { Paint(<0.1, 0.3, 0.2>) }) }
  object { Person(<0.25, 0.3, 0.28>, <0.2, 0.2, 0.25>, <0.75, 0.55, 0.45>, <0.3, 0.2, 0.1>) rotate y * 30 translate <-2, 0, 4> }
  box { <-2.99, 1.2, 1>, <-2.96, 2.1, 2.2> T(texture { Flat(<0.3, 0.15, 0.1>) }) }
}, Eye, Target, 1.0)

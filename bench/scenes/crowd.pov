#include "card.inc"
#declare Eye = <0.2, 1.75, -2.6>; #declare Target = <0.1, 1.25, 4>;
Lens(Eye, Target, 58, 1.5, 0, 1) Indoors(2, 4.6, 1)
Scorecard(union {
  object { Hall(7, 16, 5) }
  object { Window(1.6, 2.4, 0.7) translate <-4, 1.6, 15.98> } object { Window(1.6, 2.4, 0.7) translate <0, 1.6, 15.98> } object { Window(1.6, 2.4, 0.7) translate <4, 1.6, 15.98> }
  #declare I = 0;
  #while (I < 26)
    object { Person(<rand(Rnd) * 0.6, rand(Rnd) * 0.5, rand(Rnd) * 0.6>, <0.2, 0.18, 0.2> * Between(0.5, 1.6), <0.75, 0.55, 0.43> * Between(0.6, 1.1), <0.2, 0.13, 0.08> * Between(0.4, 2)) scale Between(0.9, 1.06) rotate y * Between(-70, 70) translate <Between(-1, 1) * (1.1 + I * 0.2), 0, -0.3 + I * 0.48> }
    #declare I = I + 1;
  #end
  box { <-5, 0.75, 6>, <-2.6, 0.8, 9> T(TWood) } object { Coach(<0.1, 0.3, 0.2>, <0.3, 0.3, 0.3>, 0.2) scale 0.14 rotate y * 70 translate <-3.8, 0.8, 7.4> }
}, Eye, Target, 1.6)

#include "card.inc"
#declare Eye = <0, 2.4, -8>; #declare Target = <0, 2.6, 20>;
Lens(Eye, Target, 58, 1.5, 0, 1) Outdoors()
Scorecard(union {
  height_field { function 300, 300 { pattern { bozo turbulence 0.6 octaves 6 scale 0.22 } } smooth scale <400, 26, 400> translate <-200, -7.5, 4> T(texture { TGrass scale 6 }) }
  plane { y, 0 T(texture { TGrass scale 2 }) }
  #declare I = 0;
  #while (I < 26)
    object { Fir(Between(4, 8), Between(1.2, 2)) translate <Between(-40, 40), 0, 14 + I * 2.2> }
    #declare I = I + 1;
  #end
  #declare I = 0;
  #while (I < 9)
    sphere { 0, 1 scale <Between(60, 120), Between(25, 70), 60> translate <-260 + I * 65, 0, Between(320, 500)> T(texture { pigment { granite scale 40 color_map { [0 rgb <0.3, 0.34, 0.4>] [1 rgb <0.5, 0.54, 0.6>] } } finish { Chalk } }) }
    #declare I = I + 1;
  #end
  object { Track(-60, 60) translate <0, 0, 7> }
  object { Coach(<0.4, 0.08, 0.06>, <0.3, 0.3, 0.3>, 0.1) translate <-6, 0, 7> } object { Coach(<0.4, 0.08, 0.06>, <0.3, 0.3, 0.3>, 0.1) translate <5, 0, 7> }
  #declare I = 0; #while (I < 60) object { Reed(Between(0.5, 1.1), Between(-0.25, 0.25), rand(Rnd)) translate <Between(-5, 5), 0, Between(-5.5, -3)> } #declare I = I + 1; #end
  object { Tree(8, 3, <0.17, 0.3, 0.08>) translate <9, 0, 14> }
}, Eye, Target, 2.0)

#include "card.inc"
#declare Eye = <0.12, 1.32, -0.85>; #declare Target = <0.02, 0.78, 0.1>;
Lens(Eye, Target, 46, 1.5, 0, 1) Indoors(1.6, 2.6, -1)
Scorecard(union {
  object { Hall(3, 4, 2.8) }
  box { <-1.1, 0.7, -0.6>, <1.1, 0.74, 0.7> T(texture { TWood scale 0.5 }) }
  object { Cup(0.045, 0.09, <0.85, 0.84, 0.8>) rotate y * 30 translate <-0.16, 0.74, -0.12> }
  object { Cup(0.045, 0.09, <0.2, 0.35, 0.5>) rotate y * -60 translate <0.28, 0.74, 0.26> }
  #declare I = 0;
  #while (I < 7)
    sphere { <0.1 + 0.09 * mod(I, 3), 0.78, -0.2 + 0.08 * floor(I / 3)>, 0.04 T(texture { pigment { bozo scale 0.05 color_map { [0 rgb <0.7, 0.1, 0.06>] [1 rgb <0.8, 0.5, 0.1>] } } finish { GlossPaint } }) }
    #declare I = I + 1;
  #end
  box { <-0.5, 0.74, 0.05>, <-0.28, 0.78, 0.35> rotate y * 12 T(texture { Flat(<0.16, 0.3, 0.26>) }) }
  box { <-0.48, 0.78, 0.06>, <-0.3, 0.81, 0.33> rotate y * 6 T(texture { Flat(<0.6, 0.2, 0.12>) }) }
  cylinder { <0.5, 0.74, 0.1>, <0.5, 0.95, 0.1>, 0.04 T(texture { Gloss(<0.05, 0.2, 0.1>) }) }
  cone { <0.5, 0.95, 0.1>, 0.04, <0.5, 1.02, 0.1>, 0.014 T(texture { Gloss(<0.05, 0.2, 0.1>) }) }
  cylinder { <0.5, 1.0, 0.1>, <0.5, 1.08, 0.1>, 0.014 T(texture { Gloss(<0.05, 0.2, 0.1>) }) }
  object { Chair(<0.4, 0.15, 0.12>) translate <0.2, 0, 1.3> }
  object { Locomotive(<0.05, 0.3, 0.16>, <0.6, 0.08, 0.06>, <0.6, 0.1, 0.06>) scale 0.05 rotate y * 25 translate <-0.1, 0.74, 0.45> }
}, Eye, Target, 0.6)

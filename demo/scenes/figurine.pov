#version 3.7;
// A painted stationmaster figurine stands on a plinth close to the camera; the hall behind is busy.
#include "common.inc"

#declare Eye = <0.12, 1.75, -3.35>;
#declare Target = <0.06, 1.32, 0>;
Lens(Eye, Target, 42, 1.5, 0.11, 3.2)

#if (TEXTURED)
background { rgb <0.5, 0.5, 0.52> }
light_source { <-3.2, 5.2, -4.2>, rgb <1, 0.93, 0.82> * 1.0 area_light <1.4, 0, 0>, <0, 1.4, 0>, 4, 4 adaptive 1 jitter }
light_source { <6, 8, 12>, rgb <0.9, 0.92, 1> * 0.45 area_light <5, 0, 0>, <0, 0, 5>, 3, 3 adaptive 1 jitter }
light_source { <2.6, 2.0, -2.0>, rgb <0.4, 0.5, 0.65> * 0.35 shadowless }
#end

#declare Flags = array[3] { <0.75, 0.12, 0.1>, <0.9, 0.75, 0.2>, <0.12, 0.3, 0.55> };
#declare Skin = <0.78, 0.53, 0.4>;
#declare Navy = <0.035, 0.06, 0.17>;
#declare Brass = <0.85, 0.64, 0.22>;
#declare TNavy = texture { pigment { bozo turbulence 0.4 scale 0.2 color_map { [0 rgb Navy * 0.8] [1 rgb Navy * 1.35] } } normal { granite 0.1 scale 0.12 } finish { MattPaint } }

#declare Stationmaster = union {
  // plinth with grass mat
  cylinder { <0, -0.14, 0>, <0, -0.02, 0>, 0.62 T(texture { TWood scale 0.4 }) }
  torus { 0.6, 0.025 translate <0, -0.03, 0> T(texture { Gloss(Brass) }) }
  cylinder { <0, -0.04, 0>, <0, 0.01, 0>, 0.56 T(texture { TGrass scale 0.15 }) }
  #declare I = 0;
  #while (I < 260)
    #declare A = Between(0, 6.2832); #declare Q = 0.54 * sqrt(rand(Rnd));
    cone { 0, 0.005, <Between(-0.03, 0.03), Between(0.04, 0.13), Between(-0.03, 0.03)>, 0.001 translate <cos(A) * Q, 0.0, sin(A) * Q> T(texture { Flat(<0.2 + rand(Rnd) * 0.15, 0.33, 0.09>) }) }
    #declare I = I + 1;
  #end
  // shoes, trousers, long coat
  sphere { 0, 0.1 scale <1, 0.62, 1.8> translate <-0.12, 0.06, -0.07> T(texture { Gloss(<0.03, 0.025, 0.02>) }) }
  sphere { 0, 0.1 scale <1, 0.62, 1.8> translate <0.12, 0.06, -0.07> T(texture { Gloss(<0.03, 0.025, 0.02>) }) }
  cone { <-0.12, 0.06, 0>, 0.09, <-0.1, 0.8, 0>, 0.12 T(texture { Paint(<0.09, 0.09, 0.11>) }) }
  cone { <0.12, 0.06, 0>, 0.09, <0.1, 0.8, 0>, 0.12 T(texture { Paint(<0.09, 0.09, 0.11>) }) }
  blob { threshold 0.4
    cylinder { <0, 0.62, 0>, <0, 1.2, 0>, 0.42, 1 }
    sphere { <-0.2, 1.28, 0>, 0.26, 0.9 } sphere { <0.2, 1.28, 0>, 0.26, 0.9 } sphere { <0, 0.98, -0.1>, 0.3, 0.5 }
    T(TNavy) }
  cone { <0, 0.48, 0>, 0.34, <0, 0.78, 0>, 0.27 T(TNavy) }
  torus { 0.262, 0.03 scale <1.02, 1, 0.95> translate <0, 0.82, 0> T(texture { Paint(<0.05, 0.04, 0.03>) }) }
  // buttons and watch chain
  #declare I = 0;
  #while (I < 5)
    sphere { <-0.085, 0.74 + I * 0.125, -0.325 + 0.022 * abs(I - 2)>, 0.022 T(texture { Gloss(Brass) }) }
    sphere { <0.085, 0.74 + I * 0.125, -0.325 + 0.022 * abs(I - 2)>, 0.022 T(texture { Gloss(Brass) }) }
    #declare I = I + 1;
  #end
  // right arm raised with a signal disc, left arm behind a lantern
  sphere_sweep { cubic_spline 6, <-0.1, 1.25, 0>, 0.1, <-0.25, 1.3, 0>, 0.1, <-0.46, 1.16, -0.03>, 0.085, <-0.56, 1.42, -0.1>, 0.07, <-0.52, 1.62, -0.13>, 0.06, <-0.5, 1.8, -0.13>, 0.06 tolerance 0.01 T(TNavy) }
  torus { 0.066, 0.016 rotate <10, 0, -12> translate <-0.535, 1.565, -0.125> T(texture { Gloss(Brass) }) }
  sphere { 0, 0.07 scale <0.9, 1.2, 0.9> translate <-0.515, 1.68, -0.13> T(texture { Paint(Skin) }) }
  cylinder { <-0.53, 1.55, -0.19>, <-0.49, 2.1, -0.16>, 0.016 T(texture { TWood scale 0.1 }) }
  union {
    cylinder { z * -0.012, z * 0.012, 0.15 T(texture { Gloss(<0.03, 0.35, 0.14>) }) }
    cylinder { z * -0.016, z * 0.016, 0.105 T(texture { Gloss(<0.92, 0.92, 0.88>) }) }
    translate <-0.485, 2.1, -0.165>
  }
  sphere_sweep { cubic_spline 6, <0.1, 1.25, 0>, 0.1, <0.25, 1.3, 0>, 0.1, <0.43, 1.06, 0.02>, 0.085, <0.47, 0.84, -0.1>, 0.07, <0.45, 0.7, -0.17>, 0.06, <0.45, 0.6, -0.2>, 0.06 tolerance 0.01 T(TNavy) }
  sphere { <0.455, 0.66, -0.19>, 0.07 T(texture { Paint(Skin) }) }
  union { // lantern on a wire handle
    torus { 0.085, 0.008 rotate x * 90 translate y * 0.1 T(TSteel) }
    cylinder { <0, -0.2, 0>, <0, 0.02, 0>, 0.075 T(texture { pigment { rgb <1, 0.8, 0.42> } finish { emission 1.4 diffuse 0.2 } }) }
    cylinder { <0, -0.24, 0>, <0, -0.19, 0>, 0.1 T(texture { Gloss(<0.55, 0.06, 0.04>) }) }
    cone { <0, 0.01, 0>, 0.1, <0, 0.09, 0>, 0.03 T(texture { Gloss(<0.55, 0.06, 0.04>) }) }
    #declare I = 0;
    #while (I < 6) cylinder { <cos(I * 1.047) * 0.085, -0.2, sin(I * 1.047) * 0.085>, <cos(I * 1.047) * 0.085, 0.03, sin(I * 1.047) * 0.085>, 0.007 T(TSteel) } #declare I = I + 1; #end
    translate <0.46, 0.5, -0.22>
  }
  // collar, head, ears, nose, moustache, eyes
  cylinder { <0, 1.36, 0>, <0, 1.47, 0>, 0.1 T(texture { Paint(<0.9, 0.9, 0.86>) }) }
  cylinder { <0, 1.4, 0>, <0, 1.52, 0>, 0.085 T(texture { Paint(Skin) }) }
  cone { <0, 1.37, -0.11>, 0.045, <0, 1.27, -0.27>, 0.03 T(texture { Gloss(<0.5, 0.05, 0.05>) }) }
  sphere { 0, 0.19 scale <0.86, 1.12, 0.95> translate <0, 1.67, -0.01> T(texture { pigment { bozo scale 0.12 color_map { [0 rgb Skin * 0.93] [1 rgb Skin * 1.06] } } finish { MattPaint } }) }
  sphere { 0, 0.04 scale <0.5, 1, 0.8> translate <-0.165, 1.67, 0> T(texture { Paint(Skin * 0.95) }) }
  sphere { 0, 0.04 scale <0.5, 1, 0.8> translate <0.165, 1.67, 0> T(texture { Paint(Skin * 0.95) }) }
  sphere { 0, 0.033 scale <0.9, 1.1, 1.2> translate <0, 1.655, -0.19> T(texture { Paint(<0.82, 0.45, 0.36>) }) }
  #declare S = -1;
  #while (S < 2)
    sphere { 0, 0.025 scale <1.2, 0.9, 0.6> translate <S * 0.065, 1.712, -0.165> T(texture { Gloss(<0.93, 0.93, 0.92>) }) }
    sphere { <S * 0.063, 1.711, -0.178>, 0.012 T(texture { Gloss(<0.1, 0.16, 0.24>) }) }
    sphere_sweep { linear_spline 2, <S * 0.03, 1.752, -0.172>, 0.011, <S * 0.105, 1.748, -0.152>, 0.008 T(texture { Flat(<0.5, 0.48, 0.45>) }) }
    sphere { 0, 0.06 scale <0.25, 0.8, 0.7> translate <S * 0.152, 1.64, -0.03> T(texture { Flat(<0.55, 0.53, 0.5>) }) }
    #declare I = 0;
    #while (I < 26)
      #declare V = I / 26;
      sphere_sweep { linear_spline 3, <S * (0.006 + V * 0.05), 1.617 + Between(-0.006, 0.008), -0.188 + V * 0.016>, 0.005, <S * (0.05 + V * 0.06), 1.595 + Between(-0.012, 0.012), -0.185 + V * 0.03>, 0.004, <S * (0.085 + V * 0.085), 1.6 + Between(-0.015, 0.03), -0.165 + V * 0.05>, 0.0018 T(texture { Flat(<0.6, 0.58, 0.55> * Between(0.8, 1.1)) }) }
      #declare I = I + 1;
    #end
    #declare S = S + 2;
  #end
  // whiskers and hair below the cap: single strands
  #declare I = 0;
  #while (I < 420)
    #declare A = Between(-0.35, 3.49);
    #declare D = <cos(A) * 0.165, 0, sin(A) * 0.175>;
    sphere_sweep { linear_spline 3, D + y * Between(1.73, 1.78), 0.0032, D * Between(1.05, 1.12) + y * Between(1.62, 1.7), 0.0028, D * Between(1.1, 1.34) + y * Between(1.53, 1.62), 0.0012 T(texture { Flat(<0.56, 0.54, 0.5> * Between(0.75, 1.15)) }) }
    #declare I = I + 1;
  #end
  // cap
  cylinder { <0, 1.76, 0>, <0, 1.84, 0.01>, 0.187 T(texture { Gloss(<0.5, 0.05, 0.05>) }) }
  cone { <0, 1.84, 0.01>, 0.19, <0, 1.92, 0.0>, 0.24 T(TNavy) }
  sphere { 0, 0.24 scale <1, 0.16, 1> translate <0, 1.92, 0> T(TNavy) }
  intersection { sphere { 0, 0.24 scale <0.9, 0.22, 1.25> } plane { z, -0.1 } plane { -y, 0.005 } rotate x * -14 translate <0, 1.775, -0.01> T(texture { Gloss(<0.02, 0.02, 0.025>) }) }
  sphere { 0, 0.035 scale <1, 1.1, 0.4> translate <0, 1.875, -0.215> T(texture { Gloss(Brass) }) }
  torus { 0.191, 0.008 translate <0, 1.845, 0.01> T(texture { Gloss(Brass) }) }
}

union {
  Subject(object { Stationmaster rotate y * 14 })
  // the table the plinth stands on, with track pieces and a ruler
  box { <-3.2, -0.22, -1.6>, <3.2, -0.14, 0.95> T(texture { TWood scale 1.5 rotate y * 90 }) }
  object { Track(-3, 3) scale 0.16 translate <0.7, -0.14, 0.62> }
  object { Locomotive(<0.45, 0.07, 0.05>, <0.8, 0.62, 0.2>, <0.06, 0.06, 0.06>) scale 0.16 translate <1.15, -0.14, 0.62> }
  object { Signal(5.6, <0.75, 0.08, 0.05>) scale 0.2 translate <-1.05, -0.14, 0.72> }
  object { Tree(5, 1.6, <0.22, 0.3, 0.06>) scale 0.2 translate <-1.5, -0.14, 0.5> }
  // hall: floor, back wall with tall windows, side wall
  plane { y, -1.2 T(texture { pigment { checker rgb <0.4, 0.31, 0.22>, rgb <0.46, 0.37, 0.27> scale 0.9 } finish { diffuse 0.7 specular 0.15 roughness 0.04 reflection { 0.02, 0.1 } } }) }
  box { <-16, -1.2, 19>, <16, 9, 19.3> T(TPlaster(<0.74, 0.7, 0.6>)) }
  box { <-12.3, -1.2, -5>, <-12, 9, 19> T(TPlaster(<0.7, 0.67, 0.6>)) }
  box { <12, -1.2, -5>, <12.3, 9, 19> T(TPlaster(<0.7, 0.67, 0.6>)) }
  box { <-16, 7.5, -5>, <16, 7.7, 19> T(texture { TWood scale 3 }) }
  #declare I = 0;
  #while (I < 6) object { Window(2.0, 4.2, 1.5) translate <-9.5 + I * 3.8, 1.4, 19> } #declare I = I + 1; #end
  // lamps on cords
  #declare I = 0;
  #while (I < 12)
    #declare P = <-7.5 + 5 * mod(I, 4), 5.0, 4.5 + 4.6 * floor(I / 4)>;
    cylinder { P, P + y * 2.6, 0.015 T(texture { Paint(<0.1, 0.1, 0.1>) }) }
    cone { P - y * 0.05, 0.34, P + y * 0.22, 0.06 open T(texture { Gloss(<0.1, 0.25, 0.2>) }) }
    sphere { P - y * 0.04, 0.12 T(texture { pigment { rgb 1 } finish { diffuse 0 emission <1, 0.85, 0.6> * 8 } }) no_shadow }
    #declare I = I + 1;
  #end
  // bunting
  #declare K = 0;
  #while (K < 3)
    #declare I = 0;
    #while (I < 26)
      #declare X = -11 + I * 0.85; #declare Y = 4.1 - 0.9 * (1 - pow(2 * (I / 26) - 1, 2)) + 0.4 * K; #declare Z = 6 + K * 4;
      triangle { <X, Y, Z>, <X + 0.6, Y, Z>, <X + 0.3, Y - 0.6, Z> T(texture { Flat(Flags[mod(I + K, 3)]) }) }
      #declare I = I + 1;
    #end
    #declare K = K + 1;
  #end
  // layouts on tables and the visitors around them
  #declare K = 0;
  #while (K < 7)
    #declare P = <-7.5 + mod(K * 5.3, 15), -1.2, 4.5 + K * 1.9>;
    union {
      box { <-2, 0.85, -0.7>, <2, 0.95, 0.7> T(texture { TGrass scale 0.2 }) }
      box { <-2.02, 0.7, -0.72>, <2.02, 0.86, 0.72> T(TWood) }
      box { <-1.8, 0, -0.5>, <-1.7, 0.8, -0.4> T(TWood) } box { <1.7, 0, -0.5>, <1.8, 0.8, -0.4> T(TWood) }
      object { House(7, 8, 5.4, 3.2, TPlaster(<0.86, 0.8, 0.66>), 0) scale 0.06 translate <-1.2, 0.95, 0.1> }
      object { House(7, 8, 5.4, 3.2, TBrick(<0.6, 0.3, 0.2>), 0) scale 0.06 translate <-0.5, 0.95, 0.2> }
      object { Track(-28, 28) scale 0.06 translate <0, 0.95, -0.3> }
      object { Coach(<0.5, 0.12, 0.08>, <0.4, 0.4, 0.4>, 0) scale 0.06 translate <0.6, 0.95, -0.3> }
      object { Fir(8, 2) scale 0.06 translate <1.4, 0.95, 0.2> } object { Fir(7, 2) scale 0.06 translate <1.0, 0.95, 0.35> }
      translate P
    }
    #declare I = 0;
    #while (I < 5)
      object { Person(<Between(0.12, 0.6), Between(0.12, 0.42), Between(0.12, 0.45)>, <0.1, 0.1, 0.1> + rand(Rnd) * 0.2, <0.75, 0.53, 0.42> * Between(0.5, 1.05), <0.2, 0.13, 0.07> * Between(0.2, 2.4)) rotate y * Between(0, 360) translate P + <Between(-2.6, 2.6), 0, Between(0.95, 1.6) * select(rand(Rnd) - 0.5, -1, 1)> }
      #declare I = I + 1;
    #end
    #declare K = K + 1;
  #end
  PlainTexture(Eye, Target, 1.6)
}

#version 3.7;
// A tank engine waits at a crossing; a fence and reeds stand close to the camera, a village lies behind.
#include "common.inc"

#declare Eye = <-2.2, 2.15, -13.5>;
#declare Target = <-0.9, 2.05, 0>;
Lens(Eye, Target, 47, 1.5, 0.20, 12.6)

#if (TEXTURED)
sky_sphere {
  pigment { gradient y color_map { [0 rgb <0.86, 0.88, 0.88>] [0.12 rgb <0.62, 0.76, 0.9>] [0.6 rgb <0.22, 0.42, 0.74>] } }
  pigment { bozo turbulence 0.65 octaves 6 omega 0.62 lambda 2.1 scale <0.5, 0.16, 0.3> color_map { [0.45 rgbt <1, 1, 1, 1>] [0.62 rgbt <1, 0.99, 0.97, 0.25>] [0.85 rgbt <0.92, 0.93, 0.95, 0.1>] } }
}
#end
#if (TEXTURED)
light_source { <-60, 75, -70>, rgb <1.25, 1.14, 0.95> * 1.15 area_light <9, 0, 0>, <0, 0, 9>, 3, 3 adaptive 1 jitter }
light_source { <60, 40, -60>, rgb <0.25, 0.3, 0.38> * 0.5 shadowless }
#end

union {
  // ground, road, hills
  plane { y, 0 T(texture { TGrass scale 1.3 }) }
  box { <-3.9, 0.0, -40>, <-9.2, 0.03, 60> T(TTarmac) }
  box { <-6.6, 0.0, -40>, <-6.48, 0.035, -3> T(texture { Flat(<0.8, 0.8, 0.76>) }) }
  box { <-9.0, 0.2, -1.7>, <-4.1, 0.31, 1.7> T(TWood) }
  sphere { 0, 1 scale <70, 13, 40> translate <-55, -1, 130> T(texture { TGrass scale 6 }) }
  sphere { 0, 1 scale <90, 19, 40> translate <50, -2, 165> T(texture { TGrass scale 6 }) }
  sphere { 0, 1 scale <120, 27, 40> translate <-20, -4, 240> T(texture { pigment { bozo turbulence 0.6 scale 9 color_map { [0 rgb <0.16, 0.24, 0.2>] [1 rgb <0.27, 0.36, 0.3>] } } finish { diffuse 0.8 } }) }

  object { Track(-60, 60) }
  Subject(object { Locomotive(<0.05, 0.27, 0.13>, <0.62, 0.07, 0.05>, <0.55, 0.08, 0.05>) translate <0.6, 0, 0> })
  object { Coach(<0.42, 0.12, 0.08>, <0.42, 0.42, 0.4>, 0.1) translate <11.0, 0, 0> }
  object { Person(<0.1, 0.13, 0.25>, <0.12, 0.12, 0.14>, <0.72, 0.5, 0.38>, <0.15, 0.09, 0.05>) rotate y * -35 translate <-4.9, 0.05, -2.6> }
  object { Signal(5.6, <0.75, 0.08, 0.05>) translate <-3.1, 0, 2.7> }

  // telegraph line and its wires
  #declare I = 0;
  #while (I < 5)
    object { Pole(6.4) translate <-24 + I * 11, 0, 4.4> }
    #declare J = 0;
    #while (J < 4) object { Wire(<-24 + I * 11, 6.2, 3.65 + J * 0.5>, <-13 + I * 11, 6.2, 3.65 + J * 0.5>, 0.35, 0.014) } #declare J = J + 1; #end
    #declare I = I + 1;
  #end

  // the village
  object { House(7, 8, 5.4, 3.2, TPlaster(<0.86, 0.8, 0.66>), 0) rotate y * 8 translate <-12.5, 0, 15> }
  object { House(6, 7, 5.2, 3.0, TBrick(<0.56, 0.24, 0.16>), 0) rotate y * -6 translate <-3.0, 0, 19> }
  object { House(8, 7, 5.4, 3.6, TPlaster(<0.75, 0.68, 0.58>), 0) rotate y * 4 translate <6.2, 0, 17> }
  object { House(6, 8, 5.3, 3.3, TBrick(<0.62, 0.4, 0.25>), 0) rotate y * -10 translate <15.5, 0, 24> }
  object { House(7, 8, 5.4, 3.2, TPlaster(<0.9, 0.87, 0.8>), 0) rotate y * 12 translate <-22, 0, 27> }
  object { House(7, 8, 5.4, 3.2, TPlaster(<0.8, 0.62, 0.5>), 0) rotate y * 2 translate <-9, 0, 36> }
  union { // church
    box { <-2, 0, 0>, <2, 13, 4> T(TStone) }
    cone { <0, 13, 2>, 2.9, <0, 23, 2>, 0 T(texture { Paint(<0.17, 0.24, 0.24>) }) }
    object { House(8, 14, 7, 4.5, TStone, 0) translate <5.5, 0, 1> }
    object { Window(1, 2, 0) translate <0, 9.5, 0> }
    translate <5, 0, 46>
  }
  #declare I = 0;
  #while (I < 16)
    object { Tree(Between(4.5, 7.5), Between(1.5, 2.4), <0.16 + rand(Rnd) * 0.14, 0.27 + rand(Rnd) * 0.06, 0.06>) rotate y * 360 * rand(Rnd) translate <-34 + I * 4.6 + Between(-1.5, 1.5), 0, Between(10.5, 13) + 22 * mod(I, 2)> }
    #declare I = I + 1;
  #end
  object { Tree(5.2, 1.7, <0.26, 0.3, 0.06>) translate <3.6, 0, 8.5> }
  object { Fir(8, 1.7) translate <10.8, 0, 11> }
  object { Fir(9.5, 1.9) translate <12.9, 0, 12.6> }
  object { Fir(7.0, 1.6) translate <-17, 0, 11> }

  // fence close to the camera: two wires, posts with caps, one leaning rail
  #declare I = 0;
  #while (I < 9)
    union {
      box { <-0.055, 0, -0.045>, <0.055, 1.42, 0.045> T(texture { TWood scale 0.5 }) }
      cone { <0, 1.42, 0>, 0.07, <0, 1.5, 0>, 0.0 T(texture { TWood scale 0.4 }) }
      rotate z * Between(-2.5, 2.5) rotate y * Between(-8, 8) translate <-8.2 + I * 1.45, 0, -9.4>
    }
    #declare I = I + 1;
  #end
  box { <-10, 1.12, -9.47>, <4.6, 1.2, -9.44> T(texture { TWood scale 0.5 }) }
  box { <-10, 0.62, -9.47>, <4.6, 0.71, -9.44> rotate z * 0.4 T(texture { TWood scale 0.5 }) }
  object { Wire(<-10, 1.36, -9.4>, <4.6, 1.36, -9.4>, 0.04, 0.008) }

  // reeds at a ditch, right foreground
  #declare I = 0;
  #while (I < 70)
    object { Reed(Between(0.9, 2.25), Between(-0.35, 0.4), rand(Rnd)) rotate y * Between(-60, 60) translate <Between(-0.3, 2.6), 0, Between(-10.8, -8.0)> }
    #declare I = I + 1;
  #end
  // tufts along the line
  #declare I = 0;
  #while (I < 420)
    #declare H = Between(0.12, 0.4);
    cone { 0, 0.018, <Between(-0.12, 0.12), H, 0>, 0 translate <Between(-14, 14), 0, Between(-8, -2.2)> T(texture { Flat(<0.2 + rand(Rnd) * 0.15, 0.28, 0.08>) }) }
    #declare I = I + 1;
  #end
  PlainTexture(Eye, Target, 2.5)
}

#version 3.7;
// A clip of four seconds: a train comes out of the far hall to the platform, people pass in front. `clock` runs from 0 to 1.
// Nothing in it is drawn by chance anew for a frame, so that what stands still does not flicker: no light between surfaces, no jitter.
#include "common.inc"

#declare Seconds = 4 * clock;
// Held by hand: the camera breathes a little.
#declare Eye = <-1.05 + 0.05 * sin(Seconds * 1.3), 1.72 + 0.018 * sin(Seconds * 2.1 + 1), -9.5>;
#declare Target = <1.1 + 0.10 * sin(Seconds * 0.9 + 0.5), 1.62 + 0.04 * sin(Seconds * 1.7), 6>;
Lens(Eye, Target, 50, 16 / 9, 0.11, 6.6)

#if (TEXTURED)
sky_sphere {
  pigment { gradient y color_map { [0 rgb <0.86, 0.88, 0.88>] [0.12 rgb <0.62, 0.76, 0.9>] [0.6 rgb <0.22, 0.42, 0.74>] } }
  pigment { bozo turbulence 0.65 octaves 6 omega 0.62 lambda 2.1 scale <0.5, 0.16, 0.3> color_map { [0.45 rgbt <1, 1, 1, 1>] [0.62 rgbt <1, 0.99, 0.97, 0.25>] [0.85 rgbt <0.92, 0.93, 0.95, 0.1>] } }
}
light_source { <-45, 60, -50>, rgb <1.25, 1.14, 0.95> * 0.95 }
light_source { <60, 40, -40>, rgb <0.25, 0.3, 0.38> * 0.6 shadowless }
#end

// A person who walks towards -z: the step's phase in turns.
#macro Walker(Coat, Trousers, Skin, Hair, Phase)
  #local Swing = 26 * sin(Phase * 6.28318);
  union {
    #local S = -1;
    #while (S < 2)
      union {
        cone { <0, -0.85, 0>, 0.075, <0, 0, 0>, 0.11 T(texture { Flat(Trousers) }) }
        sphere { 0, 0.1 scale <1, 0.6, 1.7> translate <0, -0.8, -0.07> T(texture { Gloss(<0.07, 0.05, 0.04>) }) }
        rotate x * S * Swing translate <S * 0.095, 0.86, 0>
      }
      union {
        sphere_sweep { linear_spline 3, <0, 0, 0>, 0.075, <S * 0.06, -0.28, 0.02>, 0.065, <S * 0.03, -0.52, -0.1>, 0.055 T(texture { Flat(Coat) }) }
        sphere { <S * 0.03, -0.57, -0.11>, 0.06 T(texture { Paint(Skin) }) }
        rotate -x * S * Swing * 0.8 translate <S * 0.24, 1.36, 0>
      }
      #local S = S + 2;
    #end
    blob { threshold 0.5 cylinder { <0, 0.85, 0>, <0, 1.32, 0>, 0.34, 1 } sphere { <-0.17, 1.36, 0>, 0.2, 0.8 } sphere { <0.17, 1.36, 0>, 0.2, 0.8 } T(texture { Flat(Coat) }) }
    cylinder { <0, 1.4, 0>, <0, 1.52, 0>, 0.06 T(texture { Paint(Skin) }) }
    sphere { 0, 0.125 scale <0.9, 1.15, 1> translate <0, 1.62, 0> T(texture { Paint(Skin) }) }
    intersection { sphere { 0, 0.14 scale <0.92, 1.15, 1.02> } plane { -y, 0 rotate x * -25 } translate <0, 1.63, 0.012> T(texture { Flat(Hair) }) }
    translate y * (0.03 * abs(cos(Phase * 6.28318)) - 0.02)
  }
#end

#declare TPaving = texture {
  pigment { brick rgb <0.26, 0.25, 0.24>, rgb <0.5, 0.47, 0.43> brick_size <0.8, 0.5, 0.55> mortar 0.018 }
  normal { granite 0.12 scale 0.5 } finish { diffuse 0.7 }
}

// The train brakes: it comes to stand with its buffers a little before the canopy's end.
#declare Left = 1 - clock;
#declare TrainZ = 5.5 + 30 * Left * Left * (0.55 + 0.45 * Left);

union {
  plane { y, -1.2 T(TGrass) }
  box { <2.6, -1.25, -30>, <11, -1.19, 90> T(TBallast) }
  box { <-7.5, -1.3, -20>, <2.6, 0, 70> T(TPaving) }
  box { <2.28, 0.0, -20>, <2.5, 0.012, 70> T(texture { Flat(<0.85, 0.8, 0.62>) }) }
  object { Track(-30, 90) rotate -y * 90 translate <4.4, -1.25, 0> }
  object { Track(-30, 90) rotate -y * 90 translate <8.9, -1.25, 0> }
  // the train
  object { Locomotive(<0.05, 0.27, 0.13>, <0.62, 0.07, 0.05>, <0.55, 0.08, 0.05>) rotate -y * 90 translate <4.4, -0.95, TrainZ + 4.5> }
  object { Coach(<0.42, 0.12, 0.08>, <0.42, 0.42, 0.4>, 0.2) rotate -y * 90 translate <4.4, -0.95, TrainZ + 14.6> }
  object { Coach(<0.42, 0.12, 0.08>, <0.42, 0.42, 0.4>, 0.2) rotate -y * 90 translate <4.4, -0.95, TrainZ + 25.2> }
  // the far hall with its gate
  difference {
    union {
      box { <1.2, -1.2, 40>, <12.4, 6.2, 58> }
      prism { linear_sweep linear_spline 0, 18.4, 4, <-6, 0>, <6, 0>, <0, 3>, <-6, 0> rotate -x * 90 translate <6.8, 6.2, 58.2> }
    }
    box { <2.4, -1.3, 39>, <6.4, 3.4, 59> }
    cylinder { <4.4, 3.4, 39>, <4.4, 3.4, 59>, 2 }
    box { <7.0, -1.3, 39>, <10.8, 3.4, 59> }
    cylinder { <8.9, 3.4, 39>, <8.9, 3.4, 59>, 1.9 }
    T(TBrick(<0.55, 0.27, 0.18>))
  }
  // station building and canopy
  object { House(34, 9, 5.4, 3.2, TBrick(<0.56, 0.3, 0.2>), 0) rotate -y * 90 translate <-5.2, 0, 14> }
  #declare I = 0;
  #while (I < 7)
    cylinder { <-2.7, 0, 1 + I * 4>, <-2.7, 3.3, 1 + I * 4>, 0.07 T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    cylinder { <-2.7, 2.7, 1 + I * 4>, <-3.3, 3.3, 1 + I * 4>, 0.035 T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    cylinder { <-2.7, 2.7, 1 + I * 4>, <-2.3, 3.3, 1 + I * 4>, 0.035 T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    #declare I = I + 1;
  #end
  box { <-5.3, 3.3, 0>, <-2.1, 3.42, 28> T(texture { Paint(<0.45, 0.45, 0.43>) }) }
  #declare I = 0;
  #while (I < 70) box { <-2.14, 3.08 - 0.08 * mod(I, 2), I * 0.4>, <-2.1, 3.42, I * 0.4 + 0.38> T(texture { Paint(<0.75, 0.72, 0.6>) }) } #declare I = I + 1; #end
  object { Signal(6.5, <0.7, 0.08, 0.05>) translate <6.7, -1.2, 24> }
  // lamp posts along the platform
  #declare I = 0;
  #while (I < 7)
    cone { <1.7, 0, 0.5 + I * 6>, 0.07, <1.7, 3.3, 0.5 + I * 6>, 0.04 T(texture { Paint(<0.05, 0.09, 0.07>) }) }
    sphere { <1.7, 3.45, 0.5 + I * 6>, 0.2 T(texture { Gloss(<0.9, 0.88, 0.8>) }) }
    #declare I = I + 1;
  #end
  // trees and hills behind
  sphere { 0, 1 scale <70, 13, 40> translate <-35, -1, 150> T(texture { TGrass scale 6 }) }
  sphere { 0, 1 scale <90, 16, 40> translate <50, -2, 165> T(texture { TGrass scale 6 }) }
  #declare I = 0;
  #while (I < 6)
    object { Tree(Between(4.5, 7.5), Between(1.5, 2.4), <0.16 + rand(Rnd) * 0.14, 0.27 + rand(Rnd) * 0.06, 0.06>) rotate y * 360 * rand(Rnd) translate <14 + mod(I, 3) * 4, -1.2, 16 + I * 7> }
    #declare I = I + 1;
  #end
  object { Fir(8, 1.7) translate <-2, -1, 62> }
  object { Fir(9.5, 1.9) translate <-9, -1, 66> }
  // who waits stands still, with a case; others stand farther away
  Subject(object { Person(<0.42, 0.1, 0.09>, <0.1, 0.1, 0.13>, <0.75, 0.53, 0.42>, <0.1, 0.06, 0.04>) rotate y * 20 translate <-0.6, 0, -4.2> })
  box { <-0.25, 0.02, -4.4>, <0.2, 0.42, -4.22> T(texture { Paint(<0.38, 0.22, 0.12>) }) }
  torus { 0.07, 0.015 rotate x * 90 translate <-0.03, 0.43, -4.31> T(TSteel) }
  object { Person(<0.35, 0.33, 0.2>, <0.1, 0.1, 0.1>, <0.7, 0.5, 0.4>, <0.1, 0.1, 0.1>) rotate y * 70 translate <0.3, 0, 9> }
  object { Person(<0.2, 0.26, 0.18>, <0.1, 0.1, 0.14>, <0.7, 0.5, 0.4>, <0.4, 0.38, 0.36>) rotate y * -40 translate <-0.6, 0, 9.6> }
  // those who pass: one close by from left to right, one farther off from right to left, one who comes nearer
  object { Walker(<0.12, 0.2, 0.34>, <0.16, 0.14, 0.12>, <0.65, 0.45, 0.34>, <0.3, 0.2, 0.1>, Seconds * 0.85) rotate -y * 90 translate <-4.2 + 1.5 * Seconds, 0, -5.9> }
  object { Walker(<0.5, 0.42, 0.16>, <0.12, 0.12, 0.16>, <0.7, 0.5, 0.4>, <0.5, 0.4, 0.2>, Seconds * 0.8 + 0.3) rotate y * 90 translate <2.0 - 1.15 * Seconds, 0, 0.8> }
  object { Walker(<0.16, 0.3, 0.2>, <0.1, 0.1, 0.1>, <0.6, 0.42, 0.32>, <0.1, 0.08, 0.06>, Seconds * 0.8 + 0.1) translate <-1.7, 0, 7.5 - 1.2 * Seconds> }
  PlainTexture(Eye, Target, 2.2)
}

#version 3.7;
// A platform at dusk: many small lamps, lit windows, wet paving, a railing close to the camera.
#include "common.inc"

#declare Eye = <-1.15, 1.75, -9.5>;
#declare Target = <0.35, 1.75, 6>;
Lens(Eye, Target, 52, 1.5, 0.11, 6.6)

#if (TEXTURED)
sky_sphere {
  pigment { gradient y color_map { [0 rgb <0.75, 0.38, 0.2> * 0.75] [0.08 rgb <0.52, 0.32, 0.32> * 0.6] [0.25 rgb <0.14, 0.17, 0.34> * 0.6] [0.7 rgb <0.03, 0.05, 0.14> * 0.7] } }
  pigment { bozo turbulence 0.7 octaves 6 scale <0.6, 0.08, 0.4> color_map { [0.5 rgbt 1] [0.75 rgbt <0.5, 0.28, 0.24, 0.55>] } }
}
#end
#if (TEXTURED)
light_source { <-40, 25, 90>, rgb <0.5, 0.32, 0.25> * 0.5 shadowless }
light_source { <-30, 60, -40>, rgb <0.16, 0.2, 0.36> * 0.8 area_light <12, 0, 0>, <0, 0, 12>, 3, 3 adaptive 1 jitter }
#end

#declare Bulbs = array[4] { <1, 0.75, 0.35>, <1, 0.25, 0.12>, <0.4, 0.9, 0.4>, <0.45, 0.6, 1> };

#macro Lamp(P, C, Power)
  union {
    cone { P, 0.07, P + y * 3.3, 0.04 T(texture { Paint(<0.05, 0.09, 0.07>) }) }
    sphere_sweep { cubic_spline 5, P + <0, 2.9, 0>, 0.025, P + <0, 3.3, 0>, 0.025, P + <0.25, 3.6, 0>, 0.022, P + <0.6, 3.5, 0>, 0.02, P + <0.7, 3.2, 0>, 0.02 tolerance 0.01 T(texture { Paint(<0.05, 0.09, 0.07>) }) }
    cone { P + <0.6, 3.3, 0>, 0.24, P + <0.6, 3.5, 0>, 0.05 open T(texture { Paint(<0.05, 0.09, 0.07>) }) }
    sphere { P + <0.6, 3.3, 0>, 0.085 T(texture { pigment { rgb 1 } finish { emission C * 9 diffuse 0 } }) no_shadow }
  }
  #if (TEXTURED) light_source { P + <0.6, 3.28, 0>, rgb C * Power fade_distance 2.2 fade_power 2 } #end
#end

#declare TPaving = texture {
  pigment { brick rgb <0.2, 0.19, 0.18>, rgb <0.36, 0.34, 0.32> brick_size <0.8, 0.5, 0.55> mortar 0.018 }
  normal { granite 0.12 scale 0.5 } finish { diffuse 0.65 specular 0.3 roughness 0.03 reflection { 0.04, 0.3 } }
}

union {
  plane { y, -1.2 T(TBallast) }
  box { <-7.5, -1.3, -20>, <2.6, 0, 70> T(TPaving) }
  box { <2.28, 0.0, -20>, <2.5, 0.012, 70> T(texture { Flat(<0.85, 0.8, 0.62>) }) }
  // two tracks run along z
  object { Track(-30, 90) rotate -y * 90 translate <4.4, -1.25, 0> }
  object { Track(-30, 90) rotate -y * 90 translate <8.9, -1.25, 0> }
  // the train at the platform
  #declare I = 0;
  #while (I < 3) object { Coach(<0.07, 0.14, 0.3>, <0.25, 0.25, 0.26>, 1.6) rotate -y * 90 translate <4.4, -0.95, 7.5 + I * 10.6> } #declare I = I + 1; #end
  // station building, canopy on thin posts
  object { House(34, 9, 5.4, 3.2, TBrick(<0.5, 0.26, 0.18>), 0.9) rotate -y * 90 translate <-5.2, 0, 14> }
  #declare I = 0;
  #while (I < 7)
    cylinder { <-2.7, 0, 1 + I * 4>, <-2.7, 3.3, 1 + I * 4>, 0.07 T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    torus { 0.11, 0.04 translate <-2.7, 0.35, 1 + I * 4> T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    cylinder { <-2.7, 2.7, 1 + I * 4>, <-3.3, 3.3, 1 + I * 4>, 0.035 T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    cylinder { <-2.7, 2.7, 1 + I * 4>, <-2.3, 3.3, 1 + I * 4>, 0.035 T(texture { Paint(<0.1, 0.2, 0.16>) }) }
    #declare I = I + 1;
  #end
  box { <-5.3, 3.3, 0>, <-2.1, 3.42, 28> T(texture { Paint(<0.3, 0.3, 0.3>) }) }
  #declare I = 0;
  #while (I < 70) box { <-2.14, 3.08 - 0.08 * mod(I, 2), I * 0.4>, <-2.1, 3.42, I * 0.4 + 0.38> T(texture { Paint(<0.75, 0.72, 0.6>) }) } #declare I = I + 1; #end
  // the lamps, and strings of small bulbs for the open day
  #declare I = 0;
  #while (I < 9)
    Lamp(<1.25, 0, -3.2 + I * 5.2>, <1, 0.78, 0.45>, select(I - 5, 2.2, 1.2))
    #declare I = I + 1;
  #end
  #declare K = 0;
  #while (K < 6)
    #declare A = <-2.1, 3.25, 1 + K * 4>;
    #declare B = <1.25, 3.3, 2 + K * 5.2>;
    object { Wire(A, B, 0.45, 0.009) }
    #declare I = 1;
    #while (I < 10)
      sphere { A + (B - A) * I / 10 - y * (0.45 * (1 - pow(2 * I / 10 - 1, 2)) + 0.05), 0.035
        T(texture { pigment { rgb 1 } finish { diffuse 0 emission 3.2 * Bulbs[mod(I + K, 4)] } }) no_shadow }
      #declare I = I + 1;
    #end
    #declare K = K + 1;
  #end
  // signals beyond the platform end
  object { Signal(6.5, <0.7, 0.08, 0.05>) rotate y * 0 translate <6.7, -1.2, 30> }
  sphere { <6.7, 4.7, 29.7>, 0.12 T(texture { pigment { rgb 1 } finish { diffuse 0 emission <9, 0.7, 0.4> } }) no_shadow }
  sphere { <2.9, 2.6, 44>, 0.13 T(texture { pigment { rgb 1 } finish { diffuse 0 emission <0.6, 8, 3> } }) no_shadow }
  #declare I = 0;
  #while (I < 26)
    box { <0, 0, 0>, <Between(3, 7), Between(3, 9), 5> translate <-30 + I * 3.2, -1.2, Between(75, 100)> T(texture { Flat(<0.08, 0.08, 0.11>) }) }
    sphere { <-34 + I * 3.1 + Between(0, 2), Between(0.5, 5.5), 72>, Between(0.06, 0.13) T(texture { pigment { rgb 1 } finish { diffuse 0 emission <7, 4.8, 2.2> * Between(0.5, 1.3) } }) no_shadow }
    #declare I = I + 1;
  #end
  // people: the one in focus stands under the second lamp with a case
  Subject(object { Person(<0.42, 0.1, 0.09>, <0.1, 0.1, 0.13>, <0.75, 0.53, 0.42>, <0.1, 0.06, 0.04>) rotate y * 20 translate <0.15, 0, -2.9> })
  box { <0.5, 0.02, -3.1>, <0.95, 0.42, -2.92> T(texture { Paint(<0.38, 0.22, 0.12>) }) }
  torus { 0.07, 0.015 rotate x * 90 translate <0.72, 0.43, -3.01> T(TSteel) }
  object { Person(<0.12, 0.2, 0.28>, <0.16, 0.14, 0.12>, <0.65, 0.45, 0.34>, <0.3, 0.2, 0.1>) rotate y * 160 translate <-1.2, 0, 3.4> }
  object { Person(<0.35, 0.33, 0.2>, <0.1, 0.1, 0.1>, <0.7, 0.5, 0.4>, <0.1, 0.1, 0.1>) rotate y * 70 translate <0.3, 0, 9> }
  object { Person(<0.2, 0.26, 0.18>, <0.1, 0.1, 0.14>, <0.7, 0.5, 0.4>, <0.4, 0.38, 0.36>) rotate y * -40 translate <-0.6, 0, 9.6> }
  // bench and luggage trolley
  union {
    #declare I = 0;
    #while (I < 5) box { <-0.25 + I * 0.11, 0.46, -0.9>, <-0.17 + I * 0.11, 0.5, 0.9> T(TWood) } box { <-0.3, 0.55 + I * 0.09, -0.9>, <-0.27, 0.62 + I * 0.09, 0.9> T(TWood) } #declare I = I + 1; #end
    box { <-0.3, 0, -0.7>, <0.25, 0.46, -0.64> T(texture { Paint(<0.06, 0.06, 0.06>) }) } box { <-0.3, 0, 0.64>, <0.25, 0.46, 0.7> T(texture { Paint(<0.06, 0.06, 0.06>) }) }
    translate <-2.9, 0, -0.6>
  }
  // railing close to the camera, lower left
  #declare I = 0;
  #while (I < 12) cylinder { <-4.14 + I * 0.22, 0, -6.9>, <-4.14 + I * 0.22, 1.16, -6.9>, 0.013 T(texture { Gloss(<0.06, 0.1, 0.08>) }) } #declare I = I + 1; #end
  cylinder { <-5, 1.18, -6.9>, <-1.62, 1.18, -6.9>, 0.03 T(texture { Gloss(<0.06, 0.1, 0.08>) }) }
  cylinder { <-5, 0.2, -6.9>, <-1.62, 0.2, -6.9>, 0.02 T(texture { Gloss(<0.06, 0.1, 0.08>) }) }
  cylinder { <-1.62, 0, -6.9>, <-1.62, 1.35, -6.9>, 0.045 T(texture { Gloss(<0.06, 0.1, 0.08>) }) }
  sphere { <-1.62, 1.4, -6.9>, 0.08 T(texture { Gloss(<0.75, 0.6, 0.25>) }) }
  PlainTexture(Eye, Target, 2.2)
}

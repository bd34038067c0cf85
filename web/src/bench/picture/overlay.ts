import type { Band } from '../../api/client'
import { CONTOUR, FAR, INSIDE, NEAR, strongestDistance, type DepthView } from '../../editing/depthViews'
import type { EdgeWidths, Nearness, Sure } from '../../editing/nearness'

/** A rectangle in pixels of the canvas, y down. */
export type Box = { x: number; y: number; width: number; height: number }

export type Look = {
  view: DepthView
  band: Band
  /** Points at this share of the width and this nearness light up. */
  mark: { x: number; nearness: number } | undefined
}

const VERTEX = `#version 300 es
uniform vec4 box;
uniform vec2 stage;
uniform float spill;
out vec2 place;
void main() {
  // A view that hides the photo reaches over its edge, which may end within a pixel.
  vec2 corner = vec2(gl_VertexID & 1, gl_VertexID >> 1);
  place = (corner * (box.zw + 2.0 * spill) - spill) / box.zw;
  vec2 at = (box.xy + place * box.zw) / stage;
  gl_Position = vec4(at.x * 2.0 - 1.0, 1.0 - at.y * 2.0, 0.0, 1.0);
}`

const FRAGMENT = `#version 300 es
precision highp float;
precision highp int;
precision highp usampler2D;
uniform usampler2D depth;
uniform usampler2D widths;
uniform usampler2D sure;
uniform bool known;
uniform int view;
uniform vec4 band;
uniform vec2 tilt;
uniform float strongest;
uniform vec3 mark;
uniform vec3 near;
uniform vec3 far;
uniform vec3 inside;
in vec2 place;
out vec4 colour;

float valueAt(usampler2D map, vec2 at) {
  ivec2 size = textureSize(map, 0);
  vec2 pixel = at * vec2(size) - 0.5;
  ivec2 low = ivec2(floor(pixel));
  vec2 part = pixel - vec2(low);
  ivec2 most = size - 1;
  float a = float(texelFetch(map, clamp(low, ivec2(0), most), 0).r);
  float b = float(texelFetch(map, clamp(low + ivec2(1, 0), ivec2(0), most), 0).r);
  float c = float(texelFetch(map, clamp(low + ivec2(0, 1), ivec2(0), most), 0).r);
  float d = float(texelFetch(map, clamp(low + ivec2(1, 1), ivec2(0), most), 0).r);
  return mix(mix(a, b, part.x), mix(c, d, part.x), part.y);
}

float eased(float distance, float falloff) {
  return distance < falloff ? distance * distance / (2.0 * falloff) : distance - falloff / 2.0;
}

float outside(float nearness) {
  if (nearness > band.x) return -eased(nearness - band.x, band.z);
  if (nearness < band.y) return eased(band.y - nearness, band.w);
  return 0.0;
}

vec4 solid(vec3 tint, float alpha) {
  return vec4(tint * alpha, alpha);
}

vec4 over(vec4 up, vec4 down) {
  return up + (1.0 - up.a) * down;
}

/** Edges of the photo that are sharp light up, none is lost when the picture is small; the rest is dimmed. */
vec4 sharpEdges() {
  ivec2 size = textureSize(widths, 0);
  vec2 step = abs(vec2(dFdx(place.x), dFdy(place.y))) * vec2(size);
  float found = 0.0;
  for (int y = 0; y < 2; y++) {
    for (int x = 0; x < 2; x++) {
      ivec2 at = clamp(ivec2(place * vec2(size) + (vec2(x, y) - 0.5) * max(step, 1.0) * 0.5), ivec2(0), size - 1);
      float width = float(texelFetch(widths, at, 0).r) / 50.0;
      if (width > 0.0) found = max(found, 1.0 - smoothstep(1.2, 2.2, width));
    }
  }
  return over(solid(inside, found), solid(vec3(0.0), 0.5));
}

/** Where the estimate is unsure, lines aslant: closer to white on what it knows nothing of. */
vec4 hatching() {
  float doubt = smoothstep(0.42, 0.2, valueAt(sure, place) / 255.0);
  float at = fract((gl_FragCoord.x + gl_FragCoord.y) / 9.0);
  float line = smoothstep(0.0, 0.08, at) - smoothstep(0.12, 0.2, at);
  float shade = smoothstep(0.12, 0.2, at) - smoothstep(0.24, 0.32, at);
  return over(solid(vec3(1.0), 0.75 * line * doubt), solid(vec3(0.0), 0.45 * shade * doubt));
}

void main() {
  float nearness = valueAt(depth, place) / 65535.0;
  float distance = outside(nearness - dot(tilt, 2.0 * place - 1.0));
  vec3 side = distance < 0.0 ? near : far;
  colour = vec4(0.0);
  if (view == 1) {
    if (distance != 0.0) colour = solid(side, (50.0 + 150.0 * min(1.0, abs(distance) / strongest)) / 255.0);
  } else if (view == 2) {
    float level = nearness / ${CONTOUR.toFixed(2)};
    float slope = fwidth(level);
    float off = abs(fract(level + 0.5) - 0.5) / max(slope, 1e-5);
    // Where many lines meet they are an edge; on what is flat there is none.
    float line = slope > 0.7 ? 0.55 : slope < 1e-4 || level < 0.5 ? 0.0 : 1.0 - smoothstep(0.5, 1.3, off);
    vec3 tint = distance == 0.0 ? inside : side;
    colour = over(solid(tint, line * 0.95), solid(side, distance == 0.0 ? 0.0 : 0.12));
  } else if (view == 3) {
    colour = vec4(vec3(nearness), 1.0);
  } else if (view == 4) {
    colour = sharpEdges();
  }
  if (known && view > 0 && view < 4) colour = over(hatching(), colour);
  if (mark.z > 0.5 && abs(place.x - mark.x) < 0.02 && abs(nearness - mark.y) < 0.012) {
    colour = over(solid(vec3(1.0), 0.6), colour);
  }
}`

const VIEWS: Record<DepthView, number> = { photo: 0, zones: 1, contours: 2, grey: 3, check: 4 }
const share = (colour: readonly [number, number, number]): [number, number, number] =>
  colour.map((each) => each / 255) as [number, number, number]

/** Draws the depth views with the graphics hardware, so that they follow a drag; undefined when there is none. */
export function createOverlay(canvas: HTMLCanvasElement) {
  const gl = canvas.getContext('webgl2', { premultipliedAlpha: true, antialias: false })
  const program = gl && linked(gl)
  if (!gl || !program) return undefined
  const uniform = (name: string): WebGLUniformLocation | null => gl.getUniformLocation(program, name)
  const at = {
    box: uniform('box'),
    stage: uniform('stage'),
    view: uniform('view'),
    band: uniform('band'),
    tilt: uniform('tilt'),
    strongest: uniform('strongest'),
    mark: uniform('mark'),
    spill: uniform('spill'),
    known: uniform('known'),
  }
  gl.useProgram(program)
  gl.uniform3fv(uniform('near'), share(NEAR))
  gl.uniform3fv(uniform('far'), share(FAR))
  gl.uniform3fv(uniform('inside'), share(INSIDE))
  gl.uniform1i(uniform('depth'), 0)
  gl.uniform1i(uniform('widths'), 1)
  gl.uniform1i(uniform('sure'), 2)
  gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1)
  const depth = texture(gl, 0)
  const widths = texture(gl, 1)
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, 1, 1, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, new Uint8Array(1))

  const sure = texture(gl, 2)
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, 1, 1, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, new Uint8Array(1))
  let known = false

  function useNearness(map: Nearness): void {
    gl?.activeTexture(gl.TEXTURE0)
    gl?.bindTexture(gl.TEXTURE_2D, depth)
    gl?.texImage2D(gl.TEXTURE_2D, 0, gl.R16UI, map.width, map.height, 0, gl.RED_INTEGER, gl.UNSIGNED_SHORT, map.samples)
  }

  function useWidths(map: EdgeWidths): void {
    gl?.activeTexture(gl.TEXTURE1)
    gl?.bindTexture(gl.TEXTURE_2D, widths)
    gl?.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, map.width, map.height, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, map.samples)
  }

  /** Undefined where it is not known. */
  function useSure(map: Sure | undefined): void {
    known = !!map
    if (!map) return
    gl?.activeTexture(gl.TEXTURE2)
    gl?.bindTexture(gl.TEXTURE_2D, sure)
    gl?.texImage2D(gl.TEXTURE_2D, 0, gl.R8UI, map.width, map.height, 0, gl.RED_INTEGER, gl.UNSIGNED_BYTE, map.samples)
  }

  /** Draws into one place of the canvas, cut to another. */
  function draw(box: Box, cut: Box, look: Look): void {
    if (!gl) return
    gl.viewport(0, 0, canvas.width, canvas.height)
    gl.enable(gl.SCISSOR_TEST)
    const [left, right] = whole(cut.x, cut.width, box.x + box.width)
    const [top, bottom] = whole(cut.y, cut.height, box.y + box.height)
    gl.scissor(left, canvas.height - bottom, right - left, bottom - top)
    const { band } = look
    gl.uniform4f(at.box, box.x, box.y, box.width, box.height)
    gl.uniform2f(at.stage, canvas.width, canvas.height)
    gl.uniform1i(at.view, VIEWS[look.view])
    gl.uniform1f(at.spill, look.view === 'grey' ? 1 : 0)
    gl.uniform4f(at.band, band.near, band.far, band.nearFalloff, band.farFalloff)
    gl.uniform2f(at.tilt, band.tiltAcross, band.tiltDown)
    gl.uniform1f(at.strongest, strongestDistance(band))
    gl.uniform1i(at.known, known ? 1 : 0)
    gl.uniform3f(at.mark, look.mark?.x ?? 0, look.mark?.nearness ?? 0, look.mark ? 1 : 0)
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4)
  }

  function clear(): void {
    if (!gl) return
    gl.disable(gl.SCISSOR_TEST)
    gl.clearColor(0, 0, 0, 0)
    gl.clear(gl.COLOR_BUFFER_BIT)
  }

  function close(): void {
    gl?.getExtension('WEBGL_lose_context')?.loseContext()
  }

  return { useNearness, useWidths, useSure, draw, clear, close }
}

/** From and to in whole pixels; where it ends with the picture, the pixel in which that ends belongs to it. */
function whole(from: number, length: number, end: number): [number, number] {
  const first = Math.round(from)
  const last = from + length > end - 0.01 ? Math.ceil(from + length) : Math.round(from + length)
  return [first, Math.max(first, last)]
}

export type Overlay = NonNullable<ReturnType<typeof createOverlay>>

function texture(gl: WebGL2RenderingContext, unit: number): WebGLTexture | null {
  const made = gl.createTexture()
  gl.activeTexture(gl.TEXTURE0 + unit)
  gl.bindTexture(gl.TEXTURE_2D, made)
  for (const filter of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
    gl.texParameteri(gl.TEXTURE_2D, filter, gl.NEAREST)
  for (const wrap of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T]) gl.texParameteri(gl.TEXTURE_2D, wrap, gl.CLAMP_TO_EDGE)
  return made
}

function linked(gl: WebGL2RenderingContext): WebGLProgram | null {
  const program = gl.createProgram()
  for (const [type, source] of [
    [gl.VERTEX_SHADER, VERTEX],
    [gl.FRAGMENT_SHADER, FRAGMENT],
  ] as const) {
    const shader = gl.createShader(type)
    if (!shader) return null
    gl.shaderSource(shader, source)
    gl.compileShader(shader)
    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS)) console.error(gl.getShaderInfoLog(shader))
    gl.attachShader(program, shader)
  }
  gl.linkProgram(program)
  return gl.getProgramParameter(program, gl.LINK_STATUS) ? program : null
}

import { CLOSER, MOST_AB } from '@rakuen/core/characterisation/lab-axes';

/** Vertices of a plane that fills the canvas. */
export const VERTEX = /* glsl */ `
in vec3 position;
out vec2 place;
void main() {
  place = position.xy * 0.5 + 0.5;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}`;

/**
 * A picture on two sheets. The picture is Lab; each sheet is a lattice from Lab of the file to Lab as printed, relative
 * to its white, and is read by tetrahedra as it is everywhere else. What comes out is of the screen’s own space,
 * dithered by less than one code.
 */
export const FRAGMENT = /* glsl */ `
precision highp float;
precision highp sampler3D;
in vec2 place;
out vec4 colour;

uniform sampler2D picture;
uniform vec4 part;           // what is looked at: x, y, width, height, of the picture
uniform sampler2D detail;    // a part of the picture with its own pixels
uniform vec4 detailAt;       // where it lies; width 0: none is there
uniform sampler3D sheets[2];
uniform vec3 whites[2];      // XYZ of the sheets' whites over the connection space's
uniform vec4 aims[2];        // what a printed colour is held against: light of the file times this, plus this
uniform vec4 around;         // bare paper beside the picture: left, top, right, bottom, in shares of the picture
uniform vec4 bare[2];        // and that of each hand
uniform float settled;       // 1: the eye has settled on the paper's white
uniform sampler2D base;      // what lies under local contrast: slope and offset over 100, of the fine scale and of the broad one
uniform vec2 locals[2];      // how much of both is added, 0: none
uniform sampler2D tones[2];  // what light is multiplied by, for L* from 0 to 100: the recipe of each hand
uniform float chromas[2];    // and what chroma is then
uniform float entries;
uniform float split;         // where the right hand's sheet begins, 0-1
uniform float beside;        // 1: two whole pictures beside each other
uniform int map;             // 0 none, 1 out of reach, 2 beyond the screen, 3 closed shadows, 4 blown lights, 5 between the two
uniform mat3 toScreen;       // X, Y, Z (D50) to linear light of the screen
uniform float surface;       // 1: the sheet's own surface is drawn
uniform vec2 sheetMm;        // size of the print
uniform vec2 lampFrom;       // on the sheet, towards the side the light goes: x right, y down
uniform vec2 lampHeight;     // cosine and sine of its height over the sheet as it is tilted
uniform vec2 eyeAside;       // cosine and sine of how far the eye stands off the sheet's own normal, away from the lamp
uniform float eyeMm;
uniform sampler2D reliefs[2];// slopes of a square of each sheet, 128 for none, 127 for MOST_SLOPE
uniform float reliefMm[2];   // its side, 0: none was scanned
uniform vec2 lobes[2];       // how wide bare sheet and full black spread a lamp's image, radians; 0: gloss was not read
uniform float flakes[2];     // 1: metallic flake under the ink
uniform vec4 mirror;         // share mirrored by the surface, share and lobe of the flake, steepest slope
uniform float dim;           // light of the room over that of the screen, 0-1

const float CLOSER = ${CLOSER.toFixed(4)}, MOST_AB = ${MOST_AB.toFixed(1)};
const vec3 WHITE = vec3(0.9642, 1.0, 0.8249);

float toLight(float f) { float c = f * f * f; return c > 0.008856451679 ? c : (116.0 * f - 16.0) / 903.2962963; }
float toRoot(float t) { return t > 0.008856451679 ? pow(t, 1.0 / 3.0) : (903.2962963 * t + 16.0) / 116.0; }
// X, Y, Z over the white.
vec3 light(vec3 lab) {
  float fy = (lab.x + 16.0) / 116.0;
  return vec3(toLight(fy + lab.y / 500.0), toLight(fy), toLight(fy - lab.z / 200.0));
}
vec3 labOf(vec3 xyz) {
  vec3 f = vec3(toRoot(xyz.x), toRoot(xyz.y), toRoot(xyz.z));
  return vec3(116.0 * f.y - 16.0, 500.0 * (f.x - f.y), 200.0 * (f.y - f.z));
}

vec3 node(sampler3D lattice, ivec3 at) { return texelFetch(lattice, at, 0).xyz; }
// Where an a* or b* lies along its axis of a lattice: closer about neutral.
vec2 placeOf(vec2 ab) {
  const float bent = 1.0 - CLOSER;
  vec2 u = (sqrt(CLOSER * CLOSER + 4.0 * bent * abs(ab) / MOST_AB) - CLOSER) / (2.0 * bent);
  return 0.5 + 0.5 * sign(ab) * u;
}
vec3 printed(sampler3D lattice, vec3 lab) {
  // Each sheet’s lattice has its own size.
  float nodes = float(textureSize(lattice, 0).x);
  vec3 at = clamp(vec3(lab.x / 100.0, placeOf(lab.yz)), 0.0, 1.0) * (nodes - 1.0);
  vec3 low = min(floor(at), nodes - 2.0);
  vec3 t = at - low;
  // Axes run L*, a*, b* from the slowest to the fastest: b* is x in the texture.
  ivec3 i = ivec3(low.z, low.y, low.x);
  ivec3 L = ivec3(0, 0, 1), A = ivec3(0, 1, 0), B = ivec3(1, 0, 0);
  ivec3 first, second; float a, b, c;
  if (t.x >= t.y) {
    if (t.y >= t.z) { first = L; second = L + A; a = t.x; b = t.y; c = t.z; }
    else if (t.x >= t.z) { first = L; second = L + B; a = t.x; b = t.z; c = t.y; }
    else { first = B; second = B + L; a = t.z; b = t.x; c = t.y; }
  } else {
    if (t.x >= t.z) { first = A; second = A + L; a = t.y; b = t.x; c = t.z; }
    else if (t.y >= t.z) { first = A; second = A + B; a = t.y; b = t.z; c = t.x; }
    else { first = B; second = B + A; a = t.z; b = t.y; c = t.x; }
  }
  return node(lattice, i) * (1.0 - a) + node(lattice, i + first) * (a - b) + node(lattice, i + second) * (b - c)
    + node(lattice, i + ivec3(1)) * c;
}

// About ΔE00: differences of chroma and hue weighed by chroma (CIE 116).
float apart(vec3 p, vec3 q) {
  float cp = length(p.yz), cq = length(q.yz);
  float dc = cp - cq;
  float dh = max(0.0, dot(p.yz - q.yz, p.yz - q.yz) - dc * dc);
  float sc = 1.0 + 0.045 * cp, sh = 1.0 + 0.015 * cp;
  return sqrt(pow(p.x - q.x, 2.0) + dc * dc / (sc * sc) + dh / (sh * sh));
}

// An engraver's hatching: the more, the denser.
float hatched(float amount) {
  float s = gl_FragCoord.x + gl_FragCoord.y;
  float d = gl_FragCoord.x - gl_FragCoord.y;
  float one = step(mod(s, 8.0), 1.2);
  float two = step(mod(s + 4.0, 8.0), 1.2);
  float three = step(mod(d, 8.0), 1.2);
  return amount < 1.0 ? 0.0 : amount < 2.5 ? one : amount < 5.0 ? max(one, two) : max(max(one, two), three);
}

vec3 shown(int hand, vec3 lab) {
  vec3 relative = hand == 0 ? printed(sheets[0], lab) : printed(sheets[1], lab);
  vec3 white = hand == 0 ? whites[0] : whites[1];
  return settled > 0.5 ? relative : labOf(light(relative) * white);
}

// L* below which a step of tone is one of the shadows, above which one of the lights, and from which the paper is bare.
const float SHADOW_L = 30.0, LIGHT_L = 90.0, BARE_L = 99.5;
float greyOf(int hand, float L) { vec3 grey = vec3(L, 0.0, 0.0); return hand == 0 ? printed(sheets[0], grey).x : printed(sheets[1], grey).x; }
// How much of a step of tone about L* the sheet takes away, as dense as it is hatched.
float stepsLost(int hand, float L) {
  float low = clamp(L - 1.0, 0.0, 98.0);
  float lost = 1.0 - clamp((greyOf(hand, low + 2.0) - greyOf(hand, low)) / 2.0, 0.0, 1.0);
  return lost > 0.15 ? lost * 9.0 : 0.0;
}

// Contrast by its scale on paper: X, Y and Z grow alike.
vec3 local(vec2 by, vec2 spot, vec3 lab) {
  if (by == vec2(0.0)) return lab;
  vec4 under = texture(base, spot);
  float t = clamp(lab.x / 100.0, 0.0, 1.0);
  float more = by.x * (lab.x - under.x * lab.x - under.y * 100.0) + by.y * (lab.x - under.z * lab.x - under.w * 100.0);
  float to = clamp(lab.x + 4.0 * t * (1.0 - t) * more, 0.0, 100.0);
  return vec3(to, lab.yz * (to + 16.0) / (lab.x + 16.0));
}

// What is done to the picture for a hand's sheet.
vec3 recipe(int hand, vec2 spot, vec3 given) {
  vec3 lab = local(hand == 0 ? locals[0] : locals[1], spot, given);
  vec2 at = vec2((clamp(lab.x / 100.0, 0.0, 1.0) * (entries - 1.0) + 0.5) / entries, 0.5);
  float factor = hand == 0 ? texture(tones[0], at).r : texture(tones[1], at).r;
  float chroma = hand == 0 ? chromas[0] : chromas[1];
  if (factor == 1.0 && chroma == 1.0) return lab;
  vec3 made = labOf(light(lab) * factor);
  return vec3(made.x, made.yz * chroma);
}

// Slopes of a sheet at a place, mm from its middle: a square of it, mirrored at its edges so that it has no seams.
vec2 slopeAt(int hand, vec2 mm) {
  float side = hand == 0 ? reliefMm[0] : reliefMm[1];
  if (side <= 0.0) return vec2(0.0);
  vec2 tile = mm / side;
  vec2 turned = mod(floor(tile), 2.0);
  vec2 spot = mix(fract(tile), 1.0 - fract(tile), turned);
  vec2 dx = dFdx(tile), dy = dFdy(tile);
  vec2 found = hand == 0 ? textureGrad(reliefs[0], spot, dx, dy).xy : textureGrad(reliefs[1], spot, dx, dy).xy;
  return (found * 255.0 - 128.0) / 127.0 * mirror.w * (1.0 - 2.0 * turned);
}

// Light of a mirrored lamp over that of a white, off by an angle in radians.
float lobe(float off, float wide, float share) { return share / (2.0 * wide * wide) * exp(-0.5 * off * off / (wide * wide)); }

// The print with the surface of its sheet in that lamp. Ink lies where it is dark.
vec3 surfaced(int hand, vec2 spot, float L, vec3 xyz) {
  vec2 mm = (spot - 0.5) * sheetMm;
  vec2 slope = slopeAt(hand, mm);
  vec3 seen = xyz * max(0.0, 1.0 + dot(slope, lampFrom) * lampHeight.x / lampHeight.y);
  vec2 wide = hand == 0 ? lobes[0] : lobes[1];
  if (wide.x <= 0.0) return seen;
  vec3 lamp = vec3(-lampFrom * lampHeight.x, lampHeight.y);
  vec3 eye = vec3(lampFrom * eyeAside.y, eyeAside.x) * eyeMm;
  vec3 between = normalize(normalize(eye - vec3(mm, 0.0)) + lamp);
  vec3 normal = normalize(vec3(-slope, 1.0));
  float off = 2.0 * acos(clamp(dot(between, normal), -1.0, 1.0));
  seen += WHITE * lobe(off, mix(wide.x, wide.y, clamp(1.0 - L / 100.0, 0.0, 1.0)), mirror.x);
  float flake = hand == 0 ? flakes[0] : flakes[1];
  return seen + flake * xyz * lobe(off, mirror.z, mirror.y);
}

void main() {
  vec2 at = place;
  bool right = at.x > split;
  if (beside > 0.5) { right = at.x > 0.5; at.x = fract(at.x * 2.0); }
  vec2 onPicture = vec2(at.x, 1.0 - at.y) * (1.0 + around.xy + around.zw) - around.xy;
  vec2 beyond = max(-onPicture, onPicture - 1.0);
  bool blank = max(beyond.x, beyond.y) > 0.0;
  if (blank) {
    vec4 paper = right ? bare[1] : bare[0];
    if (any(greaterThan(-onPicture, paper.xy)) || any(greaterThan(onPicture - 1.0, paper.zw))) { colour = vec4(0.0); return; }
  }
  vec2 spot = part.xy + onPicture * part.zw;
  vec2 near = (spot - detailAt.xy) / max(detailAt.zw, vec2(1e-6));
  bool drawn = detailAt.z > 0.0 && all(greaterThanEqual(near, vec2(0.0))) && all(lessThanEqual(near, vec2(1.0)));
  vec3 file = drawn ? texture(detail, near).xyz : texture(picture, spot).xyz;
  vec3 left = recipe(0, spot, file);
  vec3 other = recipe(1, spot, file);
  vec3 made = blank ? vec3(100.0, 0.0, 0.0) : right ? other : left;
  vec3 lab = shown(right ? 1 : 0, made);
  vec3 d50 = light(lab) * WHITE;
  if (surface > 0.5) d50 = surfaced(right ? 1 : 0, spot, lab.x, d50);
  d50 *= dim;
  vec3 rgb = toScreen * d50;
  float amount = 0.0;
  if (map == 1) {
    vec3 relative = right ? printed(sheets[1], made) : printed(sheets[0], made);
    vec4 aim = right ? aims[1] : aims[0];
    amount = apart(labOf(light(made) * aim.xyz + aim.w), relative);
  } else if (map == 2) {
    vec3 past = max(max(rgb - 1.0, -rgb), 0.0);
    amount = 60.0 * max(past.r, max(past.g, past.b));
  } else if (map == 3) amount = made.x < SHADOW_L ? stepsLost(right ? 1 : 0, made.x) : 0.0;
  else if (map == 4) amount = made.x > BARE_L ? 5.0 : made.x > LIGHT_L ? stepsLost(right ? 1 : 0, made.x) : 0.0;
  else if (map == 5) amount = apart(shown(0, left), shown(1, other));
  rgb = clamp(rgb, 0.0, 1.0);
  vec3 code = mix(rgb * 12.92, 1.055 * pow(rgb, vec3(1.0 / 2.4)) - 0.055, step(0.0031308, rgb));
  // Dithered by interleaved gradient noise: no banding in a sky.
  float noise = fract(52.9829189 * fract(dot(gl_FragCoord.xy, vec2(0.06711056, 0.00583715))));
  code += (noise - 0.5) / 255.0;
  if (map > 0 && !blank) code = mix(code, vec3(dot(code, vec3(0.3, 0.6, 0.1)) > 0.45 ? 0.0 : 1.0), hatched(amount) * 0.85);
  colour = vec4(code, 1.0);
}`;

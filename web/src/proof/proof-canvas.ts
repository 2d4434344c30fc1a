import {
  Data3DTexture,
  DataTexture,
  FloatType,
  GLSL3,
  HalfFloatType,
  LinearFilter,
  LinearMipmapLinearFilter,
  Matrix3,
  Mesh,
  NearestFilter,
  OrthographicCamera,
  PlaneGeometry,
  RawShaderMaterial,
  RedFormat,
  RGBAFormat,
  Scene,
  Vector2,
  Vector3,
  Vector4,
  WebGLRenderer,
  DataUtils,
} from 'three';
import type { LaidView } from '@rakuen/contract/proofs';
import type { Matrix3 as Matrix3Rows } from '@rakuen/core/colour/matrix';
import { labToXyz } from '@rakuen/core/colour/lab';
import { DISPLAY_P3, linearOfPcs, SRGB, type RgbSpace } from '@rakuen/core/colour/rgb-space';
import { WHITE_ICC } from '@rakuen/core/colour/white';
import { MAPS, type MapName } from '@rakuen/core/proof/drawn';
import type { Part } from '@rakuen/core/proof/part';
import type { LocalBase } from '@rakuen/core/proof/local-contrast';
import { widened } from '@rakuen/core/proof/hung';
import { holdingBoth, NOTHING_AROUND, type Around } from '@rakuen/core/proof/surround';
import { aimOf } from '@rakuen/core/proof/aim';
import { PLAIN, TONE_ENTRIES, toneTable, type Recipe } from '@rakuen/core/proof/recipe';
import type { Slopes } from '@rakuen/core/surface/relief';
import { FLAKE, lobeDeg, MIRRORED } from '@rakuen/core/surface/sheen';
import { LAB_UNITS, type LabImage } from '../pictures/lab-image.ts';
import { latticeOf } from '../pictures/picture-api.ts';
import { FRAGMENT, VERTEX } from './proof-shader.ts';

/** What is known of a sheet's surface. */
export interface SheetSurface {
  readonly slopes?: Slopes;
  /** Gloss units at 60° of the bare sheet and of full black. */
  readonly gloss?: { readonly white: number; readonly black: number };
  readonly metallic: boolean;
}

/** A lamp over the sheets, and how they are held. */
export interface SurfaceView {
  readonly heightDeg: number;
  /** Where the lamp stands, degrees from the left, anticlockwise. */
  readonly lampDeg: number;
  /** Towards the lamp. */
  readonly tiltDeg: number;
  readonly eyeMm: number;
  readonly sheetMm: readonly [width: number, height: number];
}

/** Rise over run that fills a byte of a slope. */
const MOST_SLOPE = 0.25;
const radians = (deg: number): number => (deg * Math.PI) / 180;

/** How a proof is looked at. */
export interface ProofView {
  /** The eye has settled on the paper's white. */
  readonly settled: boolean;
  /** What is done to the picture, for the sheet in the left hand and in the right. */
  readonly recipes: readonly [Recipe, Recipe];
  /** Where the right hand's sheet begins, 0–1. */
  readonly split: number;
  readonly beside: boolean;
  readonly map: MapName;
  /** X, Y, Z (D50) to linear light of the screen, where the eye has settled on the screen and the print is held beside it. */
  readonly toScreen?: Matrix3Rows;
  /** The sheets' own surface, where it is drawn. */
  readonly surface?: SurfaceView;
  /** By how much light is multiplied, so that the screen is as dim as the room; 1 where it is not asked for. */
  readonly dim: number;
  /** What of the picture is looked at. */
  readonly part: Part;
  /** Bare paper beside the picture on the sheet of each hand, where it is drawn. */
  readonly around?: readonly [Around, Around];
  /** What is left free outside the paper of both, for what it hangs in. */
  readonly beyond?: Around;
}

export type SeenSheet = LaidView['seen'];

/** Whatever draws a proof on a canvas. */
export interface ProofDrawer {
  picture(image: LabImage): void;
  /** A part of the picture with its own pixels, drawn where it lies; nothing where it is not there yet. */
  detail(part: Part | undefined, image?: LabImage): void;
  /** What lies under the local contrast of the picture; nothing where no recipe turns it. */
  base(base: LocalBase | undefined): void;
  /** What is known of a sheet's surface; what is not is not drawn. */
  surface(hand: 0 | 1, surface: SheetSurface): void;
  sheet(hand: 0 | 1, sheet: SeenSheet): void;
  draw(view: ProofView, widthPx: number, heightPx: number): void;
  clear(): void;
}

const HELD = ['picture', 'detail', 'base'] as const;
type Held = (typeof HELD)[number];

/** The space this screen is drawn in: its wide one where it says that it has it. */
export const screenSpace = (): RgbSpace =>
  'drawingBufferColorSpace' in WebGL2RenderingContext.prototype && matchMedia('(color-gamut: p3)').matches
    ? DISPLAY_P3
    : SRGB;

/** A picture on two sheets, drawn by the graphics processor: another sheet or light is another lattice, and nothing else. */
export class ProofCanvas implements ProofDrawer {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly material: RawShaderMaterial;
  private readonly lattices = new Map<SeenSheet, Data3DTexture>();
  private readonly recipes: [Recipe?, Recipe?] = [];
  private readonly sheets: [SeenSheet?, SeenSheet?] = [];
  /** To the screen for an eye that has settled in the light. */
  private readonly settledIn: Matrix3Rows;

  /** @throws Error where the browser has no WebGL 2 */
  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: false, alpha: true, preserveDrawingBuffer: true });
    const space = screenSpace();
    if (space === DISPLAY_P3)
      (this.renderer.getContext() as WebGL2RenderingContext).drawingBufferColorSpace = 'display-p3';
    this.settledIn = linearOfPcs(space);
    this.material = new RawShaderMaterial({
      glslVersion: GLSL3,
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      uniforms: {
        picture: { value: null },
        part: { value: new Vector4(0, 0, 1, 1) },
        detail: { value: null },
        detailAt: { value: new Vector4(0, 0, 0, 0) },
        sheets: { value: [null, null] },
        whites: { value: [new Vector3(1, 1, 1), new Vector3(1, 1, 1)] },
        aims: { value: [new Vector4(1, 1, 1, 0), new Vector4(1, 1, 1, 0)] },
        around: { value: new Vector4(0, 0, 0, 0) },
        bare: { value: [new Vector4(0, 0, 0, 0), new Vector4(0, 0, 0, 0)] },
        settled: { value: 0 },
        surface: { value: 0 },
        sheetMm: { value: new Vector2(1, 1) },
        lampFrom: { value: new Vector2(1, 0) },
        lampHeight: { value: new Vector2(0, 1) },
        eyeAside: { value: new Vector2(1, 0) },
        eyeMm: { value: 600 },
        reliefs: { value: [null, null] },
        reliefMm: { value: [0, 0] },
        lobes: { value: [new Vector2(0, 0), new Vector2(0, 0)] },
        flakes: { value: [0, 0] },
        mirror: { value: new Vector4(MIRRORED, FLAKE.share, radians(FLAKE.lobeDeg), MOST_SLOPE) },
        base: { value: null },
        locals: { value: [new Vector2(0, 0), new Vector2(0, 0)] },
        tones: { value: [null, null] },
        chromas: { value: [1, 1] },
        entries: { value: TONE_ENTRIES },
        split: { value: 0.5 },
        beside: { value: 0 },
        map: { value: 0 },
        toScreen: { value: new Matrix3() },
        dim: { value: 1 },
      },
    });
    this.scene.add(new Mesh(new PlaneGeometry(2, 2), this.material));
  }

  picture(image: LabImage): void {
    this.detail(undefined);
    this.hold('picture', textureOf(image));
  }

  detail(part: Part | undefined, image?: LabImage): void {
    (this.material.uniforms.detailAt.value as Vector4).set(
      part?.x ?? 0,
      part?.y ?? 0,
      part?.width ?? 0,
      part?.height ?? 0,
    );
    this.hold('detail', image ? textureOf(image) : null);
  }

  base(base: LocalBase | undefined): void {
    this.hold('base', base ? baseTexture(base) : null);
  }

  surface(hand: 0 | 1, { slopes, gloss, metallic }: SheetSurface): void {
    const { uniforms } = this.material;
    const reliefs = uniforms.reliefs.value as (DataTexture | null)[];
    reliefs[hand]?.dispose();
    reliefs[hand] = slopes ? slopeTexture(slopes) : null;
    (uniforms.reliefMm.value as number[])[hand] = slopes?.sideMm ?? 0;
    const wide = (gu: number) => radians(lobeDeg(gu));
    (uniforms.lobes.value as Vector2[])[hand].set(gloss ? wide(gloss.white) : 0, gloss ? wide(gloss.black) : 0);
    (uniforms.flakes.value as number[])[hand] = metallic ? 1 : 0;
  }

  private lamp(surface: SurfaceView | undefined): void {
    const { uniforms } = this.material;
    uniforms.surface.value = surface ? 1 : 0;
    if (!surface) return;
    const { lampDeg, heightDeg, tiltDeg, eyeMm, sheetMm } = surface;
    (uniforms.sheetMm.value as Vector2).set(...sheetMm);
    (uniforms.lampFrom.value as Vector2).set(Math.cos(radians(lampDeg)), -Math.sin(radians(lampDeg)));
    // Tilted towards it the sheet has the lamp higher, and the eye further on the other side.
    const height = radians(Math.min(90, heightDeg + tiltDeg));
    (uniforms.lampHeight.value as Vector2).set(Math.cos(height), Math.max(0.05, Math.sin(height)));
    (uniforms.eyeAside.value as Vector2).set(Math.cos(radians(tiltDeg)), Math.sin(radians(tiltDeg)));
    uniforms.eyeMm.value = eyeMm;
  }

  private hold(name: Held, texture: DataTexture | null): void {
    (this.material.uniforms[name].value as DataTexture | null)?.dispose();
    this.material.uniforms[name].value = texture;
  }

  sheet(hand: 0 | 1, sheet: SeenSheet): void {
    const { uniforms } = this.material;
    (uniforms.sheets.value as (Data3DTexture | null)[])[hand] = this.latticeTexture(sheet);
    const xyz = labToXyz(sheet.white);
    (uniforms.whites.value as Vector3[])[hand].set(xyz[0] / WHITE_ICC[0], xyz[1] / WHITE_ICC[1], xyz[2] / WHITE_ICC[2]);
    this.sheets[hand] = sheet;
  }

  private latticeTexture(sheet: SeenSheet): Data3DTexture {
    const known = this.lattices.get(sheet);
    if (known) return known;
    const packed = latticeOf(sheet);
    const data = new Float32Array((packed.length / 3) * 4);
    for (let p = 0, i = 0; i < packed.length; p += 4, i += 3)
      for (let c = 0; c < 3; c++) data[p + c] = packed[i + c] / LAB_UNITS;
    const texture = new Data3DTexture(data, sheet.nodes, sheet.nodes, sheet.nodes);
    texture.format = RGBAFormat;
    texture.type = FloatType;
    texture.minFilter = texture.magFilter = NearestFilter;
    texture.needsUpdate = true;
    this.lattices.set(sheet, texture);
    if (this.lattices.size > 12) {
      const [oldest, old] = this.lattices.entries().next().value!;
      old.dispose();
      this.lattices.delete(oldest);
    }
    return texture;
  }

  private recipe(hand: 0 | 1, recipe: Recipe): void {
    const { uniforms } = this.material;
    const sheet = this.sheets[hand];
    if (sheet) {
      const { gain, black } = aimOf(recipe.rendering, sheet);
      (uniforms.aims.value as Vector4[])[hand].set(...gain, black);
    }
    (uniforms.chromas.value as number[])[hand] = 1 + recipe.saturation;
    // Without its base nothing is turned: it is there before a recipe that asks for it is drawn.
    const { localFine, localBroad } = uniforms.base.value ? recipe : PLAIN;
    (uniforms.locals.value as Vector2[])[hand].set(localFine, localBroad);
    if (this.recipes[hand] === recipe) return;
    this.recipes[hand] = recipe;
    const tones = uniforms.tones.value as (DataTexture | null)[];
    tones[hand]?.dispose();
    const table = Uint16Array.from(toneTable(recipe), (factor) => DataUtils.toHalfFloat(factor));
    const texture = new DataTexture(table, TONE_ENTRIES, 1, RedFormat, HalfFloatType);
    texture.minFilter = texture.magFilter = LinearFilter;
    texture.needsUpdate = true;
    tones[hand] = texture;
  }

  draw(view: ProofView, widthPx: number, heightPx: number): void {
    const { uniforms } = this.material;
    uniforms.settled.value = view.settled ? 1 : 0;
    view.recipes.forEach((recipe, hand) => this.recipe(hand as 0 | 1, recipe));
    uniforms.split.value = view.split;
    uniforms.beside.value = view.beside ? 1 : 0;
    uniforms.map.value = MAPS.indexOf(view.map);
    uniforms.dim.value = view.dim;
    const [left, right] = view.around ?? [NOTHING_AROUND, NOTHING_AROUND];
    setEdges(uniforms.around.value as Vector4, widened(holdingBoth(left, right), view.beyond ?? NOTHING_AROUND));
    setEdges((uniforms.bare.value as Vector4[])[0], left);
    setEdges((uniforms.bare.value as Vector4[])[1], right);
    this.lamp(view.surface);
    const [red, green, blue] = view.toScreen ?? this.settledIn;
    (uniforms.toScreen.value as Matrix3).set(...red, ...green, ...blue).multiplyScalar(100);
    (uniforms.part.value as Vector4).set(view.part.x, view.part.y, view.part.width, view.part.height);
    this.renderer.setPixelRatio(1);
    this.renderer.setSize(widthPx, heightPx, false);
    this.renderer.render(this.scene, this.camera);
  }

  clear(): void {
    for (const name of HELD) this.hold(name, null);
    for (const texture of this.lattices.values()) texture.dispose();
    const { tones, reliefs } = this.material.uniforms;
    for (const texture of [...tones.value, ...reliefs.value] as (DataTexture | null)[]) texture?.dispose();
    this.material.dispose();
    this.renderer.dispose();
  }
}

const setEdges = (to: Vector4, { left, top, right, bottom }: Around) => to.set(left, top, right, bottom);

/** Slopes in bytes, made small by the processor as the picture is: far off a tooth is even. */
function slopeTexture({ size, values }: Slopes): DataTexture {
  const data = new Uint8Array(size * size * 4);
  for (let i = 0; i < size * size; i++)
    for (let axis = 0; axis < 2; axis++)
      data[i * 4 + axis] = 128 + Math.round(Math.max(-1, Math.min(1, values[i * 2 + axis] / MOST_SLOPE)) * 127);
  const texture = new DataTexture(data, size, size, RGBAFormat);
  texture.minFilter = LinearMipmapLinearFilter;
  texture.magFilter = LinearFilter;
  texture.generateMipmaps = true;
  texture.needsUpdate = true;
  return texture;
}

/** Offsets are L*, and slopes 0–1: both as shares, so that half floats hold them alike. */
function baseTexture({ widthPx, heightPx, data }: LocalBase): DataTexture {
  return halfFloats(
    Uint16Array.from(data, (v, i) => DataUtils.toHalfFloat(i % 2 ? v / 100 : v)),
    widthPx,
    heightPx,
  );
}

function textureOf({ widthPx, heightPx, lab }: LabImage): DataTexture {
  const data = new Uint16Array(widthPx * heightPx * 4);
  for (let p = 0, i = 0; i < lab.length; p += 4, i += 3)
    for (let c = 0; c < 3; c++) data[p + c] = DataUtils.toHalfFloat(lab[i + c] / LAB_UNITS);
  return halfFloats(data, widthPx, heightPx);
}

function halfFloats(data: Uint16Array<ArrayBuffer>, widthPx: number, heightPx: number): DataTexture {
  const texture = new DataTexture(data, widthPx, heightPx, RGBAFormat, HalfFloatType);
  texture.minFilter = texture.magFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

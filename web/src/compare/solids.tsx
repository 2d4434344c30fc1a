import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { BufferAttribute, BufferGeometry, CanvasTexture, LineSegments, Sprite, SpriteMaterial } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import { CONTOUR_HUES, hueContours, lightnessContours, outermost, type Contour } from '@rakuen/core/gamut/contours';
import { meshVolume, type GamutMesh } from '@rakuen/core/gamut/mesh';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useAppSelector } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';

export interface NamedSolid {
  readonly id: string;
  readonly letter: string;
  readonly name: string;
  readonly mesh: GamutMesh;
}

/** Where the eye stands, in CIELAB turned so that L* is up: x is a*, z is −b*. */
const VIEWS = {
  slant: { name: 'a slant', at: [240, 190, 320] },
  above: { name: 'above', at: [0, 480, 0.01] },
  red: { name: 'the reds', at: [440, 50, 0] },
  yellow: { name: 'the yellows', at: [0, 50, -440] },
  blue: { name: 'the blues', at: [0, 50, 440] },
} as const satisfies Record<string, { name: string; at: readonly [number, number, number] }>;
type View = keyof typeof VIEWS;

const MIDDLE = [0, 50, 0] as const;
const TURN_RAD = Math.PI / 24;
const NEARER = 0.9;

/**
 * Up to three gamut solids in CIELAB: the first as a body in its own colours, the second by its lines as a map has
 * them, the third by broken ones. Turned by mouse, finger and keys.
 */
export function Solids({ solids, onTake }: { solids: NamedSolid[]; onTake: (id: string) => void }) {
  const controls = useRef<OrbitControls>(null);
  // Lines and names are drawn in the colours of the surround.
  const theme = useAppSelector((s) => s.view.theme);
  const [view, setView] = useState<{ name: View; turn: number }>({ name: 'slant', turn: 0 });
  const far = useMemo(() => Math.max(1, ...solids.map((s) => reachOf(s.mesh) / FITTING_CHROMA)), [solids]);
  const scene = useRef<HTMLDivElement>(null);
  // What was pressed is gone then: the hand goes on turning what it took.
  const take = (id: string) => {
    onTake(id);
    scene.current?.focus();
  };
  return (
    <figure>
      <SeenFrom onView={(name) => setView({ name, turn: view.turn + 1 })} />
      <div
        ref={scene}
        role="application"
        aria-label={`Gamut solids in CIELAB: ${solids.map((s) => `${s.letter} ${s.name}`).join(', ')}. Arrow keys turn them, plus and minus come nearer and go away.`}
        tabIndex={0}
        onKeyDown={(e) => turnByKey(e, controls.current)}
        className="h-[430px] touch-none border border-line"
        data-testid="solids"
      >
        <Canvas
          key={theme}
          frameloop="demand"
          flat
          linear
          camera={{ position: [...VIEWS.slant.at], fov: SCENE.fovDeg, near: 1, far: 2000 }}
          gl={{ antialias: true, preserveDrawingBuffer: true }}
          fallback={<p className="p-4">This browser draws no solids; the cuts below show the same.</p>}
        >
          <Hand controls={controls} view={view} far={far} />
          <Axes />
          {solids.map((s, i) =>
            i === 0 ? (
              <Body key={s.id} mesh={s.mesh} />
            ) : (
              <Lines key={s.id} mesh={s.mesh} letter={s.letter} faint={i === 2} />
            ),
          )}
        </Canvas>
      </div>
      <Legend solids={solids} onTake={take} />
    </figure>
  );
}

/** Arrows turn it; plus and minus come nearer and go away. */
function turnByKey(e: KeyboardEvent, c: OrbitControls | null): void {
  if (!c) return;
  const camera = c.object;
  const away = camera.position.clone().sub(c.target);
  const turned: Record<string, () => void> = {
    ArrowLeft: () => away.applyAxisAngle(camera.up, -TURN_RAD),
    ArrowRight: () => away.applyAxisAngle(camera.up, TURN_RAD),
    ArrowUp: () => away.setY(away.y + 20),
    ArrowDown: () => away.setY(away.y - 20),
    '+': () => away.multiplyScalar(NEARER),
    '=': () => away.multiplyScalar(NEARER),
    '-': () => away.divideScalar(NEARER),
  };
  if (!turned[e.key]) return;
  e.preventDefault();
  e.stopPropagation();
  turned[e.key]();
  camera.position.copy(c.target).add(away);
  c.update();
}

function SeenFrom({ onView }: { onView: (view: View) => void }) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <span className="text-quiet">Seen from</span>
      {Object.entries(VIEWS).map(([key, { name }]) => (
        <Button key={key} aria-label={`Seen from ${name}`} onClick={() => onView(key as View)}>
          {name}
        </Button>
      ))}
    </div>
  );
}

function Legend({ solids, onTake }: { solids: readonly NamedSolid[]; onTake: (id: string) => void }) {
  return (
    <figcaption className="mt-1 text-[13px]">
      <ul className="flex flex-wrap gap-x-6">
        {solids.map((s, i) => (
          <li key={s.id}>
            <b className="font-serif">{s.letter}</b> {s.name},{' '}
            {['a body in its own colours', 'in lines', 'in broken lines'][i]},{' '}
            {formatNumber(Math.round(meshVolume(s.mesh) / 100) * 100, 0)} cubic Lab units
            {i > 0 && (
              <>
                {' '}
                <QuietButton onClick={() => onTake(s.id)} aria-label={`Take ${s.name} in hand, as the body`}>
                  Take in hand
                </QuietButton>
              </>
            )}
          </li>
        ))}
      </ul>
      <p className="text-quiet">
        L* stands upright; a line every ten of L* and at every 30° of hue, a ring every 50 of chroma. Colours as far as
        this screen shows them.
      </p>
    </figcaption>
  );
}

const place = ([L, a, b]: readonly [number, number, number]): [number, number, number] => [a, L, -b];

function Body({ mesh }: { mesh: GamutMesh }) {
  const geometry = useMemo(() => geometryOf(mesh, true), [mesh]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <mesh geometry={geometry}>
      <meshBasicMaterial vertexColors side={2} />
    </mesh>
  );
}

const lineGeometry = (contours: readonly Contour[]): BufferGeometry => {
  const geometry = new BufferGeometry();
  const points = contours.flatMap((c) => c.pieces.flatMap(([p, q]) => [...place(p), ...place(q)]));
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
  return geometry;
};

/** At this hue the lines of lightness are named: it is seen from a slant. */
const NAMED_AT_HUE = 330;
const NAMED_LS = [20, 40, 60, 80];

/** A solid by its lines, as a map has them: one every ten of L*, one at each of twelve hues. */
function Lines({ mesh, letter, faint }: { mesh: GamutMesh; letter: string; faint: boolean }) {
  const [geometry, names] = useMemo(() => {
    const heights = lightnessContours(mesh);
    const named = heights
      .filter((c) => NAMED_LS.includes(c.at))
      .flatMap((c) => {
        const at = outermost(c, NAMED_AT_HUE);
        return at ? [{ L: c.at, at: place(at) }] : [];
      });
    return [lineGeometry([...heights, ...hueContours(mesh)]), named] as const;
  }, [mesh]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const [lines, hidden] = useMemo(() => [new LineSegments(geometry), new LineSegments(geometry)], [geometry]);
  useEffect(() => void lines.computeLineDistances(), [lines]);
  return (
    <>
      <primitive object={lines}>
        {faint ? (
          <lineDashedMaterial color="#131313" dashSize={2.5} gapSize={4} />
        ) : (
          <lineBasicMaterial color="#131313" />
        )}
      </primitive>
      {/* What lies behind or inside another solid shows through faintly. */}
      <primitive object={hidden}>
        <lineBasicMaterial color="#131313" transparent opacity={faint ? 0.1 : 0.22} depthTest={false} />
      </primitive>
      {!faint && names.map(({ L, at }) => <Name key={L} text={`${letter} L* ${L}`} at={at} through />)}
    </>
  );
}

/** A name is drawn twice as high as it stands on the screen, px, in a scene so high that is seen by so wide an angle. */
const NAME_PX = 32;
const SCENE = { highPx: 430, fovDeg: 34 } as const;
const NAME_HIGH = (NAME_PX / 2 / SCENE.highPx) * 2 * Math.tan((SCENE.fovDeg / 2) * (Math.PI / 180));

/** A name that stands in the scene and faces the eye. */
function Name({
  text,
  at,
  through = false,
}: {
  text: string;
  at: readonly [number, number, number];
  through?: boolean;
}) {
  const sprite = useMemo(() => {
    const canvas = document.createElement('canvas');
    const context = canvas.getContext('2d')!;
    const style = getComputedStyle(document.documentElement);
    const font = `${NAME_PX * 0.8}px ${style.getPropertyValue('--font-sans')}`;
    context.font = font;
    canvas.width = Math.ceil(context.measureText(text).width) + 12;
    canvas.height = NAME_PX;
    context.font = font;
    context.textBaseline = 'middle';
    // On a body of every colour a name needs paper under it.
    if (through) {
      context.fillStyle = style.getPropertyValue('--sheet').trim();
      context.fillRect(0, 0, canvas.width, canvas.height);
    }
    context.fillStyle = style.getPropertyValue('--ink').trim();
    context.fillText(text, 6, NAME_PX / 2);
    const texture = new CanvasTexture(canvas);
    const made = new Sprite(
      new SpriteMaterial({ map: texture, depthTest: !through, sizeAttenuation: false, transparent: true }),
    );
    made.scale.set((NAME_HIGH * canvas.width) / canvas.height, NAME_HIGH, 1);
    return made;
  }, [text, through]);
  useEffect(
    () => () => {
      sprite.material.map?.dispose();
      sprite.material.dispose();
    },
    [sprite],
  );
  return <primitive object={sprite} position={at} />;
}

function geometryOf(mesh: GamutMesh, coloured: boolean): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.vertices.flatMap(place)), 3));
  if (coloured) {
    const rgb = mesh.vertices.flatMap((lab) => xyzToRgb(SRGB, labToXyz(lab)).map((v) => Math.min(1, Math.max(0, v))));
    geometry.setAttribute('color', new BufferAttribute(Float32Array.from(rgb), 3));
  }
  geometry.setIndex(mesh.triangles.flatMap((t) => [...t]));
  return geometry;
}

const RINGS = [50, 100];
const NAMED_OUT = 130;
/** Hues about the foot: the four axes by their names, the others by their angles; and the axis of greys. */
const COMPASS = [
  ...CONTOUR_HUES.map((hue) => {
    const [cos, sin] = [Math.cos((hue * Math.PI) / 180), Math.sin((hue * Math.PI) / 180)];
    const axis = { 0: 'a* reds', 90: 'b* yellows', 180: '−a* greens', 270: '−b* blues' }[hue];
    return { text: axis ?? `${hue}°`, at: [NAMED_OUT * cos, 0, -NAMED_OUT * sin] as const };
  }),
  { text: 'L* 100', at: [0, 108, 0] as const },
];

/** The axis of greys, and rings of chroma at its foot. */
function Axes() {
  const lines = useMemo(() => {
    const points: number[] = [0, 0, 0, 0, 100, 0];
    for (const r of RINGS) {
      for (let i = 0; i < 72; i++)
        for (const k of [i, i + 1]) points.push(r * Math.cos((k * Math.PI) / 36), 0, r * Math.sin((k * Math.PI) / 36));
    }
    for (const [x, z] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ])
      points.push(0, 0, 0, 120 * x, 0, 120 * z);
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
    return new LineSegments(geometry);
  }, []);
  useEffect(() => () => lines.geometry.dispose(), [lines]);
  return (
    <>
      <primitive object={lines}>
        <lineBasicMaterial color={getComputedStyle(document.documentElement).getPropertyValue('--edge').trim()} />
      </primitive>
      {COMPASS.map(({ text, at }) => (
        <Name key={text} text={text} at={at} />
      ))}
    </>
  );
}

/** What turns the view: mouse and finger by the controls, named views and keys from outside. */
/** C* a solid may reach for the views to hold it as they stand; what reaches further is seen from further off. */
const FITTING_CHROMA = 155;
const reachOf = ({ vertices }: GamutMesh): number => Math.max(...vertices.map(([, a, b]) => Math.hypot(a, b)));

function Hand({
  controls,
  view,
  far,
}: {
  controls: RefObject<OrbitControls | null>;
  view: { name: View; turn: number };
  /** How many times further off than the views stand. */
  far: number;
}) {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    const orbit = new OrbitControls(camera, gl.domElement);
    orbit.target.set(...MIDDLE);
    orbit.addEventListener('change', () => invalidate());
    orbit.update();
    controls.current = orbit;
    return () => orbit.dispose();
  }, [camera, gl, invalidate, controls]);
  useEffect(() => {
    const [x, y, z] = VIEWS[view.name].at;
    camera.position.set(x, y, z).sub(controls.current!.target).multiplyScalar(far).add(controls.current!.target);
    controls.current!.update();
    invalidate();
  }, [view, far, camera, controls, invalidate]);
  return null;
}

import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { BufferAttribute, BufferGeometry, LineSegments, WireframeGeometry, type Camera } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import { meshVolume, type GamutMesh } from '@rakuen/core/gamut/mesh';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button } from '../parts/button.tsx';

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

/** Up to three gamut solids in CIELAB: the first as a body in its own colours, the second as a net, the third as a fainter one. Turned by mouse, finger and keys. */
export function Solids({ solids }: { solids: NamedSolid[] }) {
  const controls = useRef<OrbitControls>(null);
  const [view, setView] = useState<{ name: View; turn: number }>({ name: 'slant', turn: 0 });
  const onKey = (e: KeyboardEvent) => {
    const c = controls.current;
    if (!c) return;
    const camera = c.object as Camera;
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
  };
  return (
    <figure>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <span className="text-quiet">Seen from</span>
        {Object.entries(VIEWS).map(([key, { name }]) => (
          <Button
            key={key}
            aria-label={`Seen from ${name}`}
            onClick={() => setView({ name: key as View, turn: view.turn + 1 })}
          >
            {name}
          </Button>
        ))}
      </div>
      <div
        role="application"
        aria-label={`Gamut solids in CIELAB: ${solids.map((s) => `${s.letter} ${s.name}`).join(', ')}. Arrow keys turn them, plus and minus come nearer and go away.`}
        tabIndex={0}
        onKeyDown={onKey}
        className="h-[430px] touch-none border border-line"
        data-testid="solids"
      >
        <Canvas
          frameloop="demand"
          flat
          linear
          camera={{ position: [...VIEWS.slant.at], fov: 34, near: 1, far: 2000 }}
          gl={{ antialias: true, preserveDrawingBuffer: true }}
          fallback={<p className="p-4">This browser draws no solids; the cuts below show the same.</p>}
        >
          <Hand controls={controls} view={view} />
          <Axes />
          {solids.map((s, i) =>
            i === 0 ? <Body key={s.id} mesh={s.mesh} /> : <Net key={s.id} mesh={s.mesh} faint={i === 2} />,
          )}
        </Canvas>
      </div>
      <figcaption className="mt-1 text-[13px]">
        <ul className="flex flex-wrap gap-x-6">
          {solids.map((s, i) => (
            <li key={s.id}>
              <b className="font-serif">{s.letter}</b> {s.name},{' '}
              {['a body in its own colours', 'a net', 'a fainter net'][i]},{' '}
              {formatNumber(Math.round(meshVolume(s.mesh) / 100) * 100, 0)} cubic Lab units
            </li>
          ))}
        </ul>
        <p className="text-quiet">
          L* stands upright, a* runs to the reds, b* to the yellows; a ring every 50 of chroma. Colours as far as this
          screen shows them.
        </p>
      </figcaption>
    </figure>
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

function Net({ mesh, faint }: { mesh: GamutMesh; faint: boolean }) {
  const geometry = useMemo(() => {
    const solid = geometryOf(mesh, false);
    const edges = new WireframeGeometry(solid);
    solid.dispose();
    return edges;
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
          <lineBasicMaterial color="#131313" transparent opacity={0.7} />
        )}
      </primitive>
      {/* What lies behind or inside another solid shows through faintly. */}
      <primitive object={hidden}>
        <lineBasicMaterial color="#131313" transparent opacity={faint ? 0.05 : 0.1} depthTest={false} />
      </primitive>
    </>
  );
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
    <primitive object={lines}>
      <lineBasicMaterial color={getComputedStyle(document.documentElement).getPropertyValue('--edge').trim()} />
    </primitive>
  );
}

/** What turns the view: mouse and finger by the controls, named views and keys from outside. */
function Hand({ controls, view }: { controls: RefObject<OrbitControls | null>; view: { name: View; turn: number } }) {
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
    camera.position.set(x, y, z);
    controls.current?.update();
    invalidate();
  }, [view, camera, controls, invalidate]);
  return null;
}

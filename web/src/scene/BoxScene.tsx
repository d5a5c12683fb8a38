import { Canvas, type ThreeEvent, useThree } from '@react-three/fiber';
import {
  type ReactNode,
  type RefObject,
  useEffect,
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
} from 'react';
import {
  AlwaysStencilFunc,
  BackSide,
  type BufferGeometry,
  Color,
  DecrementWrapStencilOp,
  DoubleSide,
  EdgesGeometry,
  FrontSide,
  IncrementWrapStencilOp,
  NotEqualStencilFunc,
  type PerspectiveCamera,
  Plane,
  Quaternion,
  ReplaceStencilOp,
  Vector3,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { ModelReport } from '../schema/types';
import { type Assembly, assemble } from './assemble';
import type { Surface } from './surface';
import { fibres, grain, shade } from './textures';
import { LIT_FROM, SEEN_FROM } from './view';

export type Axis = 'x' | 'y' | 'z';

/** What can be done with the scene from outside. */
export interface SceneHandle {
  /** Turns the view by angles (radians) and brings it nearer by a factor. */
  turn: (across: number, up: number, nearer: number) => void;
  /** The picture at twice the size of the screen. */
  picture: () => Promise<Blob | null>;
}

interface Props {
  model: ModelReport;
  selected: string;
  /** Where it is cut: nothing of it, or up to all, taken away from the left, the top or the front. */
  cut: { axis: Axis; share: number };
  /** How far it is drawn apart, 0 to 1. */
  exploded: number;
  /** Whether something of a known size stands beside it. */
  scale: boolean;
  handle: RefObject<SceneHandle | null>;
  onSelect: (part: string) => void;
  onPoint: (part: string | null) => void;
}

/** From where it is cut: the kept half lies on the plane's positive side. */
const KEPT: Record<Axis, Vector3> = {
  x: new Vector3(1, 0, 0),
  y: new Vector3(0, -1, 0),
  z: new Vector3(0, 0, -1),
};

function planeOf({ low, high }: Assembly, { axis, share }: Props['cut']): Plane {
  const normal = KEPT[axis];
  const [from, to] = normal[axis] > 0 ? [low[axis], high[axis]] : [high[axis], low[axis]];
  const at = from + (to - from) * share - normal[axis] * 1e-4;
  return new Plane(normal.clone(), -normal[axis] * at);
}

/** Colours of the page as it looks now. */
function inksNow() {
  const style = getComputedStyle(document.documentElement);
  const ink = (name: string) => style.getPropertyValue(`--${name}`).trim() || '#888';
  return { edge: ink('soft'), air: ink('river'), chosen: ink('oak') };
}

function useInk() {
  const [inks, setInks] = useState(inksNow);
  useEffect(() => {
    const watch = new MutationObserver(() => setInks(inksNow()));
    watch.observe(document.documentElement, { attributes: true });
    return () => watch.disconnect();
  }, []);
  return inks;
}

/** The box as one would want to build it. Drawn anew only when something changes. */
export function BoxScene(props: Props) {
  return (
    <Canvas
      frameloop="demand"
      dpr={[1, 2]}
      gl={{ antialias: true, alpha: true, stencil: true, powerPreference: 'low-power' }}
      camera={{ fov: 32, near: 0.01, far: 100 }}
      onCreated={({ gl }) => {
        gl.localClippingEnabled = true;
      }}
    >
      <hemisphereLight args={['#fffaf0', '#8a7a62', 1.5]} />
      <directionalLight position={LIT_FROM} intensity={2.1} />
      <directionalLight position={[3, 1.5, -2]} intensity={0.5} />
      <Contents {...props} />
    </Canvas>
  );
}

function Contents({ model, selected, cut, exploded, scale, handle, onSelect, onPoint }: Props) {
  const ink = useInk();
  const made = useMemo(() => assemble(model, exploded), [model, exploded]);
  const plane = useMemo(() => planeOf(made, cut), [made, cut]);
  const planes = useMemo(() => (cut.share > 0 ? [plane] : []), [plane, cut.share]);
  useView(made, handle);
  const invalidate = useThree((state) => state.invalidate);
  // biome-ignore lint/correctness/useExhaustiveDependencies: all of these change the picture
  useEffect(() => invalidate(), [made, planes, selected, ink, scale, invalidate]);
  const wood = useMemo(() => grain(), []);
  useEffect(() => () => wood.dispose(), [wood]);
  const wool = useMemo(() => fibres(), []);
  const cutWool = useMemo(() => {
    const texture = wool.clone();
    texture.repeat.multiplyScalar(capOf(made));
    return texture;
  }, [wool, made]);
  useEffect(() => () => wool.dispose(), [wool]);
  useEffect(() => () => cutWool.dispose(), [cutWool]);
  const kept = ({ point }: ThreeEvent<MouseEvent>, whole: boolean) =>
    whole || !planes.length || plane.distanceToPoint(point) > 0;
  /** What is pointed at, behind what was cut away. */
  const part = (event: ThreeEvent<MouseEvent>) => {
    for (const hit of event.intersections) {
      const { surface, whole } = hit.object.userData as { surface?: Surface; whole?: boolean };
      if (surface && kept({ ...event, point: hit.point }, whole === true))
        return surface.nameAt(hit.faceIndex ?? 0);
    }
    return null;
  };
  const hears = {
    onClick: (event: ThreeEvent<MouseEvent>) => {
      event.stopPropagation();
      const name = event.delta < 4 ? part(event) : null;
      if (name) onSelect(name);
    },
    onPointerMove: (event: ThreeEvent<PointerEvent>) => {
      event.stopPropagation();
      onPoint(part(event));
    },
    onPointerOut: () => onPoint(null),
  };
  return (
    <>
      <group {...hears}>
        <Solid surface={made.wood}>
          <meshStandardMaterial map={wood} roughness={0.75} clippingPlanes={planes} side={DoubleSide} />
        </Solid>
        <Solid surface={made.tubes}>
          <meshStandardMaterial color="#3c4146" roughness={0.55} clippingPlanes={planes} side={DoubleSide} />
        </Solid>
        {/* After the fill, which hides no cone. */}
        <Solid surface={made.moving} whole order={0.5}>
          <meshStandardMaterial vertexColors transparent roughness={0.6} metalness={0.15} side={DoubleSide} />
        </Solid>
        <Solid surface={made.air}>
          <meshStandardMaterial
            color={ink.air}
            transparent
            opacity={0.45}
            roughness={1}
            clippingPlanes={planes}
            side={DoubleSide}
            depthWrite={false}
          />
        </Solid>
        <Solid surface={made.fill}>
          <meshStandardMaterial
            map={wool}
            transparent
            opacity={0.8}
            roughness={1}
            clippingPlanes={planes}
            side={DoubleSide}
            depthWrite={false}
          />
        </Solid>
      </group>
      <Edges surface={made.wood} planes={planes} colour={ink.edge} />
      {planes.length > 0 && (
        <>
          <Cap surface={made.fill} plane={plane} made={made} first={1}>
            <meshStandardMaterial {...COUNTED} map={cutWool} roughness={1} opacity={0.72} />
          </Cap>
          <Cap surface={made.wood} plane={plane} made={made} first={2}>
            <meshStandardMaterial {...COUNTED} color="#c79b62" roughness={0.95} />
          </Cap>
        </>
      )}
      <Chosen made={made} name={selected} planes={planes} colour={ink.chosen} />
      {scale && (
        <Solid surface={made.figure} whole>
          <meshStandardMaterial vertexColors roughness={0.8} />
        </Solid>
      )}
      <Shadow made={made} />
    </>
  );
}

function useGeometry(surface: Surface): BufferGeometry {
  const geometry = useMemo(() => surface.geometry(), [surface]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return geometry;
}

interface SolidProps {
  surface: Surface;
  /** Whether the cut goes round it. */
  whole?: boolean;
  /** When it is drawn among what is transparent. */
  order?: number;
  children: ReactNode;
}

function Solid({ surface, whole = false, order = 0, children }: SolidProps) {
  const geometry = useGeometry(surface);
  if (!surface.count) return null;
  return (
    <mesh geometry={geometry} renderOrder={order} userData={{ surface, whole }}>
      {children}
    </mesh>
  );
}

function Edges({ surface, planes, colour }: { surface: Surface; planes: Plane[]; colour: string }) {
  const whole = useGeometry(surface);
  const geometry = useMemo(() => new EdgesGeometry(whole, 24), [whole]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <lineSegments geometry={geometry} raycast={() => null}>
      <lineBasicMaterial color={colour} clippingPlanes={planes} transparent opacity={0.55} />
    </lineSegments>
  );
}

/** Side of the plane that a cut is painted on, m. */
const capOf = ({ low, high }: Assembly) => 3 * high.distanceTo(low);

interface CapProps {
  surface: Surface;
  plane: Plane;
  made: Assembly;
  /** When it is drawn: one cap after the other, as all count in the same place. */
  first: number;
  /** What it is of. */
  children: ReactNode;
}

/** Paints only where something was counted, and leaves nothing behind for the next. */
const COUNTED = {
  // Among what is transparent, so that one cap is finished before the next is counted.
  transparent: true,
  stencilWrite: true,
  stencilRef: 0,
  stencilFunc: NotEqualStencilFunc,
  stencilFail: ReplaceStencilOp,
  stencilZFail: ReplaceStencilOp,
  stencilZPass: ReplaceStencilOp,
} as const;

/** The face that a cut leaves: where more surfaces face away than towards us, something is behind the plane. */
function Cap({ surface, plane, made, first, children }: CapProps) {
  const geometry = useGeometry(surface);
  const [place, turned] = useMemo(() => {
    const middle = made.low.clone().add(made.high).multiplyScalar(0.5);
    const at = plane.projectPoint(middle, new Vector3()).addScaledVector(plane.normal, 1e-5);
    // The face looks to where the wood was taken away.
    const towards = plane.normal.clone().negate();
    return [at, new Quaternion().setFromUnitVectors(new Vector3(0, 0, 1), towards)] as const;
  }, [made, plane]);
  const size = capOf(made);
  const counted = {
    transparent: true,
    depthWrite: false,
    depthTest: false,
    colorWrite: false,
    stencilWrite: true,
    stencilFunc: AlwaysStencilFunc,
    clippingPlanes: [plane],
  } as const;
  const ops = (op: typeof IncrementWrapStencilOp | typeof DecrementWrapStencilOp) => ({
    stencilFail: op,
    stencilZFail: op,
    stencilZPass: op,
  });
  if (!surface.count) return null;
  return (
    <>
      <mesh geometry={geometry} renderOrder={first} raycast={() => null}>
        <meshBasicMaterial {...counted} side={BackSide} {...ops(IncrementWrapStencilOp)} />
      </mesh>
      <mesh geometry={geometry} renderOrder={first} raycast={() => null}>
        <meshBasicMaterial {...counted} side={FrontSide} {...ops(DecrementWrapStencilOp)} />
      </mesh>
      <mesh
        position={place}
        quaternion={turned}
        renderOrder={first + 0.1}
        raycast={() => null}
        onAfterRender={(renderer) => renderer.clearStencil()}
      >
        <planeGeometry args={[size, size]} />
        {children}
      </mesh>
    </>
  );
}

/** The part that is chosen, in the colour of what is worked on. */
function Chosen({
  made,
  name,
  planes,
  colour,
}: {
  made: Assembly;
  name: string;
  planes: Plane[];
  colour: string;
}) {
  const found = useMemo(
    () =>
      [made.wood, made.tubes, made.moving, made.air, made.fill].flatMap((surface) => {
        const geometry = name ? surface.geometryOf(name) : null;
        return geometry ? [{ geometry, whole: surface === made.moving }] : [];
      })[0] ?? null,
    [made, name],
  );
  useEffect(() => () => found?.geometry.dispose(), [found]);
  if (!found) return null;
  return (
    <mesh geometry={found.geometry} raycast={() => null}>
      <meshStandardMaterial
        color={new Color(colour)}
        transparent
        opacity={0.62}
        roughness={0.7}
        side={DoubleSide}
        clippingPlanes={found.whole ? [] : planes}
        polygonOffset
        polygonOffsetFactor={-2}
        polygonOffsetUnits={-2}
      />
    </mesh>
  );
}

function Shadow({ made: { low, high } }: { made: Assembly }) {
  const texture = useMemo(() => shade(), []);
  useEffect(() => () => texture.dispose(), [texture]);
  const [width, depth] = [high.x - low.x, high.z - low.z];
  return (
    <mesh
      position={[(low.x + high.x) / 2, low.y - 0.002, (low.z + high.z) / 2]}
      rotation={[-Math.PI / 2, 0, 0]}
      raycast={() => null}
    >
      <planeGeometry args={[1.9 * width, 1.9 * depth]} />
      <meshBasicMaterial map={texture} transparent depthWrite={false} />
    </mesh>
  );
}

/** Looks at the box from the left, in front and above, as large as the stage holds it, until it is turned. */
function useView(made: Assembly, handle: RefObject<SceneHandle | null>): void {
  const { camera, gl, scene, size, invalidate } = useThree();
  const controls = useRef<OrbitControls | null>(null);
  const turned = useRef(false);
  useEffect(() => {
    const made = new OrbitControls(camera, gl.domElement);
    made.enablePan = false;
    made.addEventListener('change', () => invalidate());
    made.addEventListener('start', () => {
      turned.current = true;
    });
    controls.current = made;
    return () => made.dispose();
  }, [camera, gl, invalidate]);
  useEffect(() => {
    const orbit = controls.current;
    if (!orbit) return;
    const { low, high } = made;
    orbit.target.copy(low).add(high).multiplyScalar(0.5);
    const radius = high.clone().sub(low).length() / 2;
    orbit.minDistance = radius * 0.6;
    orbit.maxDistance = radius * 12;
    if (!turned.current) {
      const { fov } = camera as PerspectiveCamera;
      const narrow = Math.min(1, size.width / Math.max(1, size.height));
      const distance = (radius * 1.12) / (Math.sin((fov * Math.PI) / 360) * narrow);
      camera.position.copy(orbit.target).add(new Vector3(...SEEN_FROM).setLength(distance));
    }
    orbit.update();
    invalidate();
  }, [made, camera, size, invalidate]);
  useImperativeHandle(handle, () => ({
    turn(across, up, nearer) {
      const orbit = controls.current;
      if (!orbit) return;
      turned.current = true;
      const from = camera.position.clone().sub(orbit.target);
      const radius = from.length() * nearer;
      const azimuth = Math.atan2(from.x, from.z) + across;
      const polar = Math.min(Math.PI - 0.05, Math.max(0.05, Math.acos(from.y / from.length()) + up));
      camera.position.setFromSphericalCoords(radius, polar, azimuth).add(orbit.target);
      orbit.update();
      invalidate();
    },
    picture() {
      const before = gl.getPixelRatio();
      gl.setPixelRatio(2);
      gl.render(scene, camera);
      return new Promise((resolve) => {
        gl.domElement.toBlob((blob) => {
          gl.setPixelRatio(before);
          invalidate();
          resolve(blob);
        }, 'image/png');
      });
    },
  }));
}

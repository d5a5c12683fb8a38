// The box in three dimensions. All geometry comes from the core; here it is only shown.

import {
  AmbientLight,
  BufferGeometry,
  Color,
  CylinderGeometry,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  type Material,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  type Object3D,
  PerspectiveCamera,
  Plane,
  Raycaster,
  Scene,
  ShapeUtils,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { ModelReport } from '../../api/types';

type Point = readonly number[];
type Piece = ModelReport['parts'][number]['pieces'][number];

const vector = ([x = 0, y = 0, z = 0]: Point) => new Vector3(x, y, z);

/** Triangles of a flat polygon, as positions of its corners. */
export function triangles(corners: readonly Point[]): number[][] {
  const points = corners.map(vector);
  const [origin, next] = points;
  if (!origin || !next || points.length < 3) return [];
  const normal = new Vector3();
  points.forEach((point, at) => {
    normal.add(new Vector3().crossVectors(point, points[(at + 1) % points.length] ?? origin));
  });
  normal.normalize();
  const u = next.clone().sub(origin).normalize();
  const v = new Vector3().crossVectors(normal, u);
  const flat = points.map((point) => {
    const from = point.clone().sub(origin);
    return new Vector2(from.dot(u), from.dot(v));
  });
  return ShapeUtils.triangulateShape(flat, []);
}

/** A body between two outlines of as many corners. */
export function between(near: readonly Point[], far: readonly Point[]): BufferGeometry {
  const positions = [...near, ...far].flatMap(([x = 0, y = 0, z = 0]) => [x, y, z]);
  const count = near.length;
  const indices = [
    ...triangles(near).flat(),
    ...triangles(far).flatMap(([a = 0, b = 0, c = 0]) => [count + a, count + c, count + b]),
    ...near.flatMap((_, at) => {
      const next = (at + 1) % count;
      return [at, count + at, next, next, count + at, count + next];
    }),
  ];
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new Float32BufferAttribute(positions, 3));
  geometry.setIndex(indices);
  const flat = geometry.toNonIndexed();
  flat.computeVertexNormals();
  return flat;
}

function geometryOf(piece: Piece): BufferGeometry {
  if (piece.shape === 'prism') return between(piece.near, piece.far);
  if (piece.shape === 'block') {
    const [low, high] = [vector(piece.low), vector(piece.high)];
    const corners = (x: number) => [
      [x, low.y, low.z],
      [x, high.y, low.z],
      [x, high.y, high.z],
      [x, low.y, high.z],
    ];
    return between(corners(low.x), corners(high.x));
  }
  const [from, to] = [vector(piece.from), vector(piece.to)];
  const way = to.clone().sub(from);
  const geometry = new CylinderGeometry(piece.radii[1], piece.radii[0], way.length(), 40);
  geometry.applyQuaternion(new Mesh().quaternion.setFromUnitVectors(new Vector3(0, 1, 0), way.normalize()));
  const middle = from.add(to).multiplyScalar(0.5);
  return geometry.translate(middle.x, middle.y, middle.z);
}

/** Colours of the page as it looks now. */
function inks() {
  const style = getComputedStyle(document.documentElement);
  const ink = (name: string) => new Color(style.getPropertyValue(`--${name}`).trim() || '#888');
  return {
    wood: ink('rule'),
    core: ink('rule-line'),
    edge: ink('soft'),
    metal: ink('cone'),
    air: ink('river'),
    chosen: ink('oak'),
  };
}

/** A scene in an element of the page, drawn anew whenever something in it changes. */
export class Stage {
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly camera = new PerspectiveCamera(34, 1, 0.01, 100);
  private readonly controls: OrbitControls;
  private readonly plane = new Plane(new Vector3(1, 0, 0), 0);
  private readonly watch: ResizeObserver;
  private readonly theme: MutationObserver;
  private ink = inks();
  private box = new Group();
  private model: ModelReport | null = null;
  private cut = 0.5;
  private chosen = '';
  private down: { x: number; y: number } | null = null;
  private frame = 0;

  constructor(
    private readonly place: HTMLElement,
    private readonly onSelect: (part: string) => void,
  ) {
    this.renderer = new WebGLRenderer({ antialias: true, alpha: true });
    this.renderer.localClippingEnabled = true;
    const canvas = this.renderer.domElement;
    place.append(canvas);
    const light = new DirectionalLight(0xffffff, 1.8);
    light.position.set(-2, 4, 3);
    this.scene.add(new AmbientLight(0xffffff, 1.9), light, this.box);
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enablePan = false;
    this.controls.addEventListener('change', () => this.draw());
    canvas.addEventListener('pointerdown', this.onDown);
    canvas.addEventListener('pointerup', this.onUp);
    this.watch = new ResizeObserver(() => this.fit());
    this.watch.observe(place);
    this.theme = new MutationObserver(() => this.rebuild());
    this.theme.observe(document.documentElement, { attributes: true });
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    this.watch.disconnect();
    this.theme.disconnect();
    this.controls.dispose();
    this.empty();
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }

  show(model: ModelReport): void {
    const first = this.model === null;
    this.model = model;
    this.rebuild();
    const [low, high] = model.bounds.map(vector);
    if (!low || !high) return;
    const size = high.clone().sub(low).length();
    this.controls.target.copy(low.add(high).multiplyScalar(0.5));
    if (first) {
      // From the left, in front and above.
      const from = new Vector3(-1.15, 0.75, 1.35).normalize().multiplyScalar(size * 1.75);
      this.camera.position.copy(this.controls.target).add(from);
    }
    this.controls.minDistance = size * 0.4;
    this.controls.maxDistance = size * 6;
    this.controls.update();
    this.draw();
  }

  /** Takes the boards away from the left up to a share of the width. */
  cutAt(part: number): void {
    this.cut = part;
    const [low = [], high = []] = this.model?.bounds ?? [];
    const [left = 0, right = 0] = [low[0], high[0]];
    this.plane.constant = -(left - 1e-3 + part * (right - left));
    this.draw();
  }

  mark(part: string): void {
    this.chosen = part;
    this.rebuild();
  }

  turn(across: number, up: number, nearer: number): void {
    const from = this.camera.position.clone().sub(this.controls.target);
    const radius = from.length() * nearer;
    const azimuth = Math.atan2(from.x, from.z) + across;
    const polar = Math.min(Math.PI - 0.05, Math.max(0.05, Math.acos(from.y / from.length()) + up));
    this.camera.position.setFromSphericalCoords(radius, polar, azimuth).add(this.controls.target);
    this.controls.update();
    this.draw();
  }

  private readonly onDown = (event: PointerEvent) => {
    this.down = { x: event.clientX, y: event.clientY };
  };

  private readonly onUp = (event: PointerEvent) => {
    const moved = this.down && Math.hypot(event.clientX - this.down.x, event.clientY - this.down.y);
    if (moved === null || moved > 4) return;
    const box = this.renderer.domElement.getBoundingClientRect();
    const at = new Vector2(
      ((event.clientX - box.left) / box.width) * 2 - 1,
      1 - ((event.clientY - box.top) / box.height) * 2,
    );
    const ray = new Raycaster();
    ray.setFromCamera(at, this.camera);
    const hit = ray
      .intersectObject(this.box, true)
      .find(
        ({ object, point }) => object.name && (!object.userData.cut || this.plane.distanceToPoint(point) > 0),
      );
    if (hit) this.onSelect(hit.object.name);
  };

  private empty(): void {
    this.box.traverse((one: Object3D) => {
      if (one instanceof Mesh || one instanceof LineSegments) {
        one.geometry.dispose();
        for (const material of [one.material].flat() as Material[]) material.dispose();
      }
    });
    this.scene.remove(this.box);
  }

  private rebuild(): void {
    const { model } = this;
    if (!model) return;
    this.empty();
    this.box = new Group();
    this.scene.add(this.box);
    this.ink = inks();
    const { ink } = this;
    for (const { face, outer, inner } of model.panels) {
      this.solid(between(outer, inner), `board ${face}`, ink.wood, true);
    }
    for (const { name, pieces, mouth, normal, size, round } of model.parts) {
      const panel = /^(brace|partition|fold board|closing board)/.test(name);
      const port = /port/.test(name);
      // The cut goes round what moves.
      const whole = name === 'driver' || name === 'radiator';
      const colour = panel ? ink.wood : port ? ink.air : ink.metal;
      for (const piece of pieces) this.solid(geometryOf(piece), name, colour, !whole);
      if (mouth)
        this.opening(
          vector(mouth),
          vector(normal),
          size,
          round,
          name,
          port || name === 'mouth' ? ink.air : ink.core,
          !whole,
        );
    }
    this.cutAt(this.cut);
  }

  private solid(geometry: BufferGeometry, name: string, colour: Color, cut: boolean): void {
    const { ink } = this;
    const shown = name === this.chosen ? ink.chosen : colour;
    const clippingPlanes = cut ? [this.plane] : [];
    const outside = new Mesh(
      geometry,
      // Edges lie on the surface, so that goes a little back.
      new MeshLambertMaterial({
        color: shown,
        clippingPlanes,
        side: DoubleSide,
        polygonOffset: true,
        polygonOffsetFactor: 1,
        polygonOffsetUnits: 1,
      }),
    );
    outside.name = name;
    outside.userData.cut = cut;
    const lines = new LineSegments(
      new EdgesGeometry(geometry, 20),
      new LineBasicMaterial({ color: ink.edge, clippingPlanes }),
    );
    this.box.add(outside, lines);
  }

  /** What moves air where it meets the open: a disc or a plate just before its board. */
  private opening(
    at: Vector3,
    normal: Vector3,
    [width = 0, height = 0]: readonly number[],
    round: boolean,
    name: string,
    colour: Color,
    cut: boolean,
  ): void {
    const deep = 0.004;
    const shape = round
      ? new CylinderGeometry(width / 2, width / 2, deep, 48)
      : between(
          [
            [-width / 2, -deep / 2, -height / 2],
            [width / 2, -deep / 2, -height / 2],
            [width / 2, -deep / 2, height / 2],
            [-width / 2, -deep / 2, height / 2],
          ],
          [
            [-width / 2, deep / 2, -height / 2],
            [width / 2, deep / 2, -height / 2],
            [width / 2, deep / 2, height / 2],
            [-width / 2, deep / 2, height / 2],
          ],
        );
    const shown = name === this.chosen ? this.ink.chosen : colour;
    const mesh = new Mesh(
      shape,
      new MeshBasicMaterial({ color: shown, clippingPlanes: cut ? [this.plane] : [] }),
    );
    mesh.name = name;
    mesh.userData.cut = cut;
    mesh.quaternion.setFromUnitVectors(new Vector3(0, 1, 0), normal.clone().normalize());
    mesh.position.copy(at).addScaledVector(normal, deep / 2);
    this.box.add(mesh);
  }

  private fit(): void {
    const { clientWidth: width, clientHeight: height } = this.place;
    if (!width || !height) return;
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
    this.renderer.setSize(width, height);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** Once a frame, however much changed in it. */
  private draw(): void {
    if (this.frame) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.renderer.render(this.scene, this.camera);
    });
  }
}

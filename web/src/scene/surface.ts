// Surfaces of triangles that grow piece by piece, so that a whole box is a few things to draw.

import { BufferGeometry, Color, Float32BufferAttribute, ShapeUtils, Vector2, Vector3 } from 'three';

export type Point = readonly number[];

export const vector = ([x = 0, y = 0, z = 0]: Point) => new Vector3(x, y, z);

/** Square to a flat outline, towards who sees its corners go round counter-clockwise. */
export function normalOf(corners: readonly Vector3[]): Vector3 {
  const normal = new Vector3();
  corners.forEach((corner, at) => {
    normal.add(new Vector3().crossVectors(corner, corners[(at + 1) % corners.length] ?? corner));
  });
  return normal.normalize();
}

/** Two directions along a flat outline, the first along its first side. */
export function axesOf(corners: readonly Vector3[]): [Vector3, Vector3] {
  const [origin = new Vector3(), next = new Vector3(1, 0, 0)] = corners;
  const along = next.clone().sub(origin).normalize();
  return [along, new Vector3().crossVectors(normalOf(corners), along)];
}

/** A triangle of each part ends before this one. */
interface Range {
  name: string;
  end: number;
}

export class Surface {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly uvs: number[] = [];
  private readonly colours: number[] = [];
  private readonly ranges: Range[] = [];
  private colour = new Color('#ffffff');

  /** The colour of what is added from now on. */
  paint(colour: string): void {
    this.colour = new Color(colour);
  }

  /** All that was added since the part before belongs to this one. */
  close(name: string): void {
    this.ranges.push({ name, end: this.count });
  }

  /** How many triangles there are. */
  get count(): number {
    return this.positions.length / 9;
  }

  /** The part that a triangle belongs to. */
  nameAt(triangle: number): string {
    return this.ranges.find(({ end }) => triangle < end)?.name ?? '';
  }

  /** A triangle with the normals of its corners; flat where none are given. Grain runs along `axes`. */
  triangle(corners: [Vector3, Vector3, Vector3], normals?: Vector3[], axes?: [Vector3, Vector3]): void {
    const flat = normals ? null : normalOf(corners);
    corners.forEach((corner, at) => {
      this.positions.push(corner.x, corner.y, corner.z);
      const normal = normals?.[at] ?? flat ?? corner;
      this.normals.push(normal.x, normal.y, normal.z);
      this.uvs.push(axes ? corner.dot(axes[0]) : 0, axes ? corner.dot(axes[1]) : 0);
      this.colours.push(this.colour.r, this.colour.g, this.colour.b);
    });
  }

  /** A flat piece with four corners, counter-clockwise as seen from outside. */
  quad(a: Vector3, b: Vector3, c: Vector3, d: Vector3, axes?: [Vector3, Vector3]): void {
    this.triangle([a, b, c], undefined, axes);
    this.triangle([a, c, d], undefined, axes);
  }

  /** A flat outline with holes, seen from where its corners go round counter-clockwise. */
  polygon(corners: readonly Vector3[], holes: readonly (readonly Vector3[])[], axes = axesOf(corners)): void {
    if (corners.length < 3) return;
    const normal = normalOf(corners);
    const [u, v] = axesOf(corners);
    const flat = (point: Vector3) => new Vector2(point.dot(u), point.dot(v));
    const all = [...corners, ...holes.flat()];
    const faces = ShapeUtils.triangulateShape(
      corners.map(flat),
      holes.map((hole) => hole.map(flat)),
    );
    for (const face of faces) {
      const [a, b, c] = face.map((at) => all[at]) as [Vector3, Vector3, Vector3];
      const turned = normalOf([a, b, c]).dot(normal) < 0;
      this.triangle(turned ? [a, c, b] : [a, b, c], undefined, axes);
    }
  }

  /** Its triangles as they lie, with the colour of each. */
  *triangles(): Generator<{ corners: [Vector3, Vector3, Vector3]; colour: Color }> {
    for (let at = 0; at < this.positions.length; at += 9) {
      const corner = (k: number) => new Vector3().fromArray(this.positions, at + 3 * k);
      yield { corners: [corner(0), corner(1), corner(2)], colour: new Color().fromArray(this.colours, at) };
    }
  }

  geometry(): BufferGeometry {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new Float32BufferAttribute(this.positions, 3));
    geometry.setAttribute('normal', new Float32BufferAttribute(this.normals, 3));
    geometry.setAttribute('uv', new Float32BufferAttribute(this.uvs, 2));
    geometry.setAttribute('color', new Float32BufferAttribute(this.colours, 3));
    return geometry;
  }

  /** The triangles of one part alone. */
  geometryOf(name: string): BufferGeometry | null {
    const geometry = new BufferGeometry();
    const positions: number[] = [];
    const normals: number[] = [];
    let begin = 0;
    for (const range of this.ranges) {
      if (range.name === name) {
        positions.push(...this.positions.slice(begin * 9, range.end * 9));
        normals.push(...this.normals.slice(begin * 9, range.end * 9));
      }
      begin = range.end;
    }
    if (!positions.length) return null;
    geometry.setAttribute('position', new Float32BufferAttribute(positions, 3));
    geometry.setAttribute('normal', new Float32BufferAttribute(normals, 3));
    return geometry;
  }
}

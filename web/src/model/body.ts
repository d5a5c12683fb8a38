// Changes to the box of a design. Nothing is computed here.

import type { RawBody, RawBrace, RawDesign, RawFace, RawFold, RawPortBuild, Typed } from '../schema/types';
import { withBranch } from './design';

/** The box as written; an empty one where there is none. */
export function bodyOf({ body }: RawDesign): RawBody {
  return body ?? {};
}

/** Other values of the box; those that are null or an empty list are left out of the file. */
export function withBody(design: RawDesign, change: Partial<RawBody>): RawDesign {
  const merged = { ...bodyOf(design), ...change };
  const kept = Object.entries(merged).filter(
    ([, value]) => value !== null && value !== undefined && !(Array.isArray(value) && value.length === 0),
  );
  if (!kept.length) return withBranch(design, 'body', null);
  return { ...design, body: Object.fromEntries(kept) as RawBody };
}

/** The board of a face where it differs from the others. */
export function panelAt(design: RawDesign, face: RawFace) {
  const at = (bodyOf(design).panels ?? []).findIndex((panel) => panel.face === face);
  return { at, panel: bodyOf(design).panels?.[at] };
}

/** A face of so many layers. */
export function withLayers(design: RawDesign, face: RawFace, layers: number): RawDesign {
  const panels = bodyOf(design).panels ?? [];
  const { at, panel } = panelAt(design, face);
  const next = { ...(panel ?? { face }), layers: layers > 1 ? layers : null };
  const plain = next.layers === null && !next.thickness && !next.inset && !next.material;
  const others = panels.filter((_, index) => index !== at);
  return withBody(design, { panels: plain ? others : [...others, next] });
}

/** How a port is built, whether or not anything was written of it. */
export function portBuildAt(design: RawDesign, list: 'ports' | 'front_ports', at: number): RawPortBuild {
  return bodyOf(design)[list]?.[at] ?? {};
}

export function withPortBuild(
  design: RawDesign,
  list: 'ports' | 'front_ports',
  at: number,
  change: RawPortBuild,
): RawDesign {
  const builds = [...(bodyOf(design)[list] ?? [])];
  while (builds.length <= at) builds.push({});
  const merged = Object.entries({ ...builds[at], ...change }).filter(([, value]) => value != null);
  builds[at] = Object.fromEntries(merged);
  return withBody(design, { [list]: builds });
}

type Change<T> = { [Key in keyof T]?: T[Key] | null };

/** Other values of how a way is folded. */
export function withFold(design: RawDesign, change: Change<RawFold>): RawDesign {
  const merged = { ...bodyOf(design).fold, ...change };
  const kept = Object.entries(merged).filter(
    ([, value]) => value != null && !(Array.isArray(value) && value.length === 0),
  );
  return withBody(design, { fold: kept.length ? (Object.fromEntries(kept) as RawFold) : null });
}

export function withBrace(design: RawDesign, brace: RawBrace): RawDesign {
  return withBody(design, { braces: [...(bodyOf(design).braces ?? []), brace] });
}

/** A list of the box without one entry. */
export function without(design: RawDesign, list: 'braces' | 'items' | 'fills', at: number): RawDesign {
  const left = (bodyOf(design)[list] as unknown[] | undefined)?.filter((_, index) => index !== at) ?? [];
  return withBody(design, { [list]: left });
}

export const SHAPES = [
  ['box', 'Box'],
  ['wedge', 'Wedge'],
  ['step', 'Box with a step'],
  ['rounded', 'Round edges'],
  ['prism', 'Prism'],
  ['pipe', 'Standing pipe'],
  ['lying_pipe', 'Lying pipe'],
  ['pyramid', 'Pyramid'],
] as const satisfies readonly (readonly [NonNullable<RawBody['shape']>, string])[];

export const RATIOS = [
  ['cube_root', '1 : 1.26 : 0.79'],
  ['square_root', '1 : 1.41 : 0.71'],
  ['golden', '1 : 1.62 : 0.62'],
  ['tower', '1 : 2.2 : 1.1, tall'],
  ['low', '1.5 : 0.6 : 1, low'],
  ['cube', '1 : 1 : 1, a cube'],
] as const satisfies readonly (readonly [NonNullable<RawBody['ratio']>, string])[];

export const MATERIALS = [
  ['mdf', 'MDF'],
  ['birch_ply', 'Birch plywood'],
  ['poplar_ply', 'Light plywood'],
  ['pine_ply', 'Pine plywood'],
  ['particle_board', 'Particle board'],
  ['hardwood', 'Hardwood'],
  ['pvc', 'PVC pipe'],
  ['acrylic', 'Acrylic'],
  ['aluminium', 'Aluminium'],
] as const satisfies readonly (readonly [NonNullable<RawBody['material']>, string])[];

export const FACES = [
  ['front', 'Front'],
  ['back', 'Back'],
  ['left', 'Left'],
  ['right', 'Right'],
  ['top', 'Top'],
  ['bottom', 'Bottom'],
] as const satisfies readonly (readonly [RawFace, string])[];

/** What a shape needs besides width, height and depth, with what to begin with over those. */
export function shapeRows(
  shape: RawBody['shape'],
): { name: string; key: keyof RawBody; optional: boolean }[] {
  switch (shape) {
    case 'wedge':
      return [
        { name: 'Depth at the top', key: 'top_depth', optional: true },
        { name: 'Height at the back', key: 'back_height', optional: true },
        { name: 'Front leans back', key: 'lean', optional: true },
      ];
    case 'pyramid':
      return [
        { name: 'Width at the top', key: 'top_width', optional: false },
        { name: 'Depth at the top', key: 'top_depth', optional: false },
      ];
    case 'prism':
      return [{ name: 'Sides', key: 'sides', optional: true }];
    case 'rounded':
      return [{ name: 'Radius', key: 'radius', optional: false }];
    case 'step':
      return [
        { name: 'Step, from the top', key: 'step_height', optional: false },
        { name: 'Step, from the back', key: 'step_depth', optional: false },
      ];
    default:
      return [];
  }
}

/** Another shape, with what it cannot do without. */
export function withShape(
  design: RawDesign,
  shape: NonNullable<RawBody['shape']>,
  topDepth?: Typed | null,
): RawDesign {
  const body = bodyOf(design);
  const begun: Partial<RawBody> =
    shape === 'pyramid'
      ? { top_width: body.top_width ?? '200 mm', top_depth: body.top_depth ?? '200 mm' }
      : shape === 'rounded'
        ? { radius: body.radius ?? '30 mm' }
        : shape === 'step'
          ? { step_height: body.step_height ?? '100 mm', step_depth: body.step_depth ?? '100 mm' }
          : shape === 'wedge' && !body.top_depth && !body.back_height
            ? { top_depth: topDepth ?? '200 mm' }
            : {};
  return withBody(design, { ...begun, shape: shape === 'box' ? null : shape } as Partial<RawBody>);
}

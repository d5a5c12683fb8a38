import { describe, expect, it } from 'vitest';
import { siAt, withValue } from '../model/design';
import type { Family } from '../model/families';
import type { RawDesign, Report } from '../schema/types';
import { sealed, slot } from '../testing/nook';
import { report, sealedReport, withFigures } from '../testing/report';
import { layOut } from './layout';
import type { Part, Rect, Scene } from './scene';

type Of<Kind extends Part['kind']> = Extract<Part, { kind: Kind }>;

function parts<Kind extends Part['kind']>(scene: Scene | null, kind: Kind): Of<Kind>[] {
  return (scene?.parts ?? []).filter((part): part is Of<Kind> => part.kind === kind);
}

const sized = (litres: number) => withValue(slot, 'enclosure.volume', `${litres} l`);
/** A report of a design whose sizes follow from its volumes. */
function scene(design: RawDesign, of: Report = report) {
  const volumes = [siAt(design, 'enclosure.volume'), siAt(design, 'enclosure.front.volume')];
  return layOut({ design, report: { ...of, as_built: { ...of.as_built, volumes } } });
}

it('is drawn and called by the volume as built, in the unit that was typed', () => {
  const design = withValue(slot, 'enclosure.volume', '2 cuft');
  const drawn = layOut({ design, report });
  expect(parts(drawn, 'text').map(({ text }) => text)).toContain('1.554 cuft');
});
const box = (drawn: Scene | null) => parts(drawn, 'walls')[0]?.inner[0] as Rect;

const passage = { length: 2.5, volume: 0.1, start: 0.05, end: 0.03, cutoff: null, resonance: 30 };
const wayReport = withFigures({ passage });

function family(family: Family, more: Partial<RawDesign['enclosure']> = {}): RawDesign {
  return { ...slot, enclosure: { ...slot.enclosure, family, ...more } };
}

const way = (end: string) => ({
  passage: {
    segments: [{ length: '2.5 m', start: '500 cm2', end, fill_density: '8 kg/m3' }],
    driver_at: '0.6 m',
  },
});

describe('a box', () => {
  it.each([4, 20, 44, 200])('of %d litres holds the driver in its front', (litres) => {
    const drawn = scene(sized(litres));
    const inner = box(drawn);
    const [driver] = parts(drawn, 'driver');
    if (!driver) throw new Error('no driver');
    expect(inner.height).toBeGreaterThan(driver.frame);
    expect(driver.y - driver.frame / 2).toBeGreaterThan(0);
    expect(driver.y + driver.frame / 2).toBeLessThan(inner.height);
    // Depth times height leaves a width that the driver fits into.
    expect(litres / 1000 / (inner.width * inner.height)).toBeGreaterThan(driver.frame);
  });

  it('folds what is longer than it is deep and nothing else', () => {
    expect(parts(scene(slot), 'port')[0]?.text).toContain('folded');
    const ports = [{ length: 0.12, area: 0.007, pipe_resonance: 900 }];
    expect(parts(scene(slot, withFigures({ ports })), 'port')[0]?.text).toBe('120 mm');
  });

  it('keeps the driver clear of its ports', () => {
    const drawn = scene(slot);
    const [port] = parts(drawn, 'port');
    const [driver] = parts(drawn, 'driver');
    if (!port || !driver) throw new Error('parts are missing');
    expect(driver.y - driver.frame / 2).toBeGreaterThanOrEqual(port.at.y + port.at.height);
  });

  it('shows every port, each leading to its own values', () => {
    const ports = [...(slot.enclosure.ports ?? []), { shape: 'round' as const, diameter: '60 mm' }];
    const two = family('ported', { ports });
    const found = [...report.figures.ports, { length: 0.2, area: 0.0028, pipe_resonance: 700 }];
    const drawn = parts(scene(two, withFigures({ ports: found })), 'port');
    expect(drawn.map((port) => port.target?.path)).toEqual(['enclosure.ports[0]', 'enclosure.ports[1]']);
    expect((drawn[1]?.at.y ?? 0) > (drawn[0]?.at.y ?? 0) + (drawn[0]?.at.height ?? 0)).toBe(true);
  });

  it('has no port when sealed, and is not drawn without a volume', () => {
    expect(parts(scene(sealed, sealedReport), 'port')).toHaveLength(0);
    expect(scene(withValue(slot, 'enclosure.volume', null))).toBeNull();
  });

  it('shows radiators, a vent, and the second driver of a pair', () => {
    const radiator = { area: '346 cm2', mass: '150 g', compliance: '0.5 mm/N' };
    expect(parts(scene(family('passive_radiator', { radiator })), 'radiator')).toHaveLength(1);
    expect(parts(scene(family('aperiodic')), 'vent')).toHaveLength(1);
    const pair = { ...slot, driver_array: { isobaric: { arrangement: 'face_to_face' as const } } };
    expect(parts(scene(pair), 'driver').map((driver) => driver.facing)).toEqual(['left', 'right']);
  });
});

it('two chambers lie side by side with the driver between them', () => {
  const front = { volume: '15 l', tuning: '50 Hz', ports: [{ shape: 'round' as const, diameter: '90 mm' }] };
  for (const kind of ['bandpass4', 'bandpass6_parallel', 'bandpass6_series'] as const) {
    const figures = { rear_ports: kind === 'bandpass4' ? [] : report.figures.ports };
    const drawn = scene(family(kind, { front }), withFigures(figures));
    const rear = box(drawn);
    const [before] = parts(drawn, 'air');
    const [driver] = parts(drawn, 'driver');
    if (!before || !driver) throw new Error('parts are missing');
    expect(rear.width / before.at.width).toBeCloseTo(44 / 15, 6);
    expect(driver.x).toBeCloseTo(before.at.x, 9);
    expect(parts(drawn, 'port')).toHaveLength(kind === 'bandpass4' ? 1 : 2);
  }
});

it.each(['line', 'mass_loaded_line', 'back_horn', 'front_horn', 'tapped_horn', 'slot_flare'] as const)(
  'a %s is drawn unrolled to its length and within its sheet',
  (kind) => {
    const design = family(kind, way(kind.includes('horn') ? '3000 cm2' : '300 cm2'));
    if (kind === 'tapped_horn' && design.enclosure.passage) design.enclosure.passage.front_at = '2.2 m';
    const drawn = scene(design, wayReport);
    const [stretch] = parts(drawn, 'way');
    if (!drawn || !stretch) throw new Error('no way');
    expect(stretch.edge.at(-1)?.[0]).toBeCloseTo(2.5, 9);
    expect(Math.PI * (stretch.edge[0]?.[1] ?? 0) ** 2).toBeCloseTo(0.05, 6);
    expect(stretch.fill).toBe(true);
    expect(parts(drawn, 'driver')[0]?.facing).toBe(
      { front_horn: 'right', back_horn: 'left', slot_flare: 'left' }[kind as string] ?? 'up',
    );
    const { extent } = drawn;
    for (const [x, y] of stretch.edge) {
      expect(x).toBeLessThanOrEqual(extent.x + extent.width);
      expect(y).toBeLessThanOrEqual(extent.y + extent.height);
    }
  },
);

it('baffles are boards: one as high as the way round asks, one without an end', () => {
  const open = scene(family('open_baffle', { baffle_path: '0.8 m' }), sealedReport);
  expect(parts(open, 'board')[0]?.at.height).toBeCloseTo(0.8, 9);
  expect(parts(scene(family('infinite_baffle'), sealedReport), 'driver')).toHaveLength(1);
});

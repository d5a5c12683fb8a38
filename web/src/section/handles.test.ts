import { describe, expect, it } from 'vitest';
import { siAt, withBranch, withValue } from '../model/design';
import type { RawDesign } from '../schema/types';
import { sealed, slot } from '../testing/nook';
import { report, sealedReport, withFigures } from '../testing/report';
import { type Handle, handlesOf } from './handles';
import { layOut } from './layout';

function handles(design: RawDesign, of = report): Handle[] {
  const scene = layOut({ design, report: of });
  return scene ? handlesOf({ design, report: of }, scene) : [];
}

const named = (all: Handle[], id: string): Handle => {
  const handle = all.find((one) => one.id === id);
  if (!handle) throw new Error(`${id} is not among ${all.map((one) => one.id)}`);
  return handle;
};

describe('handles of the drawing', () => {
  it('lengthen a port towards the back of the box, and let go of the tuning', () => {
    const length = named(handles(slot), 'enclosure.ports[0].length');
    const longer = length.pull(-0.02) as RawDesign;
    const before = report.figures.ports[0]?.length ?? 0;
    expect(siAt(longer, 'enclosure.ports[0].length')).toBeCloseTo(before + 0.02, 4);
    expect(longer.enclosure.tuning).toBeUndefined();
    expect(length.pull(before + 1)).toBeNull();
  });

  it('make a box larger by its height, all sides in proportion', () => {
    const volume = named(handles(sealed, sealedReport), 'volume');
    const scene = layOut({ design: sealed, report: sealedReport });
    const height = scene?.extent.height ?? 1;
    const before = sealedReport.as_built.volumes[0] ?? 0;
    expect(siAt(volume.pull(0.1 * height) as RawDesign, 'enclosure.volume')).toBeCloseTo(
      before * 1.1 ** 3,
      5,
    );
  });

  it('move the partition of a bandpass: what one chamber gains the other loses', () => {
    const front = { volume: '20 l', tuning: '50 Hz', ports: slot.enclosure.ports };
    const bandpass = withBranch(
      { ...slot, enclosure: { ...slot.enclosure, family: 'bandpass4' } },
      'enclosure.front',
      front,
    );
    const divided = { ...report, as_built: { ...report.as_built, volumes: [0.044, 0.02] } };
    const moved = named(handles(bandpass, divided), 'partition').pull(0.01) as RawDesign;
    const [rear, before] = [siAt(moved, 'enclosure.volume') ?? 0, siAt(moved, 'enclosure.front.volume') ?? 0];
    expect(rear).toBeGreaterThan(0.044);
    expect(rear + before).toBeCloseTo(0.064, 4);
  });

  it('pull a line longer and its end wider', () => {
    const passage = {
      segments: [{ flare: 'conical' as const, length: '2.5 m', start: '500 cm2', end: '300 cm2' }],
    };
    const line = withBranch({ ...slot, enclosure: { family: 'line' } }, 'enclosure.passage', passage);
    const all = handles(line, withFigures({ passage: { length: 2.5, volume: 0.1, start: 0.05, end: 0.03 } }));
    const longer = named(all, 'enclosure.passage.segments[0].length').pull(0.1) as RawDesign;
    expect(siAt(longer, 'enclosure.passage.segments[0].length')).toBeCloseTo(2.6);
    const wider = named(all, 'enclosure.passage.segments[0].end').pull(0.01) as RawDesign;
    expect(siAt(wider, 'enclosure.passage.segments[0].end')).toBeCloseTo(
      Math.PI * (Math.sqrt(0.03 / Math.PI) + 0.01) ** 2,
      4,
    );
  });

  it('stretch an open baffle by both of its edges', () => {
    const baffle = withValue(
      { ...slot, enclosure: { family: 'open_baffle' } },
      'enclosure.baffle_path',
      '0.8 m',
    );
    expect(
      siAt(named(handles(baffle), 'baffle').pull(0.05) as RawDesign, 'enclosure.baffle_path'),
    ).toBeCloseTo(0.9);
  });
});

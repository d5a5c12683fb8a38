// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { markAt } from '../model/mark';
import { slot } from '../testing/nook';
import { report } from '../testing/report';
import { LANES } from './lane';
import { pictureOf, type Stroke } from './picture';
import { asSvg } from './picture_file';

const { traces } = report;
const shown = [
  { id: 'a', name: 'Slot & <round>', place: 0, mark: markAt(0), report, traces, design: slot },
  { id: 'b', name: 'Other', place: 5, mark: markAt(5), report, traces, design: slot },
];
const lanes = LANES.filter(({ id }) => ['level', 'air', 'impedance'].includes(id));
const whole = [10, 160] as const;
const draw = (span: readonly [number, number] = whole) =>
  pictureOf({
    title: 'Nook',
    shown,
    active: shown[0] as (typeof shown)[0],
    lanes,
    span,
    ranges: {},
    cursor: 41.2,
    peaks: true,
    colour: (name) => name.replace('--', ''),
  });

const texts = (strokes: Stroke[]) => strokes.flatMap((one) => (one.kind === 'text' ? [one.text] : []));

describe('the picture of the lanes', () => {
  it('names the build, the variants, the lanes and where the cursor stands', () => {
    const said = texts(draw().strokes);
    for (const words of [
      'Nook',
      'Slot & <round>',
      'Other',
      'SPL',
      'Impedance',
      'values at 41.2 Hz E1',
      'B0',
      'film effects',
    ]) {
      expect(said).toContain(words);
    }
    expect(said).not.toContain('Group delay');
  });

  it('holds what the lanes hold: limits, thresholds, further lines, peaks and what limits it', () => {
    const said = texts(draw().strokes);
    for (const words of [
      'What limits it',
      'cone travel',
      'maximum clean level',
      '17 straight edge',
      '32.0 Ω · 20 Hz',
    ]) {
      expect(said).toContain(words);
    }
  });

  it('stays within its sheet', () => {
    const { width, height, strokes } = draw();
    const [right, down] = [width, height];
    for (const stroke of strokes) {
      if (stroke.kind === 'text') {
        expect(stroke.x).toBeLessThanOrEqual(right);
        expect(stroke.y).toBeLessThanOrEqual(down);
      } else expect(stroke.d).not.toContain('NaN');
    }
  });

  it('shows only what lies within the span', () => {
    const notes = texts(draw([20, 60]).strokes);
    expect(notes).toContain('E1');
    expect(notes).not.toContain('E2');
  });

  it('is a well-formed file whatever a variant is called', () => {
    const parsed = new DOMParser().parseFromString(asSvg(draw()), 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    expect(parsed.querySelectorAll('text').length).toBeGreaterThan(20);
    expect(parsed.documentElement.textContent).toContain('Slot & <round>');
  });
});

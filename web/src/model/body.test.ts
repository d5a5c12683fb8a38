import { describe, expect, it } from 'vitest';
import type { RawDesign } from '../schema/types';
import {
  bodyOf,
  portBuildAt,
  withBody,
  withBrace,
  withLayers,
  without,
  withPortBuild,
  withShape,
} from './body';

const DESIGN = { name: 'Box', enclosure: { family: 'ported', ports: [{}, {}] } } as unknown as RawDesign;

describe('the box of a design', () => {
  it('is left out of the file again when nothing is said of it', () => {
    const wide = withBody(DESIGN, { width: '400 mm' });
    expect(bodyOf(wide)).toEqual({ width: '400 mm' });
    expect(withBody(wide, { width: null }).body).toBeUndefined();
  });

  it('doubles a board and makes it single again', () => {
    const double = withLayers(DESIGN, 'front', 2);
    expect(bodyOf(double).panels).toEqual([{ face: 'front', layers: 2 }]);
    expect(withLayers(double, 'front', 1).body).toBeUndefined();
  });

  it('keeps what else is said of a board that becomes single', () => {
    const panel = { face: 'front', layers: 2, thickness: '22 mm' } as const;
    const single = withLayers(withBody(DESIGN, { panels: [panel] }), 'front', 1);
    expect(bodyOf(single).panels).toEqual([{ face: 'front', thickness: '22 mm', layers: null }]);
  });

  it('writes of the second port without a word on the first', () => {
    const turned = withPortBuild(DESIGN, 'ports', 1, { turns: 2 });
    expect(bodyOf(turned).ports).toEqual([{}, { turns: 2 }]);
    expect(portBuildAt(turned, 'ports', 0)).toEqual({});
    expect(bodyOf(withPortBuild(turned, 'ports', 1, { turns: null })).ports).toEqual([{}, {}]);
  });

  it('takes a brace in and out', () => {
    const braced = withBrace(withBrace(DESIGN, { along: 'height' }), { along: 'width' });
    expect(bodyOf(without(braced, 'braces', 0)).braces).toEqual([{ along: 'width' }]);
  });

  it('gives a shape what it cannot do without, and keeps what was said', () => {
    expect(bodyOf(withShape(DESIGN, 'step'))).toMatchObject({ shape: 'step', step_height: '100 mm' });
    const round = withShape(withBody(DESIGN, { radius: '50 mm' }), 'rounded');
    expect(bodyOf(round).radius).toBe('50 mm');
    expect(bodyOf(withShape(round, 'box')).shape).toBeUndefined();
  });
});

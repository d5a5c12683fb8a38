// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { CutPanel } from '../../schema/types';
import { PanelDrawing } from './PanelDrawing';

vi.mock('../../ui/size', () => ({ useSize: () => [{ current: null }, { width: 400, height: 300 }] }));

afterEach(cleanup);

const FRONT: CutPanel = {
  number: 3,
  name: 'front',
  count: 2,
  size: [0.4, 0.3],
  thickness: 0.018,
  layer: null,
  outside: true,
  grooves: [],
  stands: [],
  material: 'mdf',
  material_name: 'MDF',
  outer: [
    [0, 0],
    [0.4, 0],
    [0.4, 0.3],
    [0, 0.3],
  ],
  inner: [
    [0.018, 0.018],
    [0.382, 0.018],
    [0.382, 0.282],
    [0.018, 0.282],
  ],
  edges: [
    { meets: 'bottom', joint: 'mitre', joinery: 'butt', dowels: [], bevel: 45 },
    { meets: 'right', joint: 'under', joinery: 'butt', dowels: [], bevel: 0 },
    { meets: 'top', joint: 'mitre', joinery: 'butt', dowels: [], bevel: -12.34 },
    { meets: null, joint: 'free', joinery: 'butt', dowels: [], bevel: 0 },
  ],
  holes: [
    { what: 'driver', kind: 'driver', at: [0.2, 0.15], size: [0.23, 0.23], round: true, depth: null },
    {
      what: 'recess for its frame',
      kind: 'recess',
      at: [0.2, 0.15],
      size: [0.25, 0.25],
      round: true,
      depth: 0.006,
    },
    { what: 'port', kind: 'port', at: [0.1, 0.05], size: [0.1, 0.03], round: false, depth: null },
  ],
  window: null,
  mass: 1.234,
};

describe('the drawing of a board', () => {
  it('is to scale, with every hole where it is and the recess under its hole', () => {
    const { container } = render(<PanelDrawing panel={FRONT} />);
    // 308 px are left for 0.4 m, 208 for 0.3 m: the height decides.
    const scale = 208 / 0.3;
    const circles = [...container.querySelectorAll('circle')].map((circle) =>
      Number(circle.getAttribute('r')),
    );
    expect(circles[0]).toBeCloseTo(0.125 * scale, 6);
    expect(circles[1]).toBeCloseTo(0.115 * scale, 6);
    const port = container.querySelector('rect');
    expect(Number(port?.getAttribute('width'))).toBeCloseTo(0.1 * scale, 6);
    expect(Number(port?.getAttribute('height'))).toBeCloseTo(0.03 * scale, 6);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'front as seen from outside, 400 mm by 300 mm',
    );
  });

  it('says how deep holes are and how each edge is cut', () => {
    render(<PanelDrawing panel={FRONT} />);
    expect(screen.getByRole('heading').textContent).toContain('3 front, 18 mm MDF, 1.23 kg');
    const row = (name: RegExp) => screen.getByRole('row', { name }).textContent;
    expect(row(/^driver/)).toContain('⌀ 230 mmthrough');
    expect(row(/^recess/)).toContain('6 mm');
    expect(row(/^bottom/)).toBe('bottommitred with itbutt45.0°outside');
    expect(row(/^top/)).toBe('topmitred with itbutt12.3°inside');
    expect(row(/^right/)).toBe('rightends at its inner sidebuttsquare');
    expect(screen.queryByRole('row', { name: /free/ })).toBeNull();
  });

  it('has nothing to say of a board without holes and neighbours', () => {
    render(<PanelDrawing panel={{ ...FRONT, holes: [], edges: [] }} />);
    expect(screen.queryByRole('table')).toBeNull();
  });
});

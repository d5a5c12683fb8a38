// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import barn from '../../../../demo/builds/barn-dance.json';
import type { RawBrief, RawDesign } from '../../schema/types';
import { slot } from '../../testing/nook';
import type { Kind } from './groups';
import { KindChoices } from './Kinds';

let brief: RawBrief | null = null;
vi.mock('../../api/conditions', () => ({ useConditions: () => ({ brief, conditions: {} }) }));

const horn = barn.variants.find(({ enclosure }) => 'passage' in enclosure) as unknown as RawDesign;
let now: RawDesign;
let labels: string[];
function Bench({ start, kind }: { start: RawDesign; kind: Kind }) {
  const [design, setDesign] = useState(start);
  now = design;
  const take = (next: RawDesign, label: string) => {
    labels.push(label);
    setDesign(next);
  };
  return <KindChoices design={design} kind={kind} onChange={take} />;
}
const open = (start: RawDesign, kind: Kind) => render(<Bench start={start} kind={kind} />);
const choose = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const PORT: Kind = { of: 'port', chamber: 'enclosure', at: 0 };

beforeEach(() => {
  brief = null;
  labels = [];
});
afterEach(cleanup);

describe('a port', () => {
  it('has a brother like it, up to eight, and goes while another is left', () => {
    open(slot, PORT);
    expect(screen.queryByRole('button', { name: 'Remove this port' })).toBeNull();
    press(/^Port$/);
    const ports = () => now.enclosure.ports ?? [];
    expect(ports()).toHaveLength(2);
    expect(ports()[1]).toEqual(ports()[0]);
    for (let count = 2; count < 8; count += 1) press(/^Port$/);
    expect(screen.queryByRole('button', { name: /^Port$/ })).toBeNull();
    press('Remove this port');
    expect(ports()).toHaveLength(7);
  });

  it('of another shape has the same area, and its own sizes again when that is taken back', () => {
    open(slot, PORT);
    fireEvent.click(screen.getByRole('radio', { name: 'Round' }));
    const [round] = now.enclosure.ports ?? [];
    // 250 mm by 28 mm.
    expect((Math.PI / 4) * Number.parseFloat(String(round?.diameter)) ** 2).toBeCloseTo(7000, -2);
    fireEvent.click(screen.getByRole('radio', { name: 'Slot' }));
    expect(now.enclosure.ports?.[0]).toMatchObject({ shape: 'slot', width: '250 mm', height: '28 mm' });
  });

  it('ends in the box as is said', () => {
    open(slot, { of: 'inner_end', chamber: 'enclosure', at: 0 });
    choose('Inner end of the port', 'three_walls');
    expect(now.enclosure.ports?.[0]?.inner_end).toBe('three_walls');
    expect(labels).toEqual(['port']);
  });
});

describe('a segment of a path', () => {
  it('widens by a law, and the last one says how the mouth ends', () => {
    const last = (horn.enclosure.passage?.segments?.length ?? 1) - 1;
    open(horn, { of: 'segment', at: last });
    choose('How this segment widens', 'tractrix');
    expect(now.enclosure.passage?.segments?.[last]?.flare).toBe('tractrix');
    choose('How the mouth ends', 'free');
    expect(now.enclosure.passage?.mouth).toBe('free');
  });

  it('has another behind it and is taken out again, one being left', () => {
    open(horn, { of: 'segment', at: 0 });
    const count = () => now.enclosure.passage?.segments?.length ?? 0;
    const before = count();
    press('Segment');
    expect(count()).toBe(before + 1);
    while (screen.queryByRole('button', { name: 'Remove this segment' })) press('Remove this segment');
    expect(count()).toBe(1);
  });

  it('says whether its fill moves only where it has some', () => {
    open(horn, { of: 'segment', at: 0 });
    expect(screen.queryByRole('combobox', { name: 'Whether the fill moves' })).toBeNull();
    cleanup();
    const filled = structuredClone(horn);
    const [first] = filled.enclosure.passage?.segments ?? [];
    if (first) first.fill_density = '8 kg/m3';
    open(filled, { of: 'segment', at: 0 });
    choose('Whether the fill moves', 'rigid');
    expect(now.enclosure.passage?.segments?.[0]?.fill_frame).toBe('rigid');
  });

  it('has a closed pipe beside it, or none', () => {
    open(horn, { of: 'stub' });
    press('Side pipe');
    expect(now.enclosure.passage?.stub).toMatchObject({ length: '0.5 m' });
    press('Side pipe');
    expect(now.enclosure.passage?.stub ?? null).toBeNull();
    expect(labels).toEqual(['side pipe', 'side pipe removed']);
  });
});

describe('the fill of a chamber', () => {
  it('is named, weighed, or one’s own', () => {
    open(slot, { of: 'chamber', chamber: 'enclosure' });
    choose('Fill of the chamber', 'lined');
    expect(now.enclosure.fill).toBe('lined');
    choose('Fill of the chamber', 'weighed');
    expect(now.enclosure.fill_density).toBeTruthy();
    choose('What the fill is of', 'wool');
    expect(now.enclosure.fill_material).toBe('wool');
    choose('Fill of the chamber', 'none');
    expect(now.enclosure.fill_density ?? null).toBeNull();
    expect(screen.queryByRole('combobox', { name: 'What the fill is of' })).toBeNull();
  });
});

describe('the drivers', () => {
  it('are single or pairs, and a pair says its wiring and its air', () => {
    open(slot, { of: 'drivers' });
    expect(screen.queryByRole('combobox', { name: 'Wiring of a pair' })).toBeNull();
    choose('Isobaric pairs', 'face_to_face');
    choose('Wiring of a pair', 'series');
    choose('Air between the cones', 'ideal');
    choose('Isobaric pairs', 'in_line');
    expect(now.driver_array?.isobaric).toMatchObject({
      arrangement: 'in_line',
      coils_in_series: true,
      ideal: true,
    });
    choose('Isobaric pairs', '');
    expect(now.driver_array?.isobaric ?? null).toBeNull();
  });

  it('with two coils say how these are used', () => {
    open(slot, { of: 'drivers' });
    expect(screen.queryByRole('combobox', { name: 'How the coils are used' })).toBeNull();
    cleanup();
    open({ ...slot, driver: { ...slot.driver, coils: 'dual_parallel' } } as RawDesign, { of: 'drivers' });
    choose('How the coils are used', 'one_shorted');
    expect(now.driver_array?.coils).toBe('one_shorted');
    choose('How the coils are used', '');
    expect(now.driver_array?.coils ?? null).toBeNull();
  });
});

describe('where it stands', () => {
  it('is chosen by a picture, unless the brief says it', () => {
    open(slot, { of: 'place' });
    press(/in a corner/);
    expect(now.space).toBe('eighth');
    cleanup();
    brief = { space: 'quarter' };
    open(slot, { of: 'place' });
    expect(screen.queryByRole('button', { name: /in a corner/ })).toBeNull();
    expect(screen.getByText('The brief says: against a wall (π).')).toBeTruthy();
  });
});

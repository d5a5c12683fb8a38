// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { bodyOf } from '../../model/body';
import { preferences } from '../../model/preferences';
import type { BodyReport, FieldError, RawBody, RawDesign } from '../../schema/types';
import { box, chamber } from '../../testing/box';
import { slot } from '../../testing/nook';
import { SizesTab } from './SizesTab';

vi.mock('../workbench/Workings', () => ({ FoldedWorkings: () => null }));

let now: RawDesign = slot;
function Bench({
  start,
  report,
  errors,
}: {
  start: RawDesign;
  report: BodyReport | undefined;
  errors: FieldError[];
}) {
  const [design, setDesign] = useState(start);
  now = design;
  return <SizesTab design={design} report={report} errors={errors} brief={null} edit={setDesign} />;
}
const open = (body: RawBody | null, report: BodyReport | undefined, errors: FieldError[] = []) => {
  const { body: _, ...bare } = slot;
  const start = (body ? { ...bare, body } : bare) as RawDesign;
  render(<Bench start={start} report={report} errors={errors} />);
};
const field = (name: string) => screen.getByRole('textbox', { name }) as HTMLInputElement;
function type(name: string, text: string) {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.keyDown(field(name), { key: 'Enter' });
}
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

afterEach(() => {
  cleanup();
  preferences.reset();
});

const BOX: RawBody = { width: '600 mm', height: '360 mm' };

describe('sizes of a box', () => {
  it('that are open show what they come to, and take what is typed', () => {
    open(BOX, box({}));
    expect(field('Width').value).toBe('600 mm');
    expect(field('Depth').value).toBe('311 mm');
    expect(field('Depth').className).toContain('border-dashed');
    type('Depth', '32 cm');
    expect(bodyOf(now)).toMatchObject({ width: '600 mm', depth: '32 cm' });
    expect(field('Width').className).not.toContain('border-dashed');
  });

  it('are refused with the range that is allowed, and stay as they were', () => {
    open(BOX, box({}));
    type('Width', '60');
    expect(bodyOf(now).width).toBe('60 mm');
    type('Width', '9 m');
    expect(screen.getByRole('alert').textContent).toMatch(/9 m is outside .* is allowed|9 m is outside/);
    expect(bodyOf(now).width).toBe('60 mm');
  });

  it('say beside the field what the server refuses', () => {
    open(BOX, undefined, [
      { field: 'body.height', message: 'height 360 mm: no driver of 300 mm goes in' } as FieldError,
    ]);
    expect(screen.getByRole('alert').textContent).toContain('no driver of 300 mm');
    expect(field('Height').getAttribute('aria-invalid')).toBe('true');
  });

  it('that follow although they are written lead the way back to what was written', () => {
    open({ ...BOX, depth: '12 in' }, box({}));
    // It does not claim the written depth.
    expect(field('Depth').value).toBe('311 mm');
    const told = screen.getByText(/The depth follows from the rest/);
    expect(told.textContent).toContain('12 1/4 in');
    press('Back to 12 in');
    expect(bodyOf(now).depth).toBe('12 in');
  });

  it('lead the volume where every one is stated', () => {
    open({ ...BOX, depth: '300 mm' }, box({ solved: [false, false, false], volume_follows: true }));
    expect(screen.getByText(/Every size is stated, so the volume follows/).textContent).toContain('44 l');
    press(/Back to 44 l/);
    expect(now.enclosure.volume).toBe('44 l');
  });

  it('keep their proportions only where more than one is open', () => {
    open(BOX, box({}));
    expect(screen.queryByLabelText('Proportions of the sizes that are open')).toBeNull();
    cleanup();
    open({}, box({ solved: [true, true, true] }));
    expect(screen.getByLabelText('Proportions of the sizes that are open')).toBeTruthy();
  });

  it('have a partition where there are two chambers', () => {
    open(BOX, box({}));
    expect(screen.queryByRole('textbox', { name: 'Partition' })).toBeNull();
    cleanup();
    open(BOX, box({ chambers: [chamber({ name: 'Rear chamber' }), chamber({ name: 'Front chamber' })] }));
    expect(field('Partition').value).toBe('18 mm');
    expect(screen.getByRole('region', { name: 'Volume of the front chamber' })).toBeTruthy();
  });
});

describe('what takes up volume', () => {
  const lines = () =>
    within(screen.getByRole('region', { name: 'Volume of the chamber' }))
      .getAllByRole('row')
      .map(({ textContent }) => textContent);

  it('is subtracted line by line to the net volume', () => {
    open(BOX, box({}));
    expect(lines()).toEqual([
      'Chamber: space between the boards50.20 l',
      '− Driver · estimated from its size3.10 l',
      '− Port3.10 l',
      '= Net volume44.00 l',
    ]);
    expect(screen.getByText(/Tuned so: Fb/).textContent).toContain('29.0 Hz');
  });

  it('says apart what fill makes it seem, and never as air', () => {
    open(BOX, box({ chambers: [chamber({ gain: 1.12 })] }));
    expect(lines().slice(-2)).toEqual(['= Net volume44.00 l', '× 1.12 by its fill: apparent volume49.28 l']);
  });

  it('is read in cubic feet by who measures so', () => {
    preferences.set({ units: { volume: 'cuft', length: 'in' } });
    open(BOX, box({}));
    expect(lines().at(-1)).toBe('= Net volume1.55 cuft');
    expect(field('Depth').value).toBe('12 1/4 in');
  });

  it('may be something else, with a volume or with a size and a place', () => {
    open(BOX, box({}));
    press('Something else inside');
    press('Amplifier');
    expect(bodyOf(now).items).toEqual([{ name: 'Amplifier', volume: '2 l' }]);
    type('Volume of Amplifier', '1,5');
    expect(bodyOf(now).items?.[0]?.volume).toBe('1,5 l');
    press('Give Amplifier a size and a place');
    expect(bodyOf(now).items?.[0]).toMatchObject({ face: 'back', width: '200 mm' });
    expect(bodyOf(now).items?.[0]).not.toHaveProperty('volume');
    type('Into the box', '80 mm');
    expect(bodyOf(now).items?.[0]).toMatchObject({ depth: '80 mm' });
    press('Remove Amplifier');
    expect(bodyOf(now).items ?? []).toEqual([]);
  });
});

// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { bodyOf } from '../../model/body';
import { preferences } from '../../model/preferences';
import type { BodyReport, RawDesign, WaveReport } from '../../schema/types';
import { box } from '../../testing/box';
import { slot, variants } from '../../testing/nook';
import { AirTab } from './AirTab';
import { WavesTab } from './WavesTab';

const asked: string[] = [];
vi.mock('../workbench/FigureCard', () => ({
  SuggestionList: ({ title, check }: { title: string; check: string }) => {
    asked.push(check);
    return <p>{title}</p>;
  },
}));
vi.mock('./CutPart', () => ({ PortCut: () => <p>How it is cut</p>, RadiatorCut: () => null }));
vi.mock('./Firing', () => ({ Firing: () => null }));
vi.mock('./Damping', () => ({ Damping: () => null, FILLS: [] }));
vi.mock('./CavityCheck', () => ({ CavityCheck: () => null }));
vi.mock('../workbench/Workings', () => ({ FoldedWorkings: () => null }));

let now: RawDesign = slot;
function Bench({ start, report }: { start: RawDesign; report: BodyReport }) {
  const [design, setDesign] = useState(start);
  now = design;
  return (
    <AirTab
      design={design}
      report={report}
      errors={[]}
      brief={null}
      edit={setDesign}
      onTry={() => undefined}
      onBrief={() => undefined}
    />
  );
}
const open = (report: BodyReport, start: RawDesign = slot) => render(<Bench start={start} report={report} />);
const port = {
  kind: 'port',
  index: 0,
  chamber: 0,
  face: 'front',
  at: [0.3, 0.05],
  path: [
    [0, 0, 0],
    [0, 0, 0.3],
    [0, 0.1016, 0.3],
  ],
  across: 0.0508,
  tall: null,
};
const driver = {
  kind: 'driver',
  index: 0,
  chamber: 0,
  face: 'front',
  at: [0.3, 0.2],
  path: [],
  across: 0.25,
  tall: null,
};
const parts = [driver, port] as unknown as BodyReport['parts'];

afterEach(() => {
  cleanup();
  preferences.reset();
  asked.splice(0);
});

describe('what goes where', () => {
  it('says that everything fits where nothing is found', () => {
    open(box({ parts }));
    expect(screen.getByText('Everything fits, with air around it.')).toBeTruthy();
    expect(asked).toEqual([]);
  });

  it('tells apart what cannot be built from what is only near, and asks for ways out of the first alone', () => {
    const near = { words: 'The port is 40 mm from the wall: 51 mm is better.', forbids: false };
    const not = { words: 'The driver reaches 12.7 mm into the brace.', forbids: true };
    open(box({ parts, findings: [near] as BodyReport['findings'] }));
    expect(screen.queryByText('Everything fits, with air around it.')).toBeNull();
    expect(asked).toEqual([]);
    cleanup();
    preferences.set({ units: { length: 'in' } });
    open(box({ parts, findings: [near, not] as BodyReport['findings'] }));
    const found = within(screen.getByRole('list', { name: 'What does not fit' })).getAllByRole('listitem');
    expect(found[1]?.textContent).toBe('The driver reaches 1/2 in into the brace.');
    expect(found[1]?.className).toContain('text-short');
    expect(found[0]?.className).not.toContain('text-short');
    expect(new Set(asked)).toEqual(new Set(['fits']));
  });

  it('measures a port along its middle, leg by leg', () => {
    open(box({ parts }));
    expect(screen.getByText(/inside, .* long along its middle/).textContent).toBe(
      '51 mm across inside, 402 mm long along its middle, in legs of 300 mm and 102 mm.',
    );
  });

  it('moves driver and port to another board, and turns the port', () => {
    open(box({ parts }));
    const section = (name: string) => within(screen.getByRole('region', { name }));
    const middle = section('Driver').getByRole('textbox', { name: 'Middle, from below' }) as HTMLInputElement;
    expect(middle.value).toBe('200 mm');
    fireEvent.change(middle, { target: { value: '180' } });
    fireEvent.keyDown(middle, { key: 'Enter' });
    expect(bodyOf(now).driver).toEqual({ face: 'front', up: '180 mm' });
    const port = section('Port');
    fireEvent.click(port.getByRole('radio', { name: 'Twice, a U' }));
    expect(Number(bodyOf(now).ports?.[0]?.turns)).toBe(2);
    fireEvent.click(port.getByRole('radio', { name: 'None' }));
    expect(bodyOf(now).ports?.[0]?.turns ?? null).toBeNull();
  });

  it('has no port in a sealed box', () => {
    open(box({ parts: [driver] as unknown as BodyReport['parts'] }), variants[1]?.design);
    expect(screen.getByRole('region', { name: 'Driver' })).toBeTruthy();
    expect(screen.queryByRole('region', { name: 'Port' })).toBeNull();
  });
});

describe('standing waves', () => {
  const wave = (change: Partial<WaveReport>): WaveReport =>
    ({
      order: [1, 0, 0],
      frequency: 304,
      quarter: 0.282,
      feared: false,
      with: null,
      couplings: [
        { part: 'Driver', value: 0.05 },
        { part: 'Port', value: -1 },
      ],
      ...change,
    }) as unknown as WaveReport;
  const show = (waves: WaveReport[], chosen: number | null = null) => {
    const onChoose = vi.fn();
    render(
      <WavesTab
        report={box({ waves, waves_verdict: 'One of 304 Hz is heard through the port.' })}
        chosen={chosen}
        onChoose={onChoose}
        design={slot}
        errors={[]}
        edit={() => undefined}
      />,
    );
    return onChoose;
  };

  it('are named by their directions, with how strongly each part couples', () => {
    show([wave({}), wave({ order: [0, 2, 1], frequency: 812, quarter: 0.1016 })]);
    const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(rows.map((row) => within(row).getByRole('button').textContent)).toEqual([
      'across',
      '2 × up + forward',
    ]);
    expect(rows[0]?.textContent).toContain('5100282 mm');
  });

  it('are chosen to be drawn, and let go again', () => {
    const choose = show([wave({}), wave({ order: [0, 1, 0] })], 1);
    fireEvent.click(screen.getByRole('button', { name: 'across' }));
    expect(choose).toHaveBeenCalledWith(0);
    expect(screen.getByRole('button', { name: 'up' }).getAttribute('aria-pressed')).toBe('true');
    fireEvent.click(screen.getByRole('button', { name: 'up' }));
    expect(choose).toHaveBeenCalledWith(null);
  });

  it('that are to be feared stand out in words and rows, and so do two that fall together', () => {
    show([wave({ feared: true, with: 311 })]);
    expect(screen.getByText('One of 304 Hz is heard through the port.').className).toContain('text-short');
    expect(screen.getByText(/Two waves fall together/).textContent).toContain('at 304 and 311 Hz');
    cleanup();
    show([wave({})]);
    expect(screen.getByText('One of 304 Hz is heard through the port.').className).not.toContain(
      'text-short',
    );
    expect(screen.queryByText(/Two waves fall together/)).toBeNull();
  });
});

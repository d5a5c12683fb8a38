// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { NEW_PLACES } from '../../model/places';
import type { PlaceReport, PlaceSearch, RawListeningPlace } from '../../schema/types';
import { slot } from '../../testing/nook';
import { BatteryPanel } from './BatteryPanel';
import { BestPlacesPanel } from './BestPlacesPanel';
import { EarsPanel } from './EarsPanel';
import { ModesPanel } from './ModesPanel';
import type { PanelProps } from './panel';
import { PANELS } from './panels';
import { RoomPanel } from './RoomPanel';
import { SeatsPanel } from './SeatsPanel';

const search = vi.hoisted(() => ({ data: null as unknown }));
vi.mock('../../api/queries/place', () => ({
  useBestPlaces: () => ({ data: search.data, error: null }),
  useStartBestPlaces: () => ({ mutate: vi.fn(), error: null, isPending: false }),
  useStopBestPlaces: () => ({ mutate: vi.fn() }),
}));

afterEach(cleanup);

const REPORT: PlaceReport = {
  conditions: '160 W into 4 Ω (25.3 V), half space',
  name: 'Living room',
  kind: 'room',
  room: {
    size: [4, 5, 2.5],
    volume: 50,
    reverberation: 0.31,
    schroeder: 157,
    words: 'The room as the nearest rectangular one.',
    lift: null,
    modes: [
      { order: [0, 1, 0], frequency: 34.3, kind: 'axial', decay: 1.1, cabinets: [0.96], seats: [0.6, 0.04] },
    ],
  },
  cabinets: [
    { at: [0.5, 4.6, 0], outline: [], cone: 0.2, height: 0.4, outside: null, walls: 'Floor and walls.' },
  ],
  seats: [
    {
      name: 'Left',
      at: [1.6, 1.5, 1.1],
      level: 98.76,
      spread: 4.21,
      near: false,
      dip: '14 dB down at 71 Hz.',
    },
    { name: 'Right', at: [2.4, 1.5, 1.1], level: 97, spread: 5, near: true, dip: null },
  ],
  traces: [],
  spread: 6.25,
  between_seats: 3.1,
  exposure: {
    level: 95,
    asked: true,
    weighted: 70,
    bass: 9e5,
    whole: 2880,
    dose: null,
    words: 'Bass alone.',
  },
  neighbours: null,
  energy: null,
  field: null,
  note: null,
  debates: [],
};

function show(Panel: (props: PanelProps) => React.ReactNode, change: Partial<PanelProps> = {}) {
  const onEdit = vi.fn<PanelProps['onEdit']>();
  const props: PanelProps = {
    place: NEW_PLACES.room,
    report: REPORT,
    error: null,
    chosen: { which: 'cabinets', at: 0 },
    design: slot,
    build: 'b',
    brief: null,
    onBrief: vi.fn(),
    onChoose: vi.fn(),
    onGhosts: vi.fn(),
    ...change,
    onEdit,
  };
  render(<Panel {...props} />);
  const edited = () => onEdit.mock.lastCall?.[0] as RawListeningPlace;
  const type = (name: string, value: string) => {
    const field = screen.getByRole('textbox', { name });
    fireEvent.change(field, { target: { value } });
    fireEvent.keyDown(field, { key: 'Enter' });
  };
  return { edited, type, onEdit };
}

describe('the panels of a place', () => {
  it('are those that its kind has', () => {
    const of = (place: RawListeningPlace) => PANELS.filter((panel) => panel.of(place)).map(({ id }) => id);
    expect(of(NEW_PLACES.room)).toEqual(['seats', 'room', 'waves', 'best', 'ears', 'methods']);
    expect(of(NEW_PLACES.outdoors)).toEqual(['seats', 'ears', 'battery']);
    expect(of({ ...NEW_PLACES.room, battery: { capacity: '600 Wh' } })).toContain('battery');
  });

  it('say what each seat hears, and edit what is chosen', () => {
    const { edited, type } = show(SeatsPanel);
    expect(screen.getByRole('row', { name: /^Left/ }).textContent).toContain('98.8 dB');
    expect(screen.getByText(/nearer than 0\.3 m/)).toBeTruthy();
    expect(screen.getByText(/14 dB down at 71 Hz/)).toBeTruthy();
    type('Gain', '-3 dB');
    expect(edited().cabinets?.[0]?.gain).toBe('-3 dB');
    fireEvent.click(screen.getByRole('checkbox', { name: 'polarity reversed' }));
    expect(edited().cabinets?.[0]?.inverted).toBe(true);
    fireEvent.click(screen.getByRole('button', { name: 'Remove' }));
    expect(edited().cabinets).toEqual([]);
  });

  it('let the brief be meant at the seats, and not', () => {
    const onBrief = vi.fn();
    show(SeatsPanel, { brief: { loudness: '95 dB' }, onBrief });
    fireEvent.click(screen.getByRole('checkbox', { name: /meant at these seats/ }));
    expect(onBrief).toHaveBeenLastCalledWith({ loudness: '95 dB', at_seats: true });
    cleanup();
    show(SeatsPanel, { brief: { loudness: '95 dB', at_seats: true }, onBrief });
    fireEvent.click(screen.getByRole('checkbox', { name: /meant at these seats/ }));
    expect(onBrief).toHaveBeenLastCalledWith({ loudness: '95 dB' });
  });

  it('take new walls, and bring in what they leave outside', () => {
    const { edited, type } = show(RoomPanel);
    type('Width', '2 m');
    expect(edited().seats?.map(({ across }) => across)).toEqual(['1.6 m', '1.7 m']);
    type('Left wall', '4 %');
    expect(edited().walls).toEqual({ left: '4 %' });
  });

  it('list the standing waves with what is driven and heard', () => {
    show(ModesPanel);
    const cells = within(screen.getByRole('row', { name: /34\.3/ })).getAllByRole('cell');
    expect(cells.map(({ textContent }) => textContent)).toEqual([
      '0 · 1 · 0',
      'two walls',
      '1.1 s',
      '96 %',
      '60 %',
      '4 %',
    ]);
  });

  it('take a usual wall, and a battery away with its capacity', () => {
    const { edited } = show(EarsPanel);
    fireEvent.change(screen.getByRole('combobox', { name: 'Usual walls' }), {
      target: { value: '200 kg/m2' },
    });
    expect(edited().wall_mass).toBe('200 kg/m2');
    cleanup();
    const battery = show(BatteryPanel, { place: NEW_PLACES.outdoors, report: undefined });
    battery.type('Battery', '');
    expect(battery.edited().battery).toBeUndefined();
  });

  it('show the best places of this room only, and put the cabinets there', () => {
    const found: PlaceSearch = {
      job: { state: 'finished', total: 40, done: 40 } as PlaceSearch['job'],
      asked: { place: NEW_PLACES.room, cabinets: 1, cone: [0, 0.2, 0.2], size: [0.4, 0.3] },
      best: {
        found: [{ at: [[1.25, 0.4, 0]], spread: 4.1, level: 2, why: 'Hardly drives 34 Hz.' }],
        now: 6.25,
        judged: 40,
      },
    };
    search.data = found;
    const { edited } = show(BestPlacesPanel);
    expect(screen.getByRole('listitem').textContent).toContain('1. 4.1 dB (−2.2 dB) at 1.25 m, 0.40 m');
    fireEvent.click(screen.getByRole('button', { name: 'Use place 1' }));
    expect(edited().cabinets).toEqual([{ across: '1.25 m', along: '0.4 m', turned: '180 deg' }]);
    cleanup();
    show(BestPlacesPanel, { place: { ...NEW_PLACES.room, width: '3 m' } });
    expect(screen.getByText(/search again/)).toBeTruthy();
    expect(screen.queryByRole('listitem')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Allow an area' }));
    search.data = null;
  });
});

// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Build, Check, OpenBuild, RawBrief } from '../../schema/types';
import { STAGES } from '../../stages';
import { slot } from '../../testing/nook';
import { StagesContext } from '../shell/stages';
import { BuildCard } from './BuildCard';

let opened: OpenBuild | undefined;
let checks: Check[];
vi.mock('../../api/queries/builds', () => ({ useBuildNow: () => ({ data: opened }) }));
vi.mock('../../api/queries/box', () => ({ useModel: () => ({}) }));
vi.mock('../../api/queries/design', () => ({ useJudgement: () => ({ data: checks }) }));

afterEach(cleanup);

const BUILD: Build = {
  id: 'b1',
  name: 'Narrowboat nook',
  notes: 'Under a bench berth.',
  variant_count: 2,
  updated_at: '2026-11-28T12:00:00Z',
} as Build;

function document(kind: string, content: object, archived = false) {
  return { id: `${kind}${archived}`, kind, content, archived, revision: 1, place: 0 };
}

function check(change: Partial<Check>): Check {
  return {
    id: 'lowest',
    name: 'Lowest note, −3 dB',
    reached: '28.3 Hz',
    words: 'asked: 30 Hz',
    verdict: 'met',
    ratio: 1,
    why: '',
    ...change,
  };
}

const MET = [
  check({}),
  check({ id: 'loudness', name: 'Loudness, clean', reached: '103.9 dB' }),
  check({ id: 'size', name: 'Size outside', reached: '52.3 l' }),
  check({ id: 'cost', name: 'Cost of the parts', reached: '120' }),
];

function build(brief: RawBrief | null) {
  opened = {
    ...BUILD,
    unreadable: [],
    next: {},
    documents: [
      ...(brief ? [document('brief', brief)] : []),
      document('variant', { ...slot, name: 'Old' }, true),
      document('variant', slot),
    ],
  } as unknown as OpenBuild;
}

function open(onArchive = vi.fn()) {
  render(
    <MemoryRouter>
      <StagesContext value={STAGES}>
        <ul>
          <BuildCard build={BUILD} onArchive={onArchive} />
        </ul>
      </StagesContext>
    </MemoryRouter>,
  );
  return onArchive;
}

beforeEach(() => {
  checks = MET;
  build({ lowest: '30 Hz' });
});

describe('the card of a build', () => {
  it('shows its first variant that is not archived, the figures that matter, and leads there', () => {
    open();
    expect(screen.getByRole('link', { name: 'Narrowboat nook' }).getAttribute('href')).toBe('/builds/b1');
    expect(screen.getByText(`${slot.driver.name}, ${slot.name}`)).toBeTruthy();
    for (const figure of ['28.3 Hz', '103.9 dB', '52.3 l']) expect(screen.getByText(figure)).toBeTruthy();
    // Three are enough on a card.
    expect(screen.queryByText('120')).toBeNull();
    expect(screen.getByText('Does all that is asked.')).toBeTruthy();
  });

  it('says what is short, and how much else is', () => {
    checks = [
      check({ verdict: 'short', words: '3.0 Hz too high' }),
      ...MET.slice(1),
      check({ id: 'air', verdict: 'short' }),
    ];
    open();
    expect(screen.getByText(/^Short: lowest note, 3\.0 Hz too high, and 1 more\.$/)).toBeTruthy();
    expect(screen.queryByText(/all that is asked/)).toBeNull();
    expect(screen.getByText('28.3 Hz').className).toContain('text-short');
  });

  it('says what is best done next where nothing is short', () => {
    build(null);
    checks = [];
    open();
    expect(screen.getByText(/^Next, brief: Say how low/)).toBeTruthy();
  });

  it('stands while its build is fetched, and is archived or taken along by its name', () => {
    opened = undefined;
    const onArchive = open();
    expect(screen.getByRole('heading', { name: 'Narrowboat nook' })).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Build file of Narrowboat nook' })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Archive Narrowboat nook' }));
    expect(onArchive).toHaveBeenCalledOnce();
  });
});

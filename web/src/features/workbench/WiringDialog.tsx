import { useState } from 'react';
import { useChanges, useWirings } from '../../api/queries/design';
import { siAt } from '../../model/design';
import type { ChangeStep, RawDesign, RawDriverArray, Report, WiringOption } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { WiringPicture } from './WiringPicture';

interface Props {
  open: boolean;
  design: RawDesign;
  report: Report | undefined;
  /** The minimum load that the brief's amplifier stands, ohm. */
  least: number | null;
  onWire: (driver_array: RawDriverArray) => void;
  onClose: () => void;
}

const COUNTS = ['1', '2', '3', '4', '5', '6', '7', '8'].map(
  (count) => [count, count === '1' ? '1 driver' : `${count} drivers`] as const,
);
/** Ranges of load to choose from, ohm; a rounding of nominal values does not matter. */
function loads(least: number | null): [string, string][] {
  return [
    ...(least === null ? [] : [[`${least}-100`, `${least} Ω and more`] as [string, string]]),
    ['0-100', 'any load'],
    ['2-4', '2 to 4 Ω'],
    ['4-8', '4 to 8 Ω'],
    ['8-16', '8 to 16 Ω'],
  ];
}

/** How the drivers are wired, which other ways there are, and what each change to them does. */
export function WiringDialog({ open, design, report, least, onWire, onClose }: Props) {
  return (
    <Dialog title="Wiring and changes" open={open} onClose={onClose} wide>
      {open && <Wiring design={design} report={report} least={least} onWire={onWire} />}
    </Dialog>
  );
}

function Wiring({ design, report, least, onWire }: Omit<Props, 'open' | 'onClose'>) {
  const driver_array = design.driver_array ?? {};
  const series = siAt(design, 'driver_array.series') ?? 1;
  const parallel = siAt(design, 'driver_array.parallel') ?? 1;
  const [count, setCount] = useState(String(Math.min(8, series * parallel)));
  const ranges = loads(least);
  const [range, setRange] = useState(ranges[0]?.[0] ?? '0-100');
  const [from = 0, to = 100] = range.split('-').map(Number);
  const ways = useWirings(design.driver, Number(count), from, to);
  const coils = drawn(design);
  const load = report?.used.nominal;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-6 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label="As it is wired">
        <h3 className="font-semibold">As it is wired{load ? `: ${load.toFixed(1)} Ω` : ''}</h3>
        <WiringPicture
          coils={coils}
          series={series}
          parallel={parallel}
          label={inWords({ coils, series, parallel })}
        />
        <p className="text-soft">
          {inWords({ coils, series, parallel })}. A meter should read about{' '}
          {report?.used.re.toFixed(1) ?? '–'} Ω.
          {driver_array.isobaric &&
            ' Each place is a pair; of two that face each other or stand back to back, one is wired + to −.'}
        </p>
        {least !== null && load !== undefined && load < least * 0.99 && (
          <p className="mt-1 text-short">
            Below the {least} Ω that the amplifier of the brief stands: it may overheat or shut off. Choose a
            way with more in series.
          </p>
        )}
      </section>
      <section aria-label="Ways to wire">
        <div className="flex items-center gap-2">
          <h3 className="flex-1 font-semibold">Ways to wire</h3>
          <Select
            label="How many drivers"
            className="max-w-32"
            value={count}
            options={COUNTS}
            onChange={setCount}
          />
          <Select label="Load" className="max-w-40" value={range} options={ranges} onChange={setRange} />
        </div>
        <Message error={ways.error} />
        <Table
          className="mt-1 text-[1rem]"
          rows={ways.data ?? []}
          keyOf={inWords}
          rowOf={() => ({ className: 'align-top' })}
          columns={[
            {
              name: 'Load',
              className: ({ load }) =>
                `whitespace-nowrap pr-2 font-mono ${least !== null && load < least * 0.99 ? 'text-short' : ''}`,
              cell: ({ load }) => `${load.toFixed(1)} Ω`,
            },
            {
              name: 'How',
              names: true,
              cell: (way) => (
                <>
                  {inWords(way)}
                  <span className="block text-[0.929rem] text-soft">{way.reason}</span>
                </>
              ),
            },
            {
              name: 'SPL',
              kind: 'figure',
              cell: ({ gain }) => `${gain >= 0 ? '+' : '−'}${Math.abs(gain).toFixed(1)} dB`,
            },
            {
              name: 'Use',
              kind: 'action',
              cell: (way) => (
                <Button aria-label={`Use ${inWords(way)}`} onClick={() => onWire(wired(driver_array, way))}>
                  Use
                </Button>
              ),
            },
          ]}
        />
        {ways.data?.length === 0 && <p className="py-2 text-soft">No wiring gives a load in that range.</p>}
      </section>
      <Changes design={design} />
    </div>
  );
}

/** Coils as they are drawn: a driver with two whose use is not said is wired as its sheet was taken. */
function drawn(design: RawDesign): NonNullable<RawDriverArray['coils']> | null {
  const { coils } = design.driver;
  if (!coils || coils === 'single') return null;
  return design.driver_array?.coils ?? (coils === 'dual_series' ? 'series' : 'parallel');
}

const COILS = {
  series: 'coils in series',
  parallel: 'coils in parallel',
  one: 'one coil, the other open',
  one_shorted: 'one coil, the other shorted',
  one_loaded: 'one coil, the other across a resistor',
} as const;

type Said = Pick<WiringOption, 'series' | 'parallel'> & { coils?: RawDriverArray['coils'] };

function inWords({ coils, series, parallel }: Said): string {
  const own = coils ? `, ${COILS[coils]}` : '';
  if (series * parallel === 1) return `one driver${own}`;
  if (series === 1) return `${parallel} in parallel${own}`;
  if (parallel === 1) return `${series} in series${own}`;
  return `${parallel} groups of ${series} in series${own}`;
}

function wired(driver_array: RawDriverArray, { coils, series, parallel }: WiringOption): RawDriverArray {
  const { coils: _, series: __, parallel: ___, ...others } = driver_array;
  return {
    ...others,
    ...(coils ? { coils } : {}),
    ...(series > 1 ? { series } : {}),
    ...(parallel > 1 ? { parallel } : {}),
  };
}

const FIGURES: [string, (step: ChangeStep) => string][] = [
  ['Fs, Hz', (step) => step.fs.toFixed(1)],
  ['Qts', (step) => step.qts.toFixed(3)],
  ['Vas, l', (step) => (step.vas * 1e3).toFixed(1)],
  ['Load, Ω', (step) => step.load.toFixed(1)],
  ['2.83 V, dB', (step) => step.level.toFixed(1)],
  ['F3 in this box, Hz', (step) => step.f3?.toFixed(1) ?? '–'],
];

function Changes({ design }: { design: RawDesign }) {
  const changes = useChanges(design);
  const steps = changes.data ?? [];
  return (
    <section aria-label="What each change does" className="md:col-span-2">
      <h3 className="font-semibold">What each change does, one after the other</h3>
      <Message error={changes.error} />
      <Table
        className="text-[1rem]"
        rows={steps}
        keyOf={({ id }) => id}
        columns={[
          {
            name: 'The drivers',
            names: true,
            cell: ({ name }, at) => (at === 0 ? name : `+ ${name}`),
          },
          ...FIGURES.map(([name, figure]) => ({
            name,
            kind: 'figure' as const,
            className: (step: ChangeStep, at: number) => {
              const before = steps[at - 1];
              return before && figure(before) !== figure(step) ? 'font-bold' : 'text-soft';
            },
            cell: figure,
          })),
        ]}
      />
      <p className="mt-1 text-soft">
        The driver in the library stays as it is; changes belong to this variant. Fs is no limit of how low it
        plays.
      </p>
    </section>
  );
}

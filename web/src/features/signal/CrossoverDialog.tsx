import { useMutation } from '@tanstack/react-query';
import { askTrace, useCrossover } from '../../api/queries/signal';
import { markAt } from '../../model/mark';
import { inWords } from '../../model/preferences';
import { significant } from '../../model/units';
import type { OnBench, Workbench } from '../../model/workbench';
import type { CrossoverReport, FieldError, RawDesign, RawFilter, RawMains, Report } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { chooseTrace } from '../../ui/file';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';
import { Chart } from '../workbench/Chart';
import type { Row } from '../workbench/groups';
import { Values } from './block';
import { filtersOf, withFilters } from './filters';

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
  onEdit: (design: RawDesign, label: string) => void;
  onClose: () => void;
}

const HIGH_PASSES: readonly (readonly [string, string, RawFilter | null])[] = [
  ['none', 'No high-pass', null],
  ['b2', 'Butterworth, 12 dB/octave', { kind: 'high_pass', order: 2, frequency: '80 Hz' }],
  [
    'lr4',
    'Linkwitz-Riley, 24 dB/octave',
    { kind: 'high_pass', alignment: 'linkwitz_riley', order: 4, frequency: '80 Hz' },
  ],
];

const idOf = (filter: RawFilter | null | undefined): string =>
  !filter ? 'none' : filter.alignment === 'linkwitz_riley' ? 'lr4' : 'b2';

/** The sub and the main loudspeakers together: how they add up, and with which delay and polarity best. */
export function CrossoverDialog({ variant, workbench, report, errors, onEdit, onClose }: Props) {
  const { design } = variant;
  const mains = design.signal?.mains;
  const answer = useCrossover(mains ? design : null);
  const put = (next: RawMains, label: string) =>
    onEdit({ ...design, signal: { ...design.signal, mains: next } }, label);
  const measured = (mains?.trace?.length ?? 0) > 0;
  const reading = useMutation({
    mutationFn: askTrace,
    onSuccess: ({ points }) => mains && put({ ...mains, trace: points }, 'mains as measured'),
  });
  const read = () => void chooseTrace().then((file) => file && reading.mutate(file));
  const rows: Row[] = [
    ...(measured
      ? []
      : [
          {
            name: 'Mains F3',
            paths: ['signal.mains.frequency'] as [string],
            follows: () => 60,
            optional: true,
          },
        ]),
    { name: 'Mains distance', paths: ['signal.mains.distance'], follows: () => 3, optional: true },
    { name: 'Sub distance', paths: ['signal.mains.sub_distance'], optional: true },
    { name: 'Link delay', paths: ['signal.mains.link_delay'], optional: true },
    ...(mains?.high_pass
      ? [{ name: 'High-pass', paths: ['signal.mains.high_pass.frequency'] as [string] }]
      : []),
  ];
  return (
    <Dialog
      title="Crossover to the mains"
      about="The sub with its filters and the main loudspeakers with theirs, added up at the listener with phase and distance."
      open
      wide
      onClose={onClose}
    >
      {!mains ? (
        <p className="flex items-center gap-3">
          Say what is known of the main loudspeakers; the rest is taken as usual.
          <Button look="strong" onClick={() => put({ frequency: '60 Hz', order: 2 }, 'mains')}>
            Describe the mains
          </Button>
        </p>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-center gap-2">
            {measured ? (
              <span className="flex items-center gap-2">
                <b>As measured</b>, {mains.trace?.length} points
                <Button
                  onClick={() => {
                    const { trace: _, ...bare } = mains;
                    put(bare, 'mains as stated');
                  }}
                >
                  As stated
                </Button>
              </span>
            ) : (
              <>
                <Choice
                  label="Kind of mains"
                  value={Number(mains.order ?? 2) > 2 ? '4' : '2'}
                  options={[
                    ['2', 'Sealed'],
                    ['4', 'Ported'],
                  ]}
                  onChange={(order) => put({ ...mains, order: Number(order) }, 'mains')}
                />
                <Button disabled={reading.isPending} onClick={read}>
                  Their response from a file …
                </Button>
              </>
            )}
            <Select
              label="High-pass of the mains"
              className="max-w-64"
              value={idOf(mains.high_pass)}
              options={HIGH_PASSES.map(([id, name]) => [id, name] as const)}
              onChange={(id) => {
                const { high_pass, ...bare } = mains;
                const filter = HIGH_PASSES.find(([one]) => one === id)?.[2];
                const frequency = high_pass?.frequency;
                put(
                  filter
                    ? { ...bare, high_pass: { ...filter, ...(frequency != null && { frequency }) } }
                    : bare,
                  'mains',
                );
              }}
            />
          </div>
          <Values rows={rows} variant={variant} workbench={workbench} report={report} errors={errors} />
          <Message error={reading.error ?? answer.error} />
          {answer.data && (
            <Sum
              sum={answer.data}
              onUse={(more) => onEdit(withFilters(design, [...filtersOf(design), ...more]), 'crossover')}
            />
          )}
        </>
      )}
    </Dialog>
  );
}

function Sum({ sum, onUse }: { sum: CrossoverReport; onUse: (filters: RawFilter[]) => void }) {
  const line = (place: number, name: string, values: number[], strong = false) => ({
    place,
    mark: markAt(place),
    strong,
    secondary: false,
    frequency: sum.frequency,
    values,
    name,
  });
  const changed = sum.filters.length > 0;
  const lines = [
    line(1, 'sub', sum.sub),
    line(2, 'mains', sum.mains),
    line(3, changed ? 'as set now' : 'together', sum.now.level, !changed),
    ...(changed ? [line(0, 'with the best on the sub', sum.settable.level, true)] : []),
  ];
  return (
    <>
      <Chart
        label={`Sub and mains around ${significant(sum.crossover, 3)} Hz, dB over their passbands`}
        lines={lines}
        range={[-24, 9]}
        height={230}
      />
      <div className="mt-2 flex items-start gap-3">
        <div className="flex-1">
          <p role="status">{inWords(sum.words)}</p>
          <p className="text-soft">{inWords(sum.sensitivity)}</p>
        </div>
        {changed && (
          <Button look="strong" onClick={() => onUse(sum.filters)}>
            Set it on the sub
          </Button>
        )}
      </div>
    </>
  );
}

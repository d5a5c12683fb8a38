import { bodyOf, FACES, withBody, without } from '../../model/body';
import { withBranch } from '../../model/design';
import { inWords } from '../../model/preferences';
import type { BodyReport, RawFace, WaveReport } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { FoldedWorkings } from '../workbench/Workings';
import { BodyField, type Editing } from './BodyField';
import { CavityCheck } from './CavityCheck';
import { Damping, FILLS } from './Damping';

interface Props extends Editing {
  report: BodyReport;
  chosen: number | null;
  onChoose: (wave: number | null) => void;
}

/** What rings between the walls, how firmly driver and port hold it, and the fill against it. */
export function WavesTab({ report, chosen, onChoose, ...editing }: Props) {
  const { waves, waves_verdict } = report;
  const names = [...new Set(waves.flatMap(({ couplings }) => couplings.map(({ part }) => part)))];
  const worst = waves.some(({ feared }) => feared);
  if (report.fold && report.chambers.length === 1) return <p>{waves_verdict}</p>;
  return (
    <div className="flex flex-col gap-3">
      <p className={worst ? 'font-semibold text-short' : 'text-met'}>{waves_verdict}</p>
      <Table
        rows={waves.slice(0, 12)}
        keyOf={({ order }) => `${order}`}
        rowOf={({ feared }, at) => ({
          className: `${chosen === at ? 'bg-rule' : ''} ${feared ? 'text-short' : ''}`,
        })}
        columns={[
          {
            name: 'Wave',
            names: true,
            cell: (wave, at) => (
              <button
                type="button"
                aria-pressed={chosen === at}
                className="underline decoration-rule-line underline-offset-2 hover:decoration-oak"
                onClick={() => onChoose(chosen === at ? null : at)}
              >
                {named(wave)}
              </button>
            ),
          },
          { name: 'Hz', kind: 'figure', cell: ({ frequency }) => frequency.toFixed(0) },
          ...names.map((name) => ({
            name,
            headingClass: 'px-2',
            className: 'px-2',
            cell: ({ couplings }: WaveReport) => (
              <Bar value={couplings.find(({ part }) => part === name)?.value ?? 0} />
            ),
          })),
          {
            name: '¼ wave',
            kind: 'figure',
            cell: ({ quarter }) => inWords(`${(quarter * 1e3).toFixed(0)} mm`),
          },
        ]}
      />
      <p className="text-[0.929rem] text-soft">
        Choose a wave to see it in the side section: brown where the pressure rises, blue where it falls,
        nothing along its nodes. The bars show how strongly a driver or port couples to it, in percent. Fill
        works where the air moves, which is where the pressure does nothing.
      </p>
      <Together waves={waves} />
      {report.damping && <Damping damping={report.damping} net={report.chambers[0]?.net ?? 0} {...editing} />}
      <Fill {...editing} report={report} />
      <CavityCheck design={editing.design} />
      <FoldedWorkings ids={['standing_wave']} design={editing.design} />
    </div>
  );
}

const WAYS = ['across', 'up', 'forward'];

function named({ order }: WaveReport): string {
  const along = order.flatMap((count, at) => (count ? [`${count > 1 ? `${count} × ` : ''}${WAYS[at]}`] : []));
  return along.join(' + ');
}

function Bar({ value }: { value: number }) {
  const part = Math.min(1, Math.abs(value));
  return (
    <span className="flex items-center gap-1.5">
      <span className="h-2 w-16 overflow-hidden rounded-[2px] bg-grid" aria-hidden="true">
        <span
          className={`block h-full ${value < 0 ? 'bg-river' : 'bg-oak'}`}
          style={{ width: `${100 * part}%` }}
        />
      </span>
      <span className="w-8 whitespace-nowrap text-right font-mono">{(100 * part).toFixed(0)}</span>
    </span>
  );
}

function Together({ waves }: { waves: WaveReport[] }) {
  const found = waves.find((wave) => wave.with != null && wave.frequency <= (wave.with ?? 0));
  if (!found) return null;
  return (
    <p>
      Two waves fall together, at {found.frequency.toFixed(0)} and {found.with?.toFixed(0)} Hz: two sides are
      nearly equal. Other proportions spread them.
    </p>
  );
}

/** A layer of something that can be bought. */
function withFill(design: Editing['design'], at: number, id: string) {
  const sold = FILLS.find((one) => one.id === id);
  if (!sold) return design;
  const fills = (bodyOf(design).fills ?? []).map((layer, index) =>
    index === at
      ? {
          ...layer,
          density: `${sold.density} kg/m3`,
          resistivity: `${sold.resistivity.toPrecision(3)} Pa s/m2`.replace('e+', 'e'),
          frame: sold.frame as 'limp' | 'rigid',
        }
      : layer,
  );
  return withBody(design, { fills });
}

function Fill({ design, errors, edit, report }: Editing & { report: BodyReport }) {
  const fills = bodyOf(design).fills ?? [];
  return (
    <section aria-label="Layers of fill" className="flex flex-col gap-1.5">
      <h3>Layers of fill</h3>
      {fills.map(({ face }, at) => {
        const laid = report.fills[at];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a list without other names
          <div key={at} className="flex flex-col gap-1 rounded-[3px] border border-line bg-card p-2">
            <div className="flex items-center gap-2">
              <Select
                label="Board of the layer"
                value={face as Exclude<RawFace, 'tread' | 'riser' | 'shell'>}
                options={FACES}
                onChange={(next) => edit(withBranch(design, `body.fills[${at}].face`, next), 'fill')}
              />
              <Select
                label="What the layer is of"
                value=""
                options={[['', 'Of …'], ...FILLS.map(({ id, name }) => [id, name] as [string, string])]}
                onChange={(id) => edit(withFill(design, at, id), 'fill')}
              />
              <Button
                look="quiet"
                aria-label={`Remove the layer at the ${face}`}
                onClick={() => edit(without(design, 'fills', at), 'fill')}
              >
                <Icon name="close" />
              </Button>
            </div>
            <BodyField
              {...{ design, errors, edit }}
              name="Thickness"
              path={`body.fills[${at}].thickness`}
              optional={false}
            />
            <BodyField
              {...{ design, errors, edit }}
              name="Density"
              path={`body.fills[${at}].density`}
              follows={laid?.density}
            />
            <BodyField
              {...{ design, errors, edit }}
              name="Resistivity"
              path={`body.fills[${at}].resistivity`}
              follows={laid?.resistivity}
            />
            {laid && (
              <p className="text-[0.929rem] text-soft">
                {inWords(`Weighs ${(laid.mass * 1e3).toFixed(0)} g.`)}
                {laid.blocks.length > 0 && (
                  <b className="text-short">
                    {' '}
                    It lies before the inner end of the {laid.blocks.join(' and the ')}: keep it clear, or the
                    port does nothing.
                  </b>
                )}
              </p>
            )}
          </div>
        );
      })}
      <div>
        <Button
          onClick={() =>
            edit(
              withBody(design, {
                fills: [...fills, { face: 'back', thickness: '50 mm', density: '20 kg/m3' }],
              }),
              'fill',
            )
          }
        >
          <Icon name="plus" /> A layer of fill
        </Button>
      </div>
      <p className="text-[0.929rem] text-soft">
        Mineral wool sheds fibres: gloves and a mask while you handle it, and a cover where a port could blow
        it out.
      </p>
    </section>
  );
}

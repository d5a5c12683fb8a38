import { useState } from 'react';
import { useBoards } from '../../api/queries/box';
import { bodyOf, MATERIALS, withBody, withBrace, without } from '../../model/body';
import { withBranch } from '../../model/design';
import { inWords } from '../../model/preferences';
import { significant } from '../../model/units';
import type { BodyReport, RawBrace, RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { FoldedWorkings } from '../workbench/Workings';
import { BodyField, type Editing } from './BodyField';

interface Props extends Editing {
  report: BodyReport;
}

const ALONG = [
  ['width', 'Upright, front to back'],
  ['height', 'Flat, like a shelf'],
  ['depth', 'Upright, side to side'],
] as const satisfies readonly (readonly [RawBrace['along'], string])[];

const material = (id: string) => MATERIALS.find(([one]) => one === id)?.[1] ?? id;

const capitalised = (name: string) => name.charAt(0).toUpperCase() + name.slice(1);

/** How the boards resonate, the braces against it, what the box weighs. */
export function PanelsTab(props: Props) {
  const { design, errors, edit, report } = props;
  const { panels, panel_radiation, weight } = report;
  const cavity = panels.filter(({ resonance }) => resonance != null);
  const weakest = cavity.toSorted((a, b) => (a.resonance ?? 0) - (b.resonance ?? 0))[0];
  const braces = bodyOf(design).braces ?? [];
  return (
    <div className="flex flex-col gap-3">
      {weakest && (
        <p>
          {weakest.inside ? capitalised(weakest.name) : `The ${weakest.name}`}{' '}
          {weakest.name.endsWith('boards') ? 'are' : 'is'} weakest: the largest free field,{' '}
          {inWords((weakest.field ?? []).map((side) => `${Math.round(side * 1e3)} mm`).join(' by '))},
          resonates at <b className="font-mono">{weakest.resonance?.toFixed(0)} Hz</b>.
          {panel_radiation && (
            <>
              {' '}
              All outer boards together stay {Math.abs(panel_radiation.level).toFixed(0)} dB below the sound,
              at worst at {panel_radiation.frequency.toFixed(0)} Hz.
            </>
          )}
        </p>
      )}
      {report.pressure && (
        <p>
          At this drive the air inside pushes with{' '}
          <b className="font-mono">{Math.round(report.pressure.force)} N</b> on the {report.pressure.face}, at{' '}
          {report.pressure.peak[1]?.toFixed(0)} Hz ({Math.round(report.pressure.peak[0] ?? 0)} Pa). The cones
          move {(report.pressure.moved * 100).toFixed(1)} % of the air: its spring is{' '}
          {(report.pressure.stiffer * 100).toFixed(1)} % stiffer inward and as much softer outward.
        </p>
      )}
      <Table
        rows={panels}
        keyOf={({ name }) => name}
        rowOf={({ name }) => ({ className: name === weakest?.name ? 'bg-rule' : '' })}
        columns={[
          { name: 'Board', names: true, className: 'first-letter:uppercase', cell: ({ name }) => name },
          { name: 'Of', cell: (panel) => material(panel.material) },
          {
            name: 'Thick',
            kind: 'figure',
            cell: ({ thickness }) => inWords(`${(thickness * 1e3).toFixed(1)} mm`),
          },
          { name: 'Weighs', kind: 'figure', cell: ({ mass }) => `${mass.toFixed(1)} kg` },
          {
            name: 'Resonance',
            kind: 'figure',
            cell: ({ resonance }) => (resonance == null ? 'round' : `${resonance.toFixed(0)} Hz`),
          },
          {
            name: 'Moves',
            kind: 'figure',
            cell: ({ deflection }) => (deflection == null ? '–' : `${significant(deflection * 1e6, 2)} µm`),
          },
          {
            name: 'Below sound',
            kind: 'figure',
            cell: ({ radiation }) => (radiation == null ? '–' : `${Math.abs(radiation.level).toFixed(0)} dB`),
          },
        ]}
      >
        {weight.braces > 0 && (
          <tr>
            <th scope="row" className="text-left font-normal">
              Braces and strips
            </th>
            <td colSpan={2} />
            <td className="text-right font-mono">{weight.braces.toFixed(1)} kg</td>
            <td colSpan={3} />
          </tr>
        )}
        <tr className="font-semibold">
          <th scope="row" className="text-left">
            Empty cabinet
          </th>
          <td colSpan={2} />
          <td className="text-right font-mono">{(weight.panels + weight.braces).toFixed(1)} kg</td>
          <td colSpan={3} />
        </tr>
      </Table>
      <p className="text-soft">
        How far each moves at this drive, at worst, and how far its own sound stays below that of the box.
        Half the chamber's pressure is taken to press on a port's boards, all of it on those of a fold.
      </p>
      {panels.map(
        ({ name, remedy }) =>
          remedy && (
            <p key={name}>
              {capitalised(name)}: {remedy}.
            </p>
          ),
      )}
      <section aria-label="Braces" className="flex flex-col gap-1.5">
        <h3>Braces</h3>
        {braces.map((brace, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a list without other names
          <div key={at} className="flex flex-col gap-1 rounded-[3px] border border-line bg-card p-2">
            <div className="flex items-center gap-2">
              <span className="w-16 shrink-0">Brace {at + 1}</span>
              <Select
                label={`How brace ${at + 1} stands`}
                value={brace.along}
                options={ALONG}
                onChange={(along) =>
                  edit(withBranch(design, `body.braces[${at}]`, { ...brace, along, at: null }), 'brace')
                }
              />
              <Button
                look="quiet"
                aria-label={`Remove brace ${at + 1}`}
                onClick={() => edit(without(design, 'braces', at), 'brace')}
              >
                <Icon name="close" />
              </Button>
            </div>
            <BodyField
              {...{ design, errors, edit }}
              name={PLACE[brace.along]}
              path={`body.braces[${at}].at`}
              follows={middleOf(report, brace.along)}
            />
            <BodyField
              {...{ design, errors, edit }}
              name="Thickness"
              path={`body.braces[${at}].thickness`}
              follows={0.018}
            />
            <BodyField
              {...{ design, errors, edit }}
              name="Cut out"
              path={`body.braces[${at}].open`}
              follows={0.6}
            />
          </div>
        ))}
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={() => edit(withBrace(design, { along: 'height' }), 'brace')}>
            <Icon name="plus" /> A brace
          </Button>
        </div>
        <Stiffer {...props} />
      </section>
      <FoldedWorkings ids={['board', 'mass']} design={design} />
    </div>
  );
}

const PLACE: Record<RawBrace['along'], string> = {
  width: 'Middle, from the left',
  height: 'Middle, from below',
  depth: 'Middle, from the back',
};

function middleOf({ inside }: BodyReport, along: RawBrace['along']): number {
  return (inside[{ width: 0, height: 1, depth: 2 }[along]] ?? 0) / 2;
}

/** Braces that the program proposes, and the same box of other materials. */
function Stiffer({ design, edit }: Props) {
  const [asked, setAsked] = useState<RawDesign | null>(null);
  const wanted = asked === design;
  const answer = useBoards(design, wanted);
  const found = answer.data;
  if (!wanted) {
    return (
      <div>
        <Button onClick={() => setAsked(design)}>Propose braces and compare materials</Button>
      </div>
    );
  }
  return (
    <div className="flex flex-col gap-2">
      <Message error={answer.error} />
      {answer.isPending && <p className="text-soft">Trying braces …</p>}
      {found && found.braces.length === 0 && (
        <p>
          {found.resonance >= found.wanted
            ? `The boards resonate at ${found.resonance.toFixed(0)} Hz, clear of the ${found.wanted.toFixed(0)} Hz that would be good here: no brace is needed.`
            : `No brace that leaves driver and ports alone raises the ${found.resonance.toFixed(0)} Hz; thicker or stiffer boards do.`}
        </p>
      )}
      {found && found.braces.length > 0 && (
        <div className="flex flex-wrap items-center justify-between gap-2 rounded-[3px] border border-line bg-card p-2">
          <p>
            {found.braces.length === 1 ? 'One brace' : `${found.braces.length} braces`} at unequal places{' '}
            {found.braces.length === 1 ? 'raises' : 'raise'} the weakest board from{' '}
            {found.resonance.toFixed(0)} to <b>{found.braced.toFixed(0)} Hz</b>.
          </p>
          <Button
            look="strong"
            onClick={() =>
              edit(
                withBody(design, { braces: [...(bodyOf(design).braces ?? []), ...found.braces] }),
                'braces',
              )
            }
          >
            Put them in
          </Button>
        </div>
      )}
      {found && (
        <Table
          caption="The same box, as thick, of other boards"
          rows={found.materials}
          keyOf={({ id }) => id}
          rowOf={({ source }) => ({ title: source })}
          columns={[
            { name: 'Of', names: true, cell: ({ name }) => name },
            { name: 'Weighs', kind: 'figure', cell: ({ mass }) => `${mass.toFixed(1)} kg` },
            { name: 'Resonance', kind: 'figure', cell: ({ resonance }) => `${resonance.toFixed(0)} Hz` },
            {
              name: 'Below the sound',
              kind: 'figure',
              cell: ({ panel_radiation: level }) =>
                level == null ? '–' : `${Math.abs(level).toFixed(0)} dB`,
            },
          ]}
        />
      )}
    </div>
  );
}

import { useAmplifierKinds } from '../../api/queries/signal';
import { FACES } from '../../model/body';
import { significant } from '../../model/units';
import type { AmplifierKind, RawAmplifier } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Select';
import { Table } from '../../ui/Table';
import { BuiltInFilters } from './BuiltInFilters';
import { type BlockProps, Titled, Values, Verdicts } from './block';
import { LaterAmplifier } from './LaterAmplifier';

/** An amplifier of a usual kind, as a design has it. */
export function ofKind(kind: AmplifierKind): RawAmplifier {
  const [eight, four, two] = kind.power;
  const [width, height, depth] = (kind.inside ?? []).map((length) => `${significant(length * 1e3, 3)} mm`);
  return {
    ...(eight != null && { power_8: `${eight} W` }),
    ...(four != null && { power_4: `${four} W` }),
    ...(two != null && { power_2: `${two} W` }),
    minimum_load: `${kind.minimum_load} ohm`,
    output_resistance: `${kind.output_resistance} ohm`,
    ...(width && height && depth && { mounting: { width, height, depth } }),
  };
}

/** The amplifier, and how it suits. */
export function AmplifierPanel(props: BlockProps) {
  const { variant, signal, onEdit } = props;
  const { design } = variant;
  const own = design.signal?.amplifier;
  const put = (amplifier: RawAmplifier, label: string) =>
    onEdit({ ...design, signal: { ...design.signal, amplifier } }, label);
  return (
    <Titled
      title="Amplifier"
      tools={
        own && (
          <Button
            onClick={() => {
              const { amplifier: _, ...signal } = design.signal ?? {};
              onEdit({ ...design, signal }, 'amplifier of the brief');
            }}
          >
            As in the brief
          </Button>
        )
      }
    >
      <UsualKinds
        onChoose={(kind) =>
          put({ ...ofKind(kind), ...(own?.filters && { filters: own.filters }) }, 'amplifier')
        }
        own={Boolean(own)}
      />
      <Values
        {...props}
        rows={[
          { name: 'Into 8 Ω', paths: ['signal.amplifier.power_8'], optional: true },
          { name: 'Into 4 Ω', paths: ['signal.amplifier.power_4'], optional: true },
          { name: 'Into 2 Ω', paths: ['signal.amplifier.power_2'], optional: true },
          {
            name: 'Into this load',
            paths: ['signal.amplifier.power', 'signal.amplifier.voltage'],
            optional: true,
          },
          { name: 'Current', paths: ['signal.amplifier.current'], optional: true },
          { name: 'Minimum load', paths: ['signal.amplifier.minimum_load'], optional: true },
          { name: 'Output resistance', paths: ['signal.amplifier.output_resistance'], optional: true },
        ]}
      />
      <Verdicts verdicts={signal?.amplifier.verdicts ?? []} />
      <BuiltInFilters amplifier={own} said={signal?.built_in ?? []} errors={props.errors} onEdit={put} />
      <Mounting {...props} onPut={put} />
      <LaterAmplifier {...props} />
      <p className="text-[0.929rem] text-soft">
        Mains inside a plate amplifier: follow the maker's instructions and local codes, and leave mains
        wiring to a licensed electrician.
      </p>
    </Titled>
  );
}

interface KindsProps {
  own: boolean;
  onChoose: (kind: AmplifierKind) => void;
}

/** Usual kinds of amplifiers with their values, to begin with. */
function UsualKinds({ own, onChoose }: KindsProps) {
  const kinds = useAmplifierKinds().data ?? [];
  const watts = (power: number | null | undefined) => (power == null ? '' : String(power));
  return (
    <details>
      <summary>
        {own ? 'Values from a usual kind …' : 'The amplifier of the brief; take a usual kind …'}
      </summary>
      <Table
        caption="Usual values, common practice. Those mounted in the box take up room there."
        rows={kinds}
        keyOf={({ id }) => id}
        rowOf={({ note }) => ({ title: note })}
        columns={[
          {
            name: 'Kind',
            names: true,
            cell: ({ name, note }) => (
              <>
                {name}
                <span className="block text-[0.857rem] text-soft leading-tight">{note}</span>
              </>
            ),
          },
          { name: 'W into 8, 4, 2 Ω', kind: 'figure', cell: ({ power }) => power.map(watts).join(' · ') },
          { name: 'Idle', kind: 'figure', cell: ({ idle }) => `${idle} W` },
          {
            name: 'Efficiency',
            kind: 'figure',
            cell: ({ efficiency }) => `${Math.round(efficiency * 100)} %`,
          },
          {
            name: 'Depth',
            kind: 'figure',
            cell: ({ inside }) => (inside ? `${Math.round((inside[2] ?? 0) * 1e3)} mm` : 'outside'),
          },
          {
            name: 'Use',
            kind: 'action',
            cell: (kind) => (
              <Button aria-label={`Use ${kind.name}`} onClick={() => onChoose(kind)}>
                Use
              </Button>
            ),
          },
        ]}
      />
    </details>
  );
}

/** Where the amplifier is mounted in the box, if it is. */
function Mounting(props: BlockProps & { onPut: (amplifier: RawAmplifier, label: string) => void }) {
  const { variant, onPut } = props;
  const own = variant.design.signal?.amplifier;
  const { mounting } = own ?? {};
  const put = (change: object) => onPut({ ...own, mounting: { ...mounting, ...change } }, 'mounting');
  return (
    <fieldset className="flex flex-col gap-1.5">
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={Boolean(mounting)}
          onChange={(event) => {
            const { mounting: _, ...rest } = own ?? {};
            onPut(
              event.target.checked
                ? { ...rest, mounting: { width: '210 mm', height: '210 mm', depth: '90 mm' } }
                : rest,
              'mounting',
            );
          }}
        />
        Mounted in the box, where it takes up room
      </label>
      {mounting && (
        <>
          <div className="flex items-center gap-3">
            <Select
              label="Board that it is mounted in"
              value={mounting.face ?? 'back'}
              options={FACES}
              onChange={(face) => put({ face })}
            />
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={mounting.open_back ?? false}
                onChange={(event) => put({ open_back: event.target.checked })}
              />
              its back is open: give it a chamber
            </label>
          </div>
          <Values
            {...props}
            rows={['width', 'height', 'depth', 'across', 'up'].map((name) => ({
              name: {
                width: 'Inside width',
                height: 'Inside height',
                depth: 'Depth',
                across: 'From the left',
                up: 'From below',
              }[name] as string,
              paths: [`signal.amplifier.mounting.${name}`],
              optional: name === 'across' || name === 'up',
            }))}
          />
        </>
      )}
    </fieldset>
  );
}

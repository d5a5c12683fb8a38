import { useAmplifierKinds } from '../../api/queries/signal';
import type { AmplifierKind } from '../../api/types';
import { inWords } from '../../model/preferences';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Select';
import { type BlockProps, Titled, Values } from './block';

/** The amplifier, and how it suits. */
export function AmplifierPanel(props: BlockProps) {
  const { variant, signal, onEdit } = props;
  const { design } = variant;
  const kinds = useAmplifierKinds();
  const choose = (kind: AmplifierKind | undefined) => {
    if (!kind) return;
    const [eight, four, two] = kind.power;
    const amplifier = {
      ...(eight != null && { power_8: `${eight} W` }),
      ...(four != null && { power_4: `${four} W` }),
      ...(two != null && { power_2: `${two} W` }),
      minimum_load: `${kind.minimum_load} ohm`,
      output_resistance: `${kind.output_resistance} ohm`,
    };
    onEdit({ ...design, signal: { ...design.signal, amplifier } }, 'amplifier');
  };
  const own = design.signal?.amplifier;
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
      <Select
        label="Kind of amplifier"
        value=""
        options={[
          [
            '',
            own ? 'Values from another kind …' : 'The amplifier of the brief; choose another kind …',
          ] as const,
          ...(kinds.data ?? []).map(({ id, name }) => [id, name] as const),
        ]}
        onChange={(id) => choose(kinds.data?.find((kind) => kind.id === id))}
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
      <ul className="flex flex-col gap-1.5">
        {signal?.amplifier.verdicts.map(({ name, met, words }) => (
          <li
            key={name}
            className={`rounded-[3px] border px-2 py-1 ${met === false ? 'border-short bg-short-wash' : 'border-line bg-card'}`}
          >
            <b className={met === false ? 'text-short' : met ? 'text-met' : ''}>
              {name}: {met === false ? 'not enough' : met ? 'suits' : 'look'}
            </b>{' '}
            {inWords(words)}
          </li>
        ))}
      </ul>
      <p className="text-[0.929rem] text-soft">
        Mains inside a plate amplifier: follow the maker's instructions and local codes, and leave mains
        wiring to a licensed electrician.
      </p>
    </Titled>
  );
}

import { inWords } from '../../model/preferences';
import { significant } from '../../model/units';
import type { RawPart, RawPartWiring } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Icon } from '../../ui/Icon';
import { type BlockProps, Titled, Values } from './block';
import { partsOf, withItem, withParts } from './filters';

const WIRINGS: readonly (readonly [RawPartWiring, string])[] = [
  ['series', 'In series'],
  ['across', 'Across'],
  ['trap', 'Trap'],
];

/** Series of preferred values (IEC 60063), the coarsest first. */
const SERIES = [
  ['e12', 'E12'],
  ['e24', 'E24'],
  ['e96', 'E96'],
] as const;

/** One passive part. */
export function PartPanel({ at, ...props }: BlockProps & { at: number }) {
  const { variant, signal, errors, onEdit, onSelect } = props;
  const { design } = variant;
  const parts = partsOf(design);
  const part = parts[at];
  if (!part) return null;
  const put = (next: RawPart, label = 'passive part') =>
    onEdit(withParts(design, withItem(parts, at, next)), label);
  const place = (name: string) => `signal.parts[${at}].${name}`;
  const error = errors.find(({ field }) => field === `signal.parts[${at}]`);
  const said = signal?.parts[at];
  return (
    <Titled
      title={`Part ${at + 1}`}
      tools={
        <>
          <Button
            aria-pressed={part.bypassed ?? false}
            onClick={() => put({ ...part, bypassed: !part.bypassed }, 'bypass')}
          >
            {part.bypassed ? 'Bypassed' : 'Bypass'}
          </Button>
          <Button
            aria-label="Remove this part"
            onClick={() => {
              onEdit(withParts(design, withItem(parts, at, null)), 'part removed');
              onSelect(parts.length > 1 ? `part-${Math.max(0, at - 1)}` : 'amplifier');
            }}
          >
            <Icon name="close" />
          </Button>
        </>
      }
    >
      <Choice
        label="Wiring of the part"
        value={part.wiring}
        options={WIRINGS}
        onChange={(wiring) => put({ ...part, wiring })}
      />
      <Values
        {...props}
        rows={[
          { name: 'R', paths: [place('resistance')], optional: true },
          { name: 'L', paths: [place('inductance')], optional: true },
          { name: 'DCR', paths: [place('coil_resistance')], optional: true },
          { name: 'C', paths: [place('capacitance')], optional: true },
          { name: 'ESR', paths: [place('capacitor_resistance')], optional: true },
        ]}
      />
      {error && (
        <p role="alert" className="text-short">
          {error.message}
        </p>
      )}
      {said && !part.bypassed && (
        <p>
          {inWords(said.name)}: up to {significant(said.heat, 2)} W of heat at {significant(said.heat_at, 2)}{' '}
          Hz with a sine of this drive, {significant(said.programme_heat, 2)} W with the programme;{' '}
          {significant(said.current, 2)} A peak.
        </p>
      )}
      {said?.wire && !part.bypassed && <p>{inWords(said.wire)}</p>}
      {said && said.sold.length > 0 && (
        <div className="flex flex-wrap items-center gap-1.5">
          <span className="text-soft">Sold:</span>
          {said.sold.map(({ field, ...values }) => (
            <span key={field} className="inline-flex gap-1">
              {SERIES.filter(
                ([id], at) => !SERIES.slice(0, at).some(([other]) => values[other] === values[id]),
              ).map(([id, name]) => (
                <Button
                  key={id}
                  aria-label={`${values[id]} (${name})`}
                  onClick={() => put({ ...part, [field]: values[id] })}
                >
                  {values[id]} <span className="text-soft">{name}</span>
                </Button>
              ))}
            </span>
          ))}
        </div>
      )}
    </Titled>
  );
}

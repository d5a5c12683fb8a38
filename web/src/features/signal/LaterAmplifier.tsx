import { inWords } from '../../model/preferences';
import { fieldAt } from '../../model/units';
import type { RawAmplifier, Typed } from '../../schema/types';
import { Button } from '../../ui/Button';
import { QuantityInput } from '../../ui/QuantityInput';
import { type BlockProps, Verdicts } from './block';

const NAMES = ['power_8', 'power_4', 'power_2', 'minimum_load'] as const;

/** A larger amplifier that is to come later: whether drivers and box will suit it too. */
export function LaterAmplifier({ variant, signal, errors, onEdit }: BlockProps) {
  const { design } = variant;
  const later = design.signal?.later_amplifier;
  const put = (next: RawAmplifier | null) => {
    const { later_amplifier: _, ...rest } = design.signal ?? {};
    onEdit({ ...design, signal: next ? { ...rest, later_amplifier: next } : rest }, 'later amplifier');
  };
  if (!later) {
    return (
      <p>
        <Button onClick={() => put({ ...design.signal?.amplifier, power_4: '500 W', minimum_load: '4 ohm' })}>
          An amplifier for later …
        </Button>
      </p>
    );
  }
  const found = signal?.later;
  return (
    <section aria-label="Later amplifier" className="flex flex-col gap-1.5">
      <div className="flex items-center gap-1.5">
        <h3 className="flex-1 font-semibold">Later amplifier</h3>
        <Button onClick={() => put(null)}>Remove</Button>
      </div>
      <div className="grid grid-cols-2 gap-x-4 gap-y-[3px]">
        {later.mounting && (
          <Depth
            typed={later.mounting.depth ?? null}
            error={errors.find(({ field }) => field === 'signal.later_amplifier.mounting.depth')?.message}
            onType={(depth) => put({ ...later, mounting: { ...later.mounting, depth } })}
          />
        )}
        {NAMES.map((name) => {
          const field = fieldAt(`signal.amplifier.${name}`);
          return (
            <div key={name} className="grid grid-cols-[minmax(0,1fr)_6.6rem] items-center gap-2">
              <span aria-hidden="true">{field.symbol}</span>
              <QuantityInput
                label={`Later, ${field.symbol}`}
                fields={[field]}
                typed={(later[name] as Typed | undefined) ?? null}
                optional
                error={errors.find((error) => error.field === `signal.later_amplifier.${name}`)?.message}
                className="font-mono text-[0.929rem]"
                onType={(_, typed) => {
                  const { [name]: _old, ...rest } = later;
                  put(typed === null ? rest : { ...rest, [name]: typed });
                }}
              />
            </div>
          );
        })}
      </div>
      {found && (
        <>
          {found.louder != null && (
            <p>
              {inWords(
                `${found.louder >= 0 ? '+' : '−'}${Math.abs(found.louder).toFixed(1)} dB where the amplifier is what limits it.`,
              )}
            </p>
          )}
          <Verdicts verdicts={found.amplifier.verdicts} />
        </>
      )}
    </section>
  );
}

interface DepthProps {
  typed: Typed | null;
  error: string | undefined;
  onType: (typed: Typed | null) => void;
}

/** How deep the later one reaches into the box. */
function Depth({ typed, error, onType }: DepthProps) {
  const field = fieldAt('signal.amplifier.mounting.depth');
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_6.6rem] items-center gap-2">
      <span aria-hidden="true">{field.symbol}</span>
      <QuantityInput
        label={`Later, ${field.symbol}`}
        fields={[field]}
        typed={typed}
        error={error}
        className="font-mono text-[0.929rem]"
        onType={(_, next) => onType(next)}
      />
    </div>
  );
}

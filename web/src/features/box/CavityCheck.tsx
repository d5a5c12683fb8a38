import { useDeferredValue, useState } from 'react';
import { useRing, useRingInFull } from '../../api/queries/box';
import { markAt } from '../../model/mark';
import { inWords } from '../../model/preferences';
import type { CavityCheckCurves, RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Message } from '../../ui/Message';
import { Chart } from '../workbench/Chart';

interface Props {
  design: RawDesign;
}

type Curve = keyof CavityCheckCurves;

const CURVES = [
  ['impedance', 'Impedance'],
  ['port', 'Port alone'],
  ['level', 'SPL'],
] as const satisfies readonly (readonly [Curve, string])[];

/** What the waves do to impedance and sound, beside a box that is only a spring. */
export function CavityCheck({ design }: Props) {
  const looked = useDeferredValue(design);
  const [curve, setCurve] = useState<Curve>('impedance');
  // Asked for once and for one state of the design: it takes a second or two.
  const [full, setFull] = useState<RawDesign | null>(null);
  const deep = full === design;
  const [share, setShare] = useState(0);
  const quick = useRing(looked);
  const whole = useRingInFull(design, deep, setShare);
  const found = (deep && whole.data) || quick.data;
  if (quick.data === null) return null;
  const values = found && [found.lumped[curve], found.cavity[curve]];
  return (
    <section aria-label="Standing-wave check" className="flex flex-col gap-1.5">
      <h3>Standing-wave check</h3>
      <Message error={whole.error ?? quick.error} />
      {found && <p>{inWords(found.words)}</p>}
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label="Curve of the standing-wave check"
          value={curve}
          options={CURVES.filter(([id]) => id !== 'port' || (found?.lumped.port.length ?? 1) > 0)}
          onChange={setCurve}
        />
        {deep && whole.isFetching ? (
          <>
            <progress aria-label="Solving in three directions" className="h-2 w-40" max={1} value={share} />
            <span className="text-soft">Solving in three directions …</span>
            <Button onClick={() => setFull(null)}>Cancel</Button>
          </>
        ) : (
          <Button
            disabled={deep}
            onClick={() => {
              setShare(0);
              setFull(design);
            }}
          >
            {deep ? 'In three directions' : 'Check in three directions'}
          </Button>
        )}
      </div>
      {found && values && (
        <Chart
          label="What the waves do"
          lines={values.map((line = [], place) => ({
            place,
            mark: markAt(place ? 0 : 1),
            strong: place === 1,
            secondary: false,
            frequency: found.frequency,
            values: line,
            name: place ? 'with waves' : 'a spring',
          }))}
          range={rangeOf(
            curve,
            values.flatMap((line) => line ?? []),
          )}
          height={190}
        />
      )}
      <p className="text-[0.929rem] text-soft">
        {found?.model === 'full'
          ? `Helmholtz's equation on spectral elements, ${found.unknowns} unknowns, reduced; off by ${((found.error ?? 0) * 100).toPrecision(1)} % where it was compared in full.`
          : 'The box as ducts along its longest side. Layers of fill count where they lie across it.'}
      </p>
    </section>
  );
}

function rangeOf(curve: Curve, values: number[]): readonly [number, number] {
  const most = Math.max(...values, 1);
  if (curve === 'impedance') return [0, Math.ceil(most / 10) * 10];
  const top = Math.ceil((most + 2) / 5) * 5;
  return [top - 60, top];
}

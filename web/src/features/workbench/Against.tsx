import { inWords } from '../../model/preferences';
import { linear } from '../../model/scale';
import { significant } from '../../model/units';
import type { Sweep } from '../../schema/types';
import { useSize } from '../../ui/size';
import { Term } from '../../ui/Term';
import { parameterValue } from './suggestions';
import { type Column, columnsOf, curveOf } from './swept';

/** Every figure as a curve against the value that is turned. */
export function Against({ sweep }: { sweep: Sweep }) {
  const parameter = sweep.parameters.find(({ id }) => id === sweep.parameter);
  if (!parameter) return null;
  return (
    <section aria-label={`Figures against ${parameter.name.toLowerCase()}`} className="mt-2">
      <h3 className="mb-1">
        Figures against {parameter.name.toLowerCase()}, {inWords(parameterValue(sweep.from, parameter))} to{' '}
        {inWords(parameterValue(sweep.to, parameter))}
      </h3>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-4 gap-y-2">
        {columnsOf(sweep).map((column) => (
          <Small key={column.name} sweep={sweep} column={column} />
        ))}
      </div>
    </section>
  );
}

const HEIGHT = 54;
const EDGE = 5;

function Small({ sweep, column }: { sweep: Sweep; column: Column }) {
  const [box, size] = useSize<HTMLElement>();
  const curve = curveOf(sweep, column);
  if (!curve) return null;
  const x = linear([0, 1], [EDGE, size.width - EDGE]);
  const y = linear([0, 1], [HEIGHT - EDGE, EDGE]);
  const said = (value: number) => inWords(`${significant(value, column.digits)} ${column.unit}`);
  const words =
    said(curve.least) === said(curve.most) ? said(curve.most) : `${said(curve.least)} to ${said(curve.most)}`;
  return (
    <figure ref={box} className="m-0 min-w-0" aria-label={`${column.name}: ${words}`}>
      <figcaption className="truncate text-[0.929rem]">
        <Term name={column.name} />
      </figcaption>
      {size.width > 0 && (
        <svg
          width={size.width}
          height={HEIGHT}
          aria-hidden="true"
          className="rounded-[3px] border border-line bg-card"
        >
          <path
            d={`M${curve.points.map((point) => `${x(point.x)} ${y(point.y)}`).join('L')}`}
            fill="none"
            stroke="var(--oak)"
            strokeWidth="1.8"
          />
          {curve.points.map((point) => (
            <circle
              key={point.x}
              cx={x(point.x)}
              cy={y(point.y)}
              r={point.now ? 4 : 2}
              fill={point.now ? 'var(--card)' : 'var(--oak)'}
              stroke="var(--oak)"
              strokeWidth={point.now ? 2 : 0}
            />
          ))}
        </svg>
      )}
      <p className="truncate text-right font-mono text-[0.893rem] text-soft">{words}</p>
    </figure>
  );
}

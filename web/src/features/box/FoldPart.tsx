import { useDeferredValue } from 'react';
import { useFolds } from '../../api/queries/box';
import { bodyOf, withFold } from '../../model/body';
import { inWords } from '../../model/preferences';
import type { FoldReport, RawFace, RawFold } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Table } from '../../ui/Table';
import { BodyField, type Editing } from './BodyField';

interface Props extends Editing {
  fold: FoldReport;
}

const STACKS = [
  ['level', 'One below the other'],
  ['upright', 'One behind the other'],
] as const satisfies readonly (readonly [NonNullable<RawFold['stack']>, string])[];

const LEVEL_ENDS = [
  ['front', 'Front'],
  ['back', 'Back'],
] as const satisfies readonly (readonly [RawFace, string])[];

const UPRIGHT_ENDS = [
  ['bottom', 'Bottom'],
  ['top', 'Top'],
] as const satisfies readonly (readonly [RawFace, string])[];

const CORNERS = [
  ['square', 'Square'],
  ['mitred', 'Mitred'],
  ['curved', 'Curved'],
] as const satisfies readonly (readonly [NonNullable<RawFold['corner']>, string])[];

/** One size, or several after each other. */
const mm = (...metres: number[]) => inWords(`${metres.map((one) => (one * 1e3).toFixed(0)).join(' × ')} mm`);

/** How the way of a line or horn lies in its box, and how far that is from what was asked. */
export function FoldPart({ fold, ...editing }: Props) {
  const { design, edit } = editing;
  const raw = bodyOf(design).fold ?? {};
  const upright = raw.stack === 'upright';
  const [asked = 0, built = 0] = fold.length;
  return (
    <section aria-label="The folded path" className="flex flex-col gap-2">
      <h3>The folded path</h3>
      <p>{inWords(fold.words)}</p>
      <Areas fold={fold} />
      <div className="grid gap-x-5 gap-y-1 sm:grid-cols-2">
        <BodyField
          {...editing}
          name="Folds"
          path="body.fold.folds"
          follows={fold.folds}
          write={(typed) => withFold(design, { folds: typed, panels: null })}
        />
        <BodyField
          {...editing}
          name="Boards between"
          path="body.fold.thickness"
          follows={0.018}
          write={(typed) => withFold(design, { thickness: typed })}
        />
      </div>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <span>Channels lie</span>
        <Choice
          label="How the channels lie"
          value={raw.stack ?? 'level'}
          options={STACKS}
          onChange={(stack) => edit(withFold(design, { stack, mouth: null }), 'fold')}
        />
      </div>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <span>Opens at the</span>
        <Choice
          label="Where the path opens"
          value={raw.mouth ?? (upright ? 'bottom' : 'front')}
          options={upright ? UPRIGHT_ENDS : LEVEL_ENDS}
          onChange={(mouth) => edit(withFold(design, { mouth }), 'mouth')}
        />
      </div>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <span>Corners</span>
        <Choice
          label="How the corners are built"
          value={raw.corner ?? 'square'}
          options={CORNERS}
          onChange={(corner) => edit(withFold(design, { corner }), 'corners')}
        />
      </div>
      <p className="text-[0.929rem] text-soft">
        {inWords(
          `Asked for ${asked.toFixed(3)} m, built ${built.toFixed(3)} m. Builders differ on how long a corner is: these boards make ` +
            `${(fold.corners[0] ?? 0).toFixed(2)} m along the middle of square corners, ${(fold.corners[1] ?? 0).toFixed(2)} m with a ` +
            `board across each, ${(fold.corners[2] ?? 0).toFixed(2)} m with rounded ones.`,
        )}
      </p>
      {fold.panels.length > 0 && <Boards {...editing} fold={fold} />}
      <Offers {...editing} chosen={fold.folds} />
    </section>
  );
}

const CHART = { width: 400, height: 116, left: 44, bottom: 20 };

/** Area along the path: asked for, and as built. */
function Areas({ fold }: { fold: FoldReport }) {
  const { along, wanted, built, length } = fold;
  const most = Math.max(...wanted, ...built) * 1.06;
  const x = (part: number) => CHART.left + part * (CHART.width - CHART.left - 6);
  const y = (area: number) => 6 + (1 - area / most) * (CHART.height - 6 - CHART.bottom);
  const path = (areas: number[]) =>
    `M${along.map((part, at) => `${x(part).toFixed(1)} ${y(areas[at] ?? 0).toFixed(1)}`).join('L')}`;
  const square = (area: number) => `${Math.round(area * 1e4)} cm²`;
  return (
    <svg
      viewBox={`0 0 ${CHART.width} ${CHART.height}`}
      className="w-full max-w-[34rem]"
      role="img"
      aria-label={`Area along the path, from ${square(wanted[0] ?? 0)} to ${square(wanted.at(-1) ?? 0)} as asked for, from ${square(built[0] ?? 0)} to ${square(built.at(-1) ?? 0)} as built`}
    >
      <path
        d={`M${CHART.left} 6V${CHART.height - CHART.bottom}H${CHART.width - 6}`}
        fill="none"
        stroke="var(--rule-line)"
      />
      {[0.5, 1].map((part) => (
        <text
          key={part}
          x={CHART.left - 5}
          y={y(most * part * 0.94) + 4}
          textAnchor="end"
          fontSize="11"
          fill="var(--soft)"
          className="font-mono"
        >
          {Math.round((most * part * 0.94) / 1e-4)}
        </text>
      ))}
      <text x={CHART.left + 4} y={15} fontSize="11" fill="var(--soft)">
        cm²
      </text>
      <text x={CHART.left} y={CHART.height - 5} fontSize="11" fill="var(--soft)">
        beginning
      </text>
      <text x={CHART.width - 6} y={CHART.height - 5} fontSize="11" textAnchor="end" fill="var(--soft)">
        {inWords(`mouth, ${(length[1] ?? 0).toFixed(2)} m`)}
      </text>
      <path d={path(wanted)} fill="none" stroke="var(--river)" strokeWidth="1.5" strokeDasharray="5 4" />
      <path d={path(built)} fill="none" stroke="var(--oak)" strokeWidth="2" />
      <text x={CHART.width / 2} y={14} fontSize="11" textAnchor="end" fill="var(--river)">
        asked for - -
      </text>
      <text x={CHART.width / 2 + 14} y={14} fontSize="11" fill="var(--oak)">
        built —
      </text>
    </svg>
  );
}

function Boards({ fold, ...editing }: Editing & { fold: FoldReport }) {
  const { design } = editing;
  const upright = bodyOf(design).fold?.stack === 'upright';
  return (
    <Table
      caption="Boards between the channels"
      captionHidden
      rows={fold.panels}
      keyOf={(_, at) => at}
      rowOf={() => ({ className: 'align-top' })}
      columns={[
        { name: 'Board', names: true, cell: (_, at) => at + 1 },
        { name: 'Length × width', kind: 'figure', cell: ({ length, width }) => mm(length, width) },
        {
          name: upright ? 'From the front: wall, free end' : 'From the top: wall, free end',
          kind: 'figure',
          cell: ({ stands, middle }, at) => (
            <>
              {`${mm(stands[0] ?? 0)}, ${mm(stands[1] ?? 0)}`}
              <div className="ml-auto max-w-64 font-sans">
                <BodyField
                  {...editing}
                  name={`Middle of board ${at + 1}`}
                  path={`body.fold.panels[${at}].at`}
                  follows={middle}
                  write={(typed) => {
                    const panels = [...(bodyOf(design).fold?.panels ?? [])];
                    while (panels.length <= at) panels.push({});
                    panels[at] = typed === null ? {} : { at: typed };
                    return withFold(design, { panels });
                  }}
                />
              </div>
            </>
          ),
        },
        { name: 'Gap', kind: 'figure', cell: ({ gap }) => mm(gap) },
      ]}
    />
  );
}

interface OffersProps extends Editing {
  chosen: number;
}

/** The same way with other numbers of folds. */
function Offers({ design, edit, chosen }: OffersProps) {
  const offers = useFolds(useDeferredValue(design));
  if (!offers.data?.length) return null;
  return (
    <Table
      caption={<span className="font-semibold text-ink">Folded other times</span>}
      rows={offers.data}
      keyOf={({ folds }) => folds}
      columns={[
        {
          name: 'Folds',
          names: true,
          cell: ({ folds, fits }) => (
            <>
              {folds}
              {!fits && <span className="text-short"> · not everything fits</span>}
            </>
          ),
        },
        { name: 'Width × height × depth', className: 'font-mono', cell: ({ outside }) => mm(...outside) },
        { name: 'Area off by', kind: 'figure', cell: ({ off }) => percent(off) },
        { name: 'Length', kind: 'figure', cell: ({ length_off }) => percent(length_off) },
        {
          name: 'Use it',
          kind: 'action',
          cell: ({ folds }) =>
            folds === chosen ? (
              <span className="text-soft">now</span>
            ) : (
              <Button
                look="quiet"
                aria-label={`Use ${folds} ${folds === 1 ? 'fold' : 'folds'}`}
                onClick={() => edit(withFold(design, { folds, panels: null }), 'folds')}
              >
                Use
              </Button>
            ),
        },
      ]}
    />
  );
}

const percent = (share: number) =>
  `${share > 0 ? '+' : share < 0 ? '−' : ''}${Math.abs(share * 100).toFixed(0)} %`;

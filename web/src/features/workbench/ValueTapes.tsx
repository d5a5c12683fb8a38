import type { FieldError, RawDesign, Report, Typed } from '../../api/types';
import { siAt, valueAt, withValue } from '../../model/design';
import { type Field, fieldAt } from '../../model/units';
import type { OnBench, Workbench } from '../../model/workbench';
import { Explained, type Explaining } from '../../ui/Explained';
import { Tape } from '../../ui/Tape';

interface Row {
  name: string;
  /** Places the value may stand at; the first unless another is in use. */
  paths: [string, ...string[]];
  /** What it comes to where it is not given. */
  follows?: (report: Report) => number | null | undefined;
}

const PORT = 'enclosure.ports[0]';
const VOLUME: Row = { name: 'Volume Vb', paths: ['enclosure.volume'] };
const TUNING: Row = {
  name: 'Tuning Fb',
  paths: ['enclosure.tuning'],
  follows: ({ figures }) => figures.fb,
};
const SIZES: Record<string, Row[]> = {
  round: [{ name: 'Diameter', paths: [`${PORT}.diameter`] }],
  slot: [
    { name: 'Slot width', paths: [`${PORT}.width`] },
    { name: 'Slot height', paths: [`${PORT}.height`] },
  ],
};
const LENGTH: Row = {
  name: 'Port length',
  paths: [`${PORT}.length`],
  follows: ({ figures }) => figures.ports[0]?.length,
};
const DRIVE: Row = {
  name: 'Drive',
  paths: ['drive.voltage', 'drive.power'],
  follows: (report) => report.volts,
};
const COUNT: Row = { name: 'Ports', paths: [`${PORT}.count`], follows: () => 1 };
const LOSSES: Row[] = [
  { name: 'Leaks QL', paths: ['enclosure.ql'] },
  { name: 'Lining QA', paths: ['enclosure.qa'] },
];

/** The values that get a rule, and those that are only typed or nudged. */
function rowsOf({ enclosure }: RawDesign): { ruled: Row[]; plain: Row[] } {
  if (enclosure.family === 'sealed') return { ruled: [VOLUME, DRIVE], plain: LOSSES };
  const sizes = SIZES[enclosure.ports?.[0]?.shape ?? 'round'] ?? [];
  return { ruled: [VOLUME, TUNING, ...sizes, LENGTH, DRIVE], plain: [COUNT, ...LOSSES] };
}

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
}

/** Every value of the cabinet. */
export function ValueTapes(props: Props) {
  const { ruled, plain } = rowsOf(props.variant.design);
  return (
    <Explained otherwise="Drag a rule, press the arrow keys (Shift for ten steps), or type a value with its unit.">
      {(explain) => (
        <div className="mb-1 flex flex-col gap-[3px]">
          {ruled.map((row) => (
            <Value key={row.name} row={row} explain={explain} {...props} />
          ))}
          <div className="flex gap-3">
            {plain.map((row) => (
              <Value key={row.name} row={row} plain explain={explain} {...props} />
            ))}
          </div>
        </div>
      )}
    </Explained>
  );
}

interface ValueProps extends Props {
  row: Row;
  plain?: boolean;
  explain: (field: Field) => Explaining;
}

function Value({ row, plain, explain, variant, workbench, report, errors }: ValueProps) {
  const { design, id } = variant;
  const place = row.paths.find((path) => valueAt(design, path) !== null) ?? row.paths[0];
  const given = valueAt(design, place);
  const fields = [place, ...row.paths.filter((path) => path !== place)].map(fieldAt) as [Field, ...Field[]];
  const si = given === null ? report && row.follows?.(report) : siAt(design, place);
  const set = (field: Field, typed: Typed) => {
    const target = place.replace(/\w+$/, field.path.split('.').at(-1) ?? '');
    workbench.preview(id, withValue(design, target, typed));
  };
  return (
    <div data-path={place} {...explain(fields[0])}>
      <Tape
        key={id}
        name={row.name}
        fields={fields}
        typed={given}
        si={si ?? null}
        plain={plain}
        told={errors.find((error) => row.paths.includes(error.field))?.message}
        onPreview={set}
        onType={(field, typed) => {
          set(field, typed);
          workbench.settle(row.name);
        }}
        onSettle={() => workbench.settle(row.name)}
      />
    </div>
  );
}

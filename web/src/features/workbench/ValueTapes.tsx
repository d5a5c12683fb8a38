import type { FieldError, RawDesign, Report, Typed } from '../../api/types';
import { siAt, valueAt, withValue } from '../../model/design';
import { type Field, fieldAt } from '../../model/units';
import type { OnBench, Workbench } from '../../model/workbench';
import { Tape } from '../../ui/Tape';

interface Row {
  name: string;
  /** Places the value may stand at; the first unless another is in use. */
  paths: [string, ...string[]];
  /** What it comes to where it is not given. */
  follows?: (report: Report) => number | null | undefined;
  /** Written elsewhere in the file, but something else has been given the last word. */
  overruled?: (design: RawDesign) => boolean;
}

const PORT = 'enclosure.ports[0]';
const VOLUME: Row = { name: 'Volume Vb', paths: ['enclosure.volume'] };
const LOSSES: Row[] = [
  { name: 'Leaks QL', paths: ['enclosure.ql'] },
  { name: 'Lining QA', paths: ['enclosure.qa'] },
];
const DRIVE: Row = {
  name: 'Drive',
  paths: ['drive.voltage', 'drive.power'],
  follows: (report) => report.volts,
};
const TUNING: Row = {
  name: 'Tuning Fb',
  paths: ['enclosure.tuning'],
  follows: ({ figures }) => figures.fb,
  overruled: (design) => !!design.enclosure.ports?.every((port) => port.length),
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
const COUNT: Row = { name: 'Ports', paths: [`${PORT}.count`], follows: () => 1 };

function rowsOf({ enclosure }: RawDesign): Row[] {
  if (enclosure.family === 'sealed') return [VOLUME, ...LOSSES, DRIVE];
  const sizes = SIZES[enclosure.ports?.[0]?.shape ?? 'round'] ?? [];
  return [VOLUME, TUNING, ...sizes, LENGTH, COUNT, ...LOSSES, DRIVE];
}

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
}

/** Every value of the cabinet as a rule. */
export function ValueTapes({ variant, workbench, report, errors }: Props) {
  const { design, id } = variant;
  const set = (field: Field, place: string, typed: Typed) =>
    workbench.preview(
      id,
      withValue(design, place.replace(/\.\w+$/, `.${field.path.split('.').at(-1)}`), typed),
    );
  return rowsOf(design).map((row) => {
    const place = row.paths.find((path) => valueAt(design, path) !== null) ?? row.paths[0];
    const given = row.overruled?.(design) ? null : valueAt(design, place);
    const fields = [place, ...row.paths.filter((path) => path !== place)].map(fieldAt) as [Field, ...Field[]];
    const si = given === null ? report && row.follows?.(report) : siAt(design, place);
    return (
      <div key={row.name} data-path={place}>
        <Tape
          key={id}
          name={row.name}
          fields={fields}
          typed={given}
          si={si ?? null}
          told={errors.find((error) => row.paths.includes(error.field))?.message}
          onPreview={(field, typed) => set(field, place, typed)}
          onType={(field, typed) => {
            set(field, place, typed);
            workbench.settle(row.name);
          }}
          onSettle={() => workbench.settle(row.name)}
        />
      </div>
    );
  });
}

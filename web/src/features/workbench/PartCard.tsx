import { Popover } from 'radix-ui';
import { fieldAt, hertz } from '../../model/units';
import type { OnBench, Workbench } from '../../model/workbench';
import type { FieldError, Report } from '../../schema/types';
import type { Target } from '../../section/scene';
import { HelpText } from '../../ui/HelpText';
import { groupsOf, type Row } from './groups';
import { Value } from './ValueTapes';

export interface OpenPart {
  target: Target;
  part: Element;
}

interface Props {
  open: OpenPart;
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
  onClose: () => void;
}

/** The numbers of a part, beside it. */
export function PartCard({ open, variant, workbench, report, errors, onClose }: Props) {
  const rows = rowsOf(variant, open.target.path);
  const [name] = open.target.label.split(':');
  const said = report ? facts(report, open.target.path) : '';
  return (
    <Popover.Root open onOpenChange={(next) => !next && onClose()}>
      <Popover.Anchor virtualRef={{ current: open.part }} />
      <Popover.Portal>
        <Popover.Content
          aria-label={name ?? ''}
          side="left"
          sideOffset={8}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            (open.part as SVGElement).focus();
          }}
          className="z-40 w-[25rem] rounded-md border border-line bg-paper p-3 shadow-xl"
        >
          <h2 className="mb-1.5 text-[1.071rem]">{name}</h2>
          <HelpText otherwise={said}>
            {(explain) => (
              <div className="mb-1 flex flex-col gap-[3px]">
                {rows.map((row) => (
                  <Value
                    key={row.paths[0]}
                    row={row}
                    plain={fieldAt(row.paths[0]).path.endsWith('.count')}
                    explain={explain}
                    variant={variant}
                    workbench={workbench}
                    report={report}
                    errors={errors}
                  />
                ))}
              </div>
            )}
          </HelpText>
          {rows.length > 0 && said && <p className="text-[0.929rem]">{said}</p>}
          <Popover.Arrow className="fill-line" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Every value whose place begins with that of the part. */
function rowsOf({ design }: OnBench, path: string): Row[] {
  const all = groupsOf(design).flatMap(({ ruled, plain }) => [...ruled, ...plain]);
  const seen = new Set<string>();
  return all.filter(({ paths }) => {
    const [first] = paths;
    const within = paths.some((at) => at.startsWith(path)) && !seen.has(first);
    seen.add(first);
    return within;
  });
}

function facts({ figures }: Report, path: string): string {
  if (!path.includes('ports')) return '';
  const index = Number(/\[(\d+)\]/.exec(path)?.[1] ?? 0);
  const list =
    path.startsWith('enclosure.front') || !figures.rear_ports.length ? figures.ports : figures.rear_ports;
  const port = list[index];
  const air = figures.air_speed;
  return [
    port && `First resonance of the pipe ${hertz(port.pipe_resonance)}.`,
    air && `Air up to ${air.value.toFixed(1)} m/s at ${hertz(air.frequency)} at the drive that is set.`,
  ]
    .filter(Boolean)
    .join(' ');
}

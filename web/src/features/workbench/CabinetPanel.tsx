import { useRef } from 'react';
import type { FieldError, RawDesign, RawPort, Report } from '../../api/types';
import { type Family, type Shape, withFamily, withShape } from '../../model/design';
import { markAt } from '../../model/mark';
import type { OnBench, Workbench } from '../../model/workbench';
import { type Part, Section } from '../../section/Section';
import { Choice } from '../../ui/Choice';
import { MarkGlyph } from '../../ui/MarkGlyph';
import { TextInput } from '../../ui/TextInput';
import { ValueTapes } from './ValueTapes';

interface Props {
  variant: OnBench;
  workbench: Workbench;
  report: Report | undefined;
  errors: FieldError[];
  onDriver: () => void;
}

const FAMILIES = [
  ['sealed', 'Sealed'],
  ['ported', 'Ported'],
] as const;
const SHAPES = [
  ['round', 'Round'],
  ['slot', 'Slot'],
] as const;
const INNER_ENDS: [NonNullable<RawPort['inner_end']>, string][] = [
  ['free', 'ends free in the box'],
  ['one_wall', 'along one wall'],
  ['two_walls', 'along two walls'],
  ['three_walls', 'along three walls'],
  ['flanged', 'ends in a wide wall'],
];

/** The active variant: its cabinet drawn to scale and every value that makes it. */
export function CabinetPanel({ variant, workbench, report, errors, onDriver }: Props) {
  const tapes = useRef<HTMLDivElement>(null);
  const { design, id } = variant;
  const edit = (next: RawDesign, label: string) => workbench.edit(id, next, label);

  function onPart(part: Part) {
    if (part === 'driver') return onDriver();
    const wanted = part === 'box' ? 'enclosure.volume' : 'enclosure.ports[0]';
    tapes.current?.querySelector<HTMLElement>(`[data-path^="${wanted}"] input`)?.focus();
  }

  return (
    <section aria-label="Cabinet" className="flex h-full min-h-0 flex-col gap-1.5">
      <div className="flex items-center gap-2">
        <MarkGlyph mark={markAt(variant.place)} size={14} />
        <TextInput
          label="Name of the variant"
          value={design.name ?? ''}
          longest={120}
          className="flex-1 font-head font-semibold text-[16px]"
          onChange={(name) => edit({ ...design, name }, 'name')}
        />
        <Choice<Family>
          label="Kind of cabinet"
          value={design.enclosure.family}
          options={FAMILIES}
          onChange={(family) => edit(withFamily(design, family), 'kind of cabinet')}
        />
      </div>
      <div className="flex items-center gap-2">
        <button
          type="button"
          onClick={onDriver}
          className="min-w-0 flex-1 truncate rounded-[3px] border border-line bg-card px-2 py-1 text-left hover:border-oak"
        >
          <span className="text-soft">Driver </span>
          <span className="font-semibold">{design.driver.name || 'without a name'}</span>
          {report && <span className="text-soft"> · {driverWords(report)}</span>}
        </button>
      </div>
      <div className="min-h-0 flex-1">
        {report && <Section design={design} report={report} onPart={onPart} />}
      </div>
      {design.enclosure.family === 'ported' && (
        <PortKind design={design} onChange={(next) => edit(next, 'port')} />
      )}
      <div ref={tapes} className="shrink-0">
        <ValueTapes variant={variant} workbench={workbench} report={report} errors={errors} />
      </div>
    </section>
  );
}

function driverWords({ driver }: Report): string {
  return `Fs ${driver.fs.toFixed(0)} Hz, Qts ${driver.qts.toFixed(2)}, Vas ${(driver.vas * 1e3).toFixed(0)} l`;
}

function PortKind({ design, onChange }: { design: RawDesign; onChange: (next: RawDesign) => void }) {
  const ports = design.enclosure.ports ?? [];
  const [port] = ports;
  if (!port) return null;
  const setEnd = (inner_end: RawPort['inner_end']) =>
    onChange({
      ...design,
      enclosure: { ...design.enclosure, ports: [{ ...port, inner_end }, ...ports.slice(1)] },
    });
  return (
    <div className="flex items-center gap-2">
      <Choice<Shape>
        label="Shape of the port"
        value={port.shape}
        options={SHAPES}
        onChange={(shape) => onChange(withShape(design, shape))}
      />
      <select
        aria-label="Inner end of the port"
        className="field min-w-0 flex-1"
        value={port.inner_end ?? 'free'}
        onChange={(event) => setEnd(event.target.value as RawPort['inner_end'])}
      >
        {INNER_ENDS.map(([end, words]) => (
          <option key={end} value={end}>
            {words}
          </option>
        ))}
      </select>
      {ports.length > 1 && <span className="text-soft">and {ports.length - 1} more in the file</span>}
    </div>
  );
}

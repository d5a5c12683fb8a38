import { significant } from '../../model/units';
import type { Row } from '../workbench/groups';
import { AmplifierPanel } from './AmplifierPanel';
import { type BlockProps, Titled, Values } from './block';
import { FilterPanel } from './FilterPanel';
import { PartPanel } from './PartPanel';

/** The chosen block: its values, what it does, and what is to be minded. */
export function BlockPanel({ block, ...props }: BlockProps & { block: string }) {
  const [kind, index] = block.split('-');
  const at = Number(index);
  switch (kind) {
    case 'filter':
      return <FilterPanel key={at} at={at} {...props} />;
    case 'part':
      return <PartPanel key={at} at={at} {...props} />;
    case 'amplifier':
      return <AmplifierPanel {...props} />;
    case 'cable':
      return (
        <Titled title="Cable">
          <Values
            {...props}
            rows={[
              { name: 'Cable length', paths: ['driver_array.cable_length'], optional: true },
              {
                name: 'Cable core',
                paths: ['driver_array.cable_area'],
                follows: () => 2.5e-6,
                optional: true,
              },
              { name: 'Series resistance', paths: ['driver_array.series_resistance'], optional: true },
            ]}
          />
          {props.signal && (
            <p>
              {significant(props.signal.cable, 2)} Ω in all cost {props.signal.cable_loss.toFixed(1)} dB, and
              Qes rises in the same ratio. Length is one way; the current takes it twice.
            </p>
          )}
        </Titled>
      );
    case 'source':
      return <SourcePanel {...props} />;
    default:
      return <DriversPanel {...props} />;
  }
}

function SourcePanel(props: BlockProps) {
  return (
    <Titled title="Signal">
      <Values {...props} plain={false} rows={[DRIVE]} />
      <p>
        The level where no filter changes it: all that the amplifier gives, unless it is set here. The Drive
        lane shows what the filters make of it.
      </p>
      {props.signal && (
        <p className="text-soft">
          The cone begins to beam at {significant(props.signal.beams, 2)} Hz (ka = 1): cross over well below.
        </p>
      )}
    </Titled>
  );
}

const DRIVE: Row = {
  name: 'Drive',
  paths: ['signal.drive.power', 'signal.drive.voltage'],
  follows: (report) => report.volts,
  optional: true,
};

function DriversPanel({ report, signal }: BlockProps) {
  if (!report || !signal) return null;
  const { impedance_minimum: lowest } = report.figures;
  return (
    <Titled title="Drivers">
      <p>
        {report.used.count === 1 ? 'One driver' : `${report.used.count} drivers`},{' '}
        {significant(signal.amplifier.load, 3)} Ω nominal; the lowest impedance is{' '}
        {significant(lowest.value, 3)} Ω at {significant(lowest.frequency, 2)} Hz. The Impedance lane shows it
        at every frequency, passive parts included. Wire coils and drivers under Curves, Drivers.
      </p>
    </Titled>
  );
}

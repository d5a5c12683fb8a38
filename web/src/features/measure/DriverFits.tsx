import { markAt } from '../../model/mark';
import { roundUp } from '../../model/scale';
import type { MeasuringReport } from '../../schema/types';
import { Chart } from '../workbench/Chart';

type ByHand = MeasuringReport['by_hand'][number];

/** Each driver as it was fitted, drawn over what was measured, with the three points by hand beside it. */
export function DriverFits({ drivers }: { drivers: readonly ByHand[] }) {
  return (
    <section aria-labelledby="driver-fits">
      <h3 id="driver-fits" className="font-semibold">
        Drivers in free air: the fit over what was measured
      </h3>
      {drivers.map((driver) => (
        <Fit key={driver.driver} driver={driver} />
      ))}
      <table className="w-full text-[0.929rem]">
        <caption className="text-left text-soft">
          By hand (three points of the magnitude), as a check of the fit
        </caption>
        <thead>
          <tr className="text-left">
            <th scope="col">Driver</th>
            <th scope="col">Fs by hand · fit</th>
            <th scope="col">Qms by hand · fit</th>
            <th scope="col">Qes by hand · fit</th>
          </tr>
        </thead>
        <tbody>
          {drivers.map(({ driver, fs, qms, qes, fitted: [fit = 0, fitQms = 0, fitQes = 0] }) => (
            <tr key={driver} className="border-line border-t">
              <th scope="row" className="text-left font-medium">
                {driver}
              </th>
              <td className="font-mono">
                {fs.toFixed(1)} · {fit.toFixed(1)} Hz
              </td>
              <td className="font-mono">
                {qms.toFixed(2)} · {fitQms.toFixed(2)}
              </td>
              <td className="font-mono">
                {qes.toFixed(3)} · {fitQes.toFixed(3)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Fit({ driver: { driver, curve, left } }: { driver: ByHand }) {
  const column = (at: number) => curve.map((point) => point[at] ?? 0);
  const [frequency, measured, fitted] = [column(0), column(1), column(2)];
  const most = Math.max(...measured, ...fitted);
  const line = { place: 0, mark: markAt(0), frequency, strong: false };
  return (
    <>
      <Chart
        label={`Impedance of driver ${driver}`}
        height={150}
        range={[0, roundUp(most * 1.05)]}
        lines={[
          { ...line, name: 'fit', strong: true, secondary: false, values: fitted },
          { ...line, name: 'measured', secondary: true, measured: true, values: measured },
        ]}
      />
      <p className="text-[0.929rem] text-soft">
        Driver {driver}: the fit leaves {(100 * left).toFixed(1)} % of the impedance, RMS.
      </p>
    </>
  );
}

import { useState } from 'react';
import { askBiquadTable, useBiquads } from '../../api/queries/signal';
import { significant } from '../../model/units';
import type { RawDesign } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { save } from '../../ui/download';
import { Message } from '../../ui/Message';
import { Select } from '../../ui/Select';

const RATES = ['44100', '48000', '88200', '96000', '176400', '192000'] as const;

/** The filters as a signal processor takes them. */
export function BiquadDialog({ design, onClose }: { design: RawDesign; onClose: () => void }) {
  const [rate, setRate] = useState<(typeof RATES)[number]>('48000');
  const [failure, setFailure] = useState<unknown>(null);
  const answer = useBiquads(design, Number(rate));
  const sheet = answer.data;
  const name = `${design.name || 'Filters'}, biquads at ${rate} Hz`;
  const table = () => {
    setFailure(null);
    askBiquadTable(design, Number(rate)).then(
      (text) => save(`${name}.csv`, new Blob([text], { type: 'text/csv' })),
      setFailure,
    );
  };
  return (
    <Dialog
      title="Biquads for a processor"
      about="y = b0 x + b1 x₁ + b2 x₂ − a1 y₁ − a2 y₂. Some devices want a1 and a2 with the other sign. Bilinear, each section exact at its own frequency."
      open
      wide
      onClose={onClose}
    >
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Select
          label="Sample rate"
          className="max-w-40"
          value={rate}
          options={RATES.map((one) => [one, `${Number(one) / 1000} kHz`] as const)}
          onChange={setRate}
        />
        <span className="flex-1" />
        <Button disabled={!sheet} onClick={table}>
          CSV
        </Button>
        <Button
          disabled={!sheet}
          onClick={() =>
            save(
              `${name}.json`,
              new Blob([`${JSON.stringify(sheet, null, 2)}\n`], { type: 'application/json' }),
            )
          }
        >
          JSON
        </Button>
      </div>
      <Message error={answer.error ?? failure} />
      {sheet && (
        <>
          <div className="overflow-x-auto">
            <table className="w-full border-collapse text-[0.929rem]">
              <thead>
                <tr className="border-line border-b text-left text-soft">
                  {['Filter', 'b0', 'b1', 'b2', 'a1', 'a2'].map((head) => (
                    <th key={head} scope="col" className="py-1 pr-3 font-medium">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className="font-mono">
                {sheet.sections.map(({ filter, biquad }, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: sections have no other name
                  <tr key={at} className="border-line border-b">
                    <th scope="row" className="py-1 pr-3 text-left font-normal font-sans">
                      {filter}
                    </th>
                    {[...biquad.b, ...biquad.a].map((value, column) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: coefficients stand in their order
                      <td key={column} className="py-1 pr-3">
                        {String(value)}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="mt-2">
            Gain {significant(sheet.gain, 5)}
            {sheet.delay > 0 &&
              `; delay ${significant(sheet.delay * 1e3, 4)} ms, ${significant(sheet.delay_samples, 5)} samples`}
            . These lie within {cost(sheet.deviation)} of what is drawn, 5 to 500 Hz. Kept as 32-bit numbers
            they are {cost(sheet.single_precision)} off, with six decimals {cost(sheet.six_decimals)}.
          </p>
        </>
      )}
    </Dialog>
  );
}

const cost = (decibels: number) =>
  decibels < 1e-3 ? 'less than 0.001 dB' : `${significant(decibels, 2)} dB`;

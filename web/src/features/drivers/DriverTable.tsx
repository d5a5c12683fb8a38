import { useState } from 'react';
import type { Driver } from '../../api/types';
import { Button } from '../../ui/Button';

interface Props {
  drivers: Driver[];
  action: string;
  onAct: (driver: Driver) => void;
}

interface Column {
  name: string;
  unit: string;
  value: (driver: Driver) => number;
  decimals: number;
}

const COLUMNS: Column[] = [
  { name: 'Z', unit: 'Ω', value: (driver) => driver.nominal, decimals: 0 },
  { name: 'Fs', unit: 'Hz', value: (driver) => driver.fs, decimals: 0 },
  { name: 'Qts', unit: '', value: (driver) => driver.qts, decimals: 2 },
  { name: 'Vas', unit: 'l', value: (driver) => driver.vas * 1e3, decimals: 1 },
  { name: 'Sd', unit: 'cm²', value: (driver) => driver.sd * 1e4, decimals: 0 },
  { name: '2.83 V', unit: 'dB', value: (driver) => driver.level, decimals: 1 },
];

/** The library as a table; typing finds by name, maker and notes. */
export function DriverTable({ drivers, action, onAct }: Props) {
  const [wanted, setWanted] = useState('');
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const found = drivers.filter(({ document }) => {
    const text =
      `${document.name} ${document.maker ?? ''} ${document.size ?? ''} ${document.notes ?? ''}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  return (
    <div>
      <input
        type="search"
        className="field mb-2 max-w-80"
        aria-label="Find a driver"
        placeholder="Find by name, size or note"
        value={wanted}
        onChange={(event) => setWanted(event.target.value)}
      />
      <table className="w-full">
        <thead>
          <tr className="border-line border-b text-left">
            <th scope="col" className="py-1">
              Driver
            </th>
            {COLUMNS.map((column) => (
              <th key={column.name} scope="col" className="text-right">
                {column.name} <span className="font-normal text-soft">{column.unit}</span>
              </th>
            ))}
            <th scope="col" className="pl-6">
              Notes
            </th>
            <th scope="col">
              <span className="sr-only">{action}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {found.map((driver) => (
            <tr key={driver.id} className="border-grid border-b hover:bg-card">
              <th scope="row" className="whitespace-nowrap py-0.5 text-left font-semibold">
                {driver.document.name}
              </th>
              {COLUMNS.map((column) => (
                <td key={column.name} className="text-right font-mono text-[13px]">
                  {column.value(driver).toFixed(column.decimals)}
                </td>
              ))}
              <td className="max-w-80 truncate pl-6 text-soft">{driver.document.notes}</td>
              <td className="text-right">
                <Button onClick={() => onAct(driver)} aria-label={`${action} ${driver.document.name}`}>
                  {action}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.length === 0 && <p className="py-4 text-soft">No driver is like that.</p>}
    </div>
  );
}

import type { RawDriver } from '../../schema/types';
import { today, withSource } from './source';

interface Props {
  driver: RawDriver;
  name: string;
  symbol: string;
  onChange: (driver: RawDriver) => void;
}

const WORDS = { sheet: 'sheet', measured: 'measured', derived: 'derived' } as const;

/** Where a value comes from; a click says that it was measured today, another that it is the sheet's. */
export function SourceMark({ driver, name, symbol, onChange }: Props) {
  const source = driver.sources?.[name];
  const kind = source?.kind ?? 'sheet';
  const when = source?.on ? ` on ${source.on}` : '';
  const next = kind === 'sheet' ? ({ kind: 'measured', on: today() } as const) : null;
  return (
    <button
      type="button"
      title={kind === 'sheet' ? 'From the sheet. Click where you measured it yourself.' : `${kind}${when}`}
      aria-label={`${symbol}: ${kind}${when}`}
      className={`rounded-[3px] px-1 text-left text-[0.929rem] hover:bg-rule ${kind === 'sheet' ? 'text-soft' : 'font-semibold text-met'}`}
      onClick={() => onChange(withSource(driver, name, next))}
    >
      {WORDS[kind]}
    </button>
  );
}

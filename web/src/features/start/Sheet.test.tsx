// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Refusal } from '../../api/client';
import type { RawDriver, SheetReading } from '../../schema/types';
import { report } from '../../testing/report';
import { emptyDriver } from '../drivers/empty';
import { Sheet } from './Sheet';

let readings: Record<string, SheetReading>;
let wanted: (driver: RawDriver) => { data?: typeof report.driver; error?: Error };
vi.mock('../../api/queries/library', () => ({
  useSheet: (text: string) => ({
    data: readings[text] && { text, reading: readings[text] },
    error: null,
  }),
  useCompletion: (driver: RawDriver) => wanted(driver),
}));

afterEach(cleanup);

const TEXT = 'Curlew 250/4\nFs: 28Hz\nXmax (p-p) 23 mm';

function reading(change: Partial<SheetReading> = {}): SheetReading {
  return {
    driver: { ...emptyDriver(), name: 'Curlew 250/4', fs: '28 Hz', xmax: '11.5 mm' },
    found: [
      { field: 'fs', typed: '28 Hz', at: [17, 21], note: '' },
      { field: 'xmax', typed: '11.5 mm', at: [33, 38], note: 'half of what is given from peak to peak' },
    ],
    left: ['Re is given again as 7.2 ohm: the first is taken'],
    ...change,
  };
}

function open(text = TEXT) {
  const [onUse, onText] = [vi.fn(), vi.fn()];
  const { rerender } = render(<Sheet text={text} onText={onText} onUse={onUse} />);
  const again = (next: string) => rerender(<Sheet text={next} onText={onText} onUse={onUse} />);
  return { onUse, onText, again };
}

const use = () => screen.getByRole('button', { name: 'Use this woofer' }) as HTMLButtonElement;
const field = (name: string) => screen.getByRole('textbox', { name }) as HTMLInputElement;

function type(name: string, text: string) {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.blur(field(name));
}

beforeEach(() => {
  readings = { [TEXT]: reading() };
  wanted = () => ({ data: report.driver });
});

describe('a data sheet as text', () => {
  it('is shown beside what was read from it, with the words it stands in', () => {
    open();
    const row = screen.getByRole('row', { name: /half of what is given/ });
    expect(row.querySelector('mark')?.textContent).toBe('23 mm');
    expect(within(row).getByText('Xmax (p-p)', { exact: false })).toBeTruthy();
    expect(field('Xmax').value).toBe('11.5 mm');
    expect(field('Name of the woofer').value).toBe('Curlew 250/4');
    expect(screen.getByText(/^Not taken: Re is given again/)).toBeTruthy();
    // What follows from the rest is said, and what was read is not said again.
    expect(screen.getByText(/^Worked out from these: Qts 0\.356, Vas/)).toBeTruthy();
  });

  it('is handed on as it was corrected', () => {
    const { onUse } = open();
    type('Fs', '30 Hz');
    fireEvent.change(field('Name of the woofer'), { target: { value: 'My curlew' } });
    fireEvent.blur(field('Name of the woofer'));
    fireEvent.click(use());
    expect(onUse.mock.calls[0]?.[0]).toMatchObject({ name: 'My curlew', fs: '30 Hz', xmax: '11.5 mm' });
  });

  it('asks for what is missing, at its place, before it can be used', () => {
    wanted = (driver) =>
      driver.sd
        ? { data: report.driver }
        : {
            error: new Refusal({
              type: '',
              title: 'No',
              status: 422,
              detail: 'no',
              errors: [{ field: 'sd', message: 'is needed, 1 to 5000 cm2' }],
            }),
          };
    const { onUse } = open();
    expect(use().disabled).toBe(true);
    const needed = screen.getByRole('group', { name: 'Still needed' });
    expect(within(needed).getByText('is needed, 1 to 5000 cm2')).toBeTruthy();
    type('Sd', '346 cm2');
    expect(use().disabled).toBe(false);
    fireEvent.click(use());
    expect(onUse.mock.calls[0]?.[0]).toMatchObject({ sd: '346 cm2' });
  });

  it('says so where it holds no driver, and begins anew with another text', () => {
    readings['Lunch at 12'] = reading({ driver: emptyDriver(), found: [], left: [] });
    const { again, onText } = open();
    type('Fs', '30 Hz');
    again('Lunch at 12');
    expect(screen.getByText(/^No values of a woofer were found/)).toBeTruthy();
    again(TEXT);
    expect(field('Fs').value).toBe('28 Hz');
    fireEvent.change(field('Data sheet'), { target: { value: 'Fs 1' } });
    expect(onText).toHaveBeenCalledWith('Fs 1');
  });
});

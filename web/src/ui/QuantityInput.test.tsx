// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { fieldAt } from '../model/units';
import { QuantityInput } from './QuantityInput';

const fields = [fieldAt('enclosure.volume')];
afterEach(cleanup);

function open(props: Partial<Parameters<typeof QuantityInput>[0]> = {}) {
  const onType = vi.fn();
  render(<QuantityInput label="Vb" fields={fields} typed="1.5 cuft" onType={onType} {...props} />);
  const input = screen.getByRole('textbox') as HTMLInputElement;
  const write = (text: string, key = 'Enter') => {
    fireEvent.change(input, { target: { value: text } });
    fireEvent.keyDown(input, { key });
  };
  return { input, onType, write };
}

describe('a quantity field', () => {
  it('asks for the unit of a bare number where another than the usual one stands', () => {
    const { onType, write } = open();
    write('2');
    expect(onType).not.toHaveBeenCalled();
    expect(screen.getByRole('alert').textContent).toBe('In which unit? Type 2 l or 2 cuft.');
    write('2 cuft');
    expect(onType).toHaveBeenCalledWith(fields[0], '2 cuft');
  });

  it('takes a bare number in the usual unit where that stands, and a frequency with its note as it is shown', () => {
    const litres = open({ typed: '44 l' });
    litres.write('38,3');
    expect(litres.onType).toHaveBeenCalledWith(fields[0], '38,3 l');
    cleanup();
    const hertz = open({ fields: [fieldAt('enclosure.tuning')], typed: '29 Hz' });
    hertz.write('31 Hz · B0');
    expect(hertz.onType).toHaveBeenCalledWith(fieldAt('enclosure.tuning'), '31 Hz');
  });

  it('takes another unit as written', () => {
    const { onType, write } = open();
    write('40 l');
    expect(onType).toHaveBeenCalledWith(fields[0], '40 l');
  });

  it('refuses with the range and changes nothing', () => {
    const { input, onType, write } = open();
    write('0 l');
    expect(onType).not.toHaveBeenCalled();
    expect(screen.getByRole('alert').textContent).toContain('0.1 l to 10000 l');
    expect(input.getAttribute('aria-invalid')).toBe('true');
    write('0 l', 'Escape');
    expect(input.value).toBe('1.5 cuft');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('can be emptied only where that is allowed', () => {
    const strict = open();
    strict.write('');
    expect(strict.onType).not.toHaveBeenCalled();
    cleanup();
    const loose = open({ optional: true });
    loose.write('');
    expect(loose.onType).toHaveBeenCalledWith(fields[0], null);
  });

  it('takes volts and watts in one field by their unit', () => {
    const drive = [fieldAt('signal.drive.power'), fieldAt('signal.drive.voltage')];
    const { onType, write } = open({ fields: drive, typed: '80 W' });
    write('2.83 V');
    expect(onType).toHaveBeenCalledWith(drive[1], '2.83 V');
    write('100');
    expect(onType).toHaveBeenLastCalledWith(drive[0], '100 W');
  });

  it('keeps what is being written when what it follows arrives, and gives way to a value from elsewhere', () => {
    const onType = vi.fn();
    const field = (typed: string | null, follows?: string) => (
      <QuantityInput label="Vb" fields={fields} typed={typed} follows={follows} onType={onType} />
    );
    const { rerender } = render(field(null));
    const input = screen.getByRole('textbox') as HTMLInputElement;
    fireEvent.change(input, { target: { value: '40' } });
    rerender(field(null, '38.2 l'));
    expect(input.value).toBe('40');
    rerender(field('44 l', '38.2 l'));
    expect(input.value).toBe('44 l');
    rerender(field(null, '38.2 l'));
    expect(input.value).toBe('38.2 l');
  });

  it('passes arrow keys on, ten steps with Shift, but not while a text is written', () => {
    const onArrow = vi.fn();
    const { input } = open({ onArrow });
    fireEvent.keyDown(input, { key: 'ArrowUp' });
    fireEvent.keyDown(input, { key: 'ArrowDown', shiftKey: true });
    expect(onArrow.mock.calls).toEqual([[1], [-10]]);
    fireEvent.change(input, { target: { value: '3' } });
    fireEvent.keyDown(input, { key: 'ArrowUp' });
    expect(onArrow).toHaveBeenCalledTimes(2);
  });
});

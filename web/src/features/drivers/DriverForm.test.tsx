// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Refusal } from '../../api/client';
import type { useCompletion } from '../../api/queries/library';
import type { DriverReport, FieldError, RawDriver } from '../../schema/types';
import { report } from '../../testing/report';
import { DriverForm } from './DriverForm';
import { emptyDriver } from './empty';

type Completion = ReturnType<typeof useCompletion>;

const sent: RawDriver[] = [];
let fetching = false;
let answer: { data?: DriverReport; error?: Error };
vi.mock('../../api/queries/library', () => ({
  useCompletion: (driver: RawDriver) => {
    sent.push(driver);
    return { isFetching: fetching, ...answer } as Completion;
  },
  useAlike: () => ({ data: [{ id: '1', name: 'Otter 165/8', by: 'values' }] }),
}));

afterEach(cleanup);

const refusal = (errors: FieldError[]) =>
  new Refusal({ type: '', title: 'No', status: 422, detail: 'no', errors });

function open(initial: RawDriver = emptyDriver()) {
  const onSubmit = vi.fn();
  const form = (submit: string) => (
    <DriverForm
      initial={initial}
      submit={submit}
      busy={false}
      error={null}
      onSubmit={onSubmit}
      onCancel={() => undefined}
    />
  );
  const { rerender } = render(form('Add'));
  const write = (name: string, text: string) => {
    const field = screen.getByRole('textbox', { name });
    fireEvent.change(field, { target: { value: text } });
    fireEvent.blur(field);
  };
  const again = () => rerender(form('Add again'));
  return { onSubmit, write, again, add: screen.getByRole('button', { name: 'Add' }) as HTMLButtonElement };
}

describe('the form of a driver', () => {
  it('shows what follows from what was typed, and hands on only what was typed', () => {
    answer = { data: report.driver };
    const { onSubmit, write, add } = open();
    write('Fs', '24');
    expect(add.disabled).toBe(false);
    expect((screen.getByRole('textbox', { name: 'Mms' }) as HTMLInputElement).value).toBe('118 g');
    fireEvent.click(add);
    expect(onSubmit.mock.calls[0]?.[0]).toEqual({ ...emptyDriver(), fs: '24 Hz' });
  });

  it('hands on nothing while a field is refused, and takes a slip back by a click', () => {
    const hints = [{ field: 'fs', message: 'Fs looks as if it had lost its decimal point.', value: 24 }];
    answer = { data: { ...report.driver, hints } };
    const { onSubmit, write, add } = open();
    write('Fs', '240');
    write('Re', 'much');
    fireEvent.click(add);
    expect(onSubmit).not.toHaveBeenCalled();
    expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Re' }));
    write('Re', '3.4');
    fireEvent.click(screen.getByRole('button', { name: 'Take Fs 24 Hz' }));
    fireEvent.click(add);
    expect(onSubmit.mock.calls[0]?.[0]).toMatchObject({ re: '3.4 ohm', fs: '24 Hz' });
  });

  it('says at the field what the server finds wrong, and below what is missing', () => {
    const errors = [
      { field: 'fs', message: '4 Hz is outside 5 Hz to 2000 Hz' },
      { field: 're', message: 'is missing; 0.1 ohm to 100 ohm is allowed' },
    ];
    answer = { error: refusal(errors) };
    const { write, add } = open();
    write('Sd', '214 cm2');
    expect(screen.getByText(/is missing; 0.1 ohm/)).toBeTruthy();
    expect(add.disabled).toBe(true);
    expect(screen.queryByText(/outside 5 Hz/)).toBeTruthy();
  });

  it('tells of values that contradict each other', () => {
    const doubts = [
      { field: 'mms' as const, stated: 0.2, derived: 0.118, message: 'Mms 200 g is stated, 118 g follows' },
    ];
    answer = { data: { ...report.driver, doubts } };
    open({ ...emptyDriver(), name: 'Known', fs: '24 Hz' });
    expect(screen.getByText('Mms 200 g is stated, 118 g follows')).toBeTruthy();
  });

  it('puts the one value that settles the rest in the place of the stated one, and back', () => {
    const doubts = [{ field: 'mms' as const, stated: 0.2, derived: 0.118, message: 'Mms is off' }];
    answer = {
      data: {
        ...report.driver,
        doubts,
        reconciling: [{ field: 'mms', value: 0.118, slip: 'looks like ounces' }],
      },
    };
    const stated = { ...emptyDriver(), name: 'Known', mms: '200 g' };
    open(stated);
    fireEvent.click(screen.getByRole('button', { name: 'Take Mms 118 g' }));
    expect(sent.at(-1)?.mms).toBe('118 g');
    expect(screen.getByText(/Mms: looks like ounces/)).toBeTruthy();
    expect(screen.getByText(/Very similar to Otter/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Undo that' }));
    expect(sent.at(-1)).toEqual(stated);
    fireEvent.click(screen.getByRole('button', { name: 'Mms: sheet' }));
    expect(sent.at(-1)?.sources?.mms?.kind).toBe('measured');
  });

  it('folds what few sheets have, opened where it is stated or refused', () => {
    answer = { data: report.driver };
    const fold = () =>
      screen.getByText(/^Advanced: semi-inductance/).closest('details') as HTMLDetailsElement;
    const { write, add, onSubmit } = open();
    expect(fold().open).toBe(false);
    write('L2', 'much');
    fireEvent.click(add);
    expect(fold().open).toBe(true);
    expect(onSubmit).not.toHaveBeenCalled();
    expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'L2' }));
    cleanup();
    open({ ...emptyDriver(), l2: '1 mH', r2: '4 ohm' });
    expect(fold().open).toBe(true);
  });

  it('takes a value back when it is emptied', () => {
    answer = { data: report.driver };
    const { write } = open({ ...emptyDriver(), le: '1 mH' });
    write('Le', '');
    expect(sent.at(-1)).toEqual(emptyDriver());
  });

  it('sent while a value is still being looked at waits for the answer', () => {
    answer = { data: report.driver };
    fetching = true;
    const { onSubmit, add, again } = open({ ...emptyDriver(), fs: '24 Hz' });
    fireEvent.click(add);
    expect(onSubmit).not.toHaveBeenCalled();
    fetching = false;
    again();
    expect(onSubmit).toHaveBeenCalledTimes(1);
  });
});

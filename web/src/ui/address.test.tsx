// @vitest-environment jsdom
import { fireEvent, render, screen } from '@testing-library/react';
import { BrowserRouter } from 'react-router';
import { beforeEach, expect, it } from 'vitest';
import { useInAddress } from './address';

function Tabs() {
  const [tab, setTab] = useInAddress('tab', ['sizes', 'air', 'panels']);
  return (
    <>
      <output>{tab}</output>
      <button type="button" onClick={() => setTab('air')}>
        air
      </button>
      <button type="button" onClick={() => setTab('sizes')}>
        sizes
      </button>
    </>
  );
}

function shown(address: string): string {
  window.history.replaceState(null, '', address);
  render(
    <BrowserRouter>
      <Tabs />
    </BrowserRouter>,
  );
  return screen.getByRole('status').textContent ?? '';
}

beforeEach(() => {
  document.body.innerHTML = '';
});

it('is read from the address, and what is none of its states is not', () => {
  expect(shown('/box?tab=panels')).toBe('panels');
  document.body.innerHTML = '';
  expect(shown('/box?tab=drum')).toBe('sizes');
});

it('is written beside what else stands there, and taken out where it is the usual one', () => {
  shown('/box?variant=v1');
  fireEvent.click(screen.getByRole('button', { name: 'air' }));
  expect(screen.getByRole('status').textContent).toBe('air');
  expect(window.location.search).toBe('?variant=v1&tab=air');
  fireEvent.click(screen.getByRole('button', { name: 'sizes' }));
  expect(window.location.search).toBe('?variant=v1');
});

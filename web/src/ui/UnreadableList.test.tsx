// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { UnreadableList } from './UnreadableList';

afterEach(cleanup);

test('documents that cannot be read are named with what is wrong', () => {
  render(
    <UnreadableList
      documents={[
        { id: '1', name: 'Otter', reason: 'enclosure: invalid type' },
        { id: '2', name: 'Heron', reason: 'name: invalid type' },
      ]}
    />,
  );
  const alert = screen.getByRole('alert');
  expect(alert.textContent).toContain('2 documents cannot be read and are left as stored');
  expect(screen.getAllByRole('listitem').map((item) => item.textContent)).toEqual([
    'Otter: enclosure: invalid type',
    'Heron: name: invalid type',
  ]);
});

test('nothing is said where all can be read', () => {
  render(<UnreadableList documents={[]} />);
  expect(screen.queryByRole('alert')).toBeNull();
});

import { spoken } from '../../actions/keys';
import { Dialog } from '../../ui/Dialog';
import { Scroll } from '../../ui/Scroll';
import { Table } from '../../ui/Table';
import { useActions } from './stages';

const EVERYWHERE: [string, string][] = [
  ['Arrow keys on a value, its rule or the frequency cursor', 'one step; with Shift ten'],
  ['Enter in a value', 'takes what was typed'],
  ['Escape in a value', 'takes it back'],
];

export function KeySheet({ onClose }: { onClose: () => void }) {
  const actions = useActions();
  return (
    <Dialog title="Shortcuts" open onClose={onClose}>
      <Scroll label="All shortcuts">
        <Table
          headless
          className="text-[1rem]"
          rows={[
            ...actions
              .filter(({ keys }) => keys.length > 0)
              .map(({ name, keys }) => [name, keys.map(spoken).join(' or ')] as const),
            ...EVERYWHERE,
          ]}
          keyOf={([name]) => name}
          columns={[
            { name: 'Command', names: true, className: 'py-1', cell: ([name]) => name },
            { name: 'Keys', className: 'text-right', cell: ([, keys]) => keys },
          ]}
        />
      </Scroll>
    </Dialog>
  );
}

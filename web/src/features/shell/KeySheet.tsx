import { spoken } from '../../actions/keys';
import { Dialog } from '../../ui/Dialog';
import { Scroll } from '../../ui/Scroll';
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
        <table className="w-full">
          <tbody>
            {actions.map((action) => (
              <tr key={action.id} className="border-grid border-b">
                <th scope="row" className="py-1 text-left font-normal">
                  {action.name}
                </th>
                <td className="whitespace-nowrap text-right font-mono text-[13px]">
                  {action.keys.map(spoken).join(' or ')}
                </td>
              </tr>
            ))}
            {EVERYWHERE.map(([what, does]) => (
              <tr key={what} className="border-grid border-b">
                <th scope="row" className="py-1 text-left font-normal">
                  {what}
                </th>
                <td className="text-right">{does}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </Dialog>
  );
}

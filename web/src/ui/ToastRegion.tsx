import { Toast } from 'radix-ui';
import { toasts } from '../model/toasts';
import { Button } from './Button';
import { Icon } from './Icon';
import { useObserved } from './observed';

/** Where passing words appear; F8 leads there. They stay long enough to read and to undo, and longer while they are pointed at. */
export function ToastRegion() {
  const { list } = useObserved(toasts);
  return (
    <Toast.Provider label="Message" duration={10_000}>
      {list.map(({ id, words, undo }) => (
        <Toast.Root
          key={id}
          className="flex items-center gap-3 rounded-[3px] border border-line bg-card px-3 py-2 shadow-lg"
          onOpenChange={(open) => !open && toasts.drop(id)}
        >
          <Toast.Description className="flex-1">{words}</Toast.Description>
          {undo && (
            <Toast.Action altText="Undo" asChild>
              <Button onClick={undo}>Undo</Button>
            </Toast.Action>
          )}
          <Toast.Close aria-label="Close" className="rounded-[3px] p-1 hover:bg-rule">
            <Icon name="close" />
          </Toast.Close>
        </Toast.Root>
      ))}
      <Toast.Viewport
        label="Messages ({hotkey})"
        className="fixed right-4 bottom-4 z-50 flex w-[22rem] max-w-[calc(100vw-2rem)] flex-col gap-2"
      />
    </Toast.Provider>
  );
}

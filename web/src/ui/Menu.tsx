// Commands that open below a button. What opens is fetched ahead, or when the button is first used.

import { cloneElement, type ReactElement, type ReactNode, Suspense, useState } from 'react';
import { lazily } from './lazily';

const parts = () => import('./menu_parts');
const Opened = lazily(() => parts().then(({ OpenMenu }) => OpenMenu));

/** One command, something that is on or off, and a heading over them. */
export const Item = lazily(() => parts().then((part) => part.Item));
export const Check = lazily(() => parts().then((part) => part.Check));
export const Heading = lazily(() => parts().then((part) => part.Heading));

interface MenuProps {
  trigger: ReactElement<Record<string, unknown>>;
  children: ReactNode;
}

export function Menu({ trigger, children }: MenuProps) {
  const [used, setUsed] = useState(false);
  const button = cloneElement(trigger, {
    'aria-haspopup': 'menu',
    'aria-expanded': false,
    onClick: () => setUsed(true),
    onKeyDown: ({ key }: { key: string }) => key === 'ArrowDown' && setUsed(true),
  });
  if (!used) return button;
  return (
    <Suspense fallback={button}>
      <Opened trigger={trigger}>{children}</Opened>
    </Suspense>
  );
}

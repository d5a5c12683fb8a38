// Which tab this is: what it has not sent yet is its own, until it is closed.

const KEY = 'oak-drum:tab';
let own = '';

/** The name of this tab, once it is claimed. */
export const tabName = (): string => own;
const PREFIX = 'oak-drum:tab:';

/**
 * Takes a name for this tab and holds it until the tab is closed. A reload keeps the name; a copy of a tab, which begins with the
 * name of the other, takes another.
 */
export async function claimTab(): Promise<void> {
  const remembered = sessionStorage.getItem(KEY);
  const name = remembered && (await held(remembered)) ? remembered : crypto.randomUUID();
  if (name !== remembered) await held(name);
  sessionStorage.setItem(KEY, name);
  own = name;
}

/** Whether the name could be had; it is then held. Without locks every tab has its own and none is known to be closed. */
function held(name: string): Promise<boolean> {
  const { locks } = navigator as Partial<Navigator>;
  if (!locks) return Promise.resolve(true);
  return new Promise((tell) => {
    void locks.request(PREFIX + name, { ifAvailable: true }, (lock) => {
      tell(lock !== null);
      return lock ? new Promise<never>(() => undefined) : undefined;
    });
  });
}

/** The tabs that are open; null where it cannot be told. */
export async function openTabs(): Promise<ReadonlySet<string> | null> {
  const { locks } = navigator as Partial<Navigator>;
  if (!locks) return null;
  const { held: all = [] } = await locks.query();
  return new Set(all.flatMap(({ name }) => (name?.startsWith(PREFIX) ? [name.slice(PREFIX.length)] : [])));
}

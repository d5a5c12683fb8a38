import { Observable } from './observable';

/** A state that this browser remembers. */
export class Stored<State extends object> extends Observable<State> {
  constructor(
    private readonly key: string,
    private readonly usual: State,
    /** Lifts what an earlier program remembered. */
    restore: (state: State) => State = (state) => state,
  ) {
    super(restore({ ...usual, ...remembered(key) }));
    // What another tab sets is set here too.
    globalThis.addEventListener?.('storage', (event) => {
      if (event.key === key) this.update(restore({ ...usual, ...remembered(key) }));
    });
  }

  set(change: Partial<State>): void {
    this.update(change);
    try {
      localStorage.setItem(this.key, JSON.stringify(this.state));
    } catch {
      // No room: it is remembered as long as this page is open.
    }
  }

  reset(): void {
    this.set(this.usual);
  }
}

function remembered(key: string): object {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    return typeof kept === 'object' && kept !== null ? kept : {};
  } catch {
    return {};
  }
}

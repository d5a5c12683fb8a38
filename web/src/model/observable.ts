/** A state that can be watched; each state is a new object. */
export class Observable<State extends object> {
  private listeners = new Set<() => void>();

  constructor(protected state: State) {}

  readonly snapshot = (): State => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  protected update(change: Partial<State>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}

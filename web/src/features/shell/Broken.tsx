import { Component, type ReactNode } from 'react';
import { Button } from '../../ui/Button';

interface Props {
  children: ReactNode;
}

/** A page that failed: what was done is safe, and the way on. */
export class Broken extends Component<Props, { failure: unknown }> {
  override state: { failure: unknown } = { failure: null };

  static getDerivedStateFromError(failure: unknown) {
    return { failure: failure ?? 'no reason given' };
  }

  override render(): ReactNode {
    const { failure } = this.state;
    if (failure === null) return this.props.children;
    const reason = failure instanceof Error ? failure.message : String(failure);
    return (
      <main id="main" className="mx-auto flex max-w-[36rem] flex-col gap-3 p-10">
        <h1 className="text-2xl">Something went wrong on this page</h1>
        <p>
          What you did is saved: on the server, or in this browser until the server has it. Opening the page
          again takes it up where it was.
        </p>
        <p className="font-mono text-[0.929rem] text-soft">{reason}</p>
        <div className="flex gap-2">
          <Button look="strong" onClick={() => window.location.reload()}>
            Open the page again
          </Button>
          <Button onClick={() => window.location.assign('/')}>To the builds</Button>
        </div>
      </main>
    );
  }
}

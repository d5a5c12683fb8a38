import { useRouteError } from 'react-router';
import { Button } from '../../ui/Button';

/** A page that failed: what was done is safe, and the way on. */
export function Broken() {
  const error = useRouteError();
  const reason = error instanceof Error ? error.message : String(error);
  return (
    <main id="main" className="mx-auto flex max-w-[36rem] flex-col gap-3 p-10">
      <h1 className="text-2xl">Something went wrong on this page</h1>
      <p>
        What you did is saved: on the server, or in this browser until the server has it. Opening the page
        again takes it up where it was.
      </p>
      <p className="font-mono text-[13px] text-soft">{reason}</p>
      <div className="flex gap-2">
        <Button look="strong" onClick={() => window.location.reload()}>
          Open the page again
        </Button>
        <Button onClick={() => window.location.assign('/')}>To the builds</Button>
      </div>
    </main>
  );
}

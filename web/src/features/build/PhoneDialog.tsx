import { useCompanions, useMakeLink, useRevokeLink } from '../../api/queries/companion';
import { clockOf } from '../../model/moment';
import type { Companions } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';

const STATES: Record<Companions['links'][number]['state'], string> = {
  waiting: 'not opened yet',
  joined: 'open on a phone',
  expired: 'over',
  revoked: 'taken back',
};

interface Props {
  build: string;
  variant: string;
  onClose: () => void;
}

/** Opens the steps on a phone in the workshop, by a code that works once. */
export function PhoneDialog({ build, variant, onClose }: Props) {
  const { data, error } = useCompanions(build);
  const make = useMakeLink(build);
  const revoke = useRevokeLink(build);
  const made = make.data;
  const opened = data?.links.find(({ id }) => id === made?.link.id)?.state;
  const live = data?.links.filter(({ state }) => state === 'waiting' || state === 'joined') ?? [];
  return (
    <Dialog
      title="Steps on a phone"
      about="Large type for the workshop. What is ticked there is ticked here, also after the connection was lost for a while."
      open
      onClose={onClose}
    >
      <div className="flex flex-col gap-3">
        <Message error={error ?? make.error ?? revoke.error} />
        {data && !data.address && <Off />}
        {data?.address && (
          <>
            {made && opened === 'waiting' ? (
              <div className="flex flex-wrap items-start gap-4">
                <Code rows={made.code} />
                <div className="flex min-w-48 flex-1 flex-col gap-2">
                  <p>
                    Scan it with a phone in the same network. It opens once, until{' '}
                    {clockOf(made.link.join_before)}.
                  </p>
                  <p className="break-all font-mono text-[0.857rem]">{made.url}</p>
                </div>
              </div>
            ) : (
              <div className="flex flex-wrap items-center gap-3">
                <Button look="strong" disabled={make.isPending} onClick={() => make.mutate(variant)}>
                  {made ? 'Make another code' : 'Make a code for a phone'}
                </Button>
                {opened === 'joined' && <p role="status">A phone has opened the steps.</p>}
              </div>
            )}
            <p>
              The phone will warn that it does not know who made the certificate: this computer did. Compare
              what the phone shows as SHA-256 fingerprint, then go on:
            </p>
            <p className="break-all font-mono text-[0.857rem]">{data.fingerprint}</p>
          </>
        )}
        {live.length > 0 && (
          <Table
            caption="Codes in use"
            rows={live}
            keyOf={({ id }) => id}
            columns={[
              { name: 'Made', names: true, cell: ({ created_at }) => clockOf(created_at) },
              { name: 'State', cell: ({ state }) => STATES[state] },
              {
                name: 'Until',
                cell: ({ state, expires_at, join_before }) =>
                  clockOf(state === 'joined' ? expires_at : join_before),
              },
              {
                name: 'End it',
                kind: 'action',
                cell: ({ id, created_at }) => (
                  <Button
                    look="quiet"
                    aria-label={`Take back the code of ${clockOf(created_at)}`}
                    onClick={() => revoke.mutate(id)}
                  >
                    Take back
                  </Button>
                ),
              },
            ]}
          />
        )}
      </div>
    </Dialog>
  );
}

function Off() {
  return (
    <>
      <p>
        Phones cannot reach this program, because it answers on this computer alone. To let them open the
        steps, start it with the address that this computer has in your network:
      </p>
      <p className="rounded-[3px] bg-rule px-2 py-1 font-mono">
        cargo xtask demo --companion 192.168.1.20:7474
      </p>
      <p className="text-soft">
        It then opens the pages of a code there and nothing else, encrypted, and stops by itself after eight
        hours without use.
      </p>
    </>
  );
}

/** A QR code, always dark on light: cameras want it so. */
function Code({ rows }: { rows: readonly string[] }) {
  const QUIET = 4;
  const side = rows.length + 2 * QUIET;
  const dark = rows.flatMap((row, y) =>
    [...row].flatMap((cell, x) => (cell === '1' ? [`M${x + QUIET} ${y + QUIET}h1v1h-1z`] : [])),
  );
  return (
    <svg
      role="img"
      aria-label="Code that a phone opens the steps with"
      viewBox={`0 0 ${side} ${side}`}
      shapeRendering="crispEdges"
      className="size-56 rounded-[3px]"
    >
      <rect width={side} height={side} fill="#fff" />
      <path d={dark.join('')} fill="#000" />
    </svg>
  );
}

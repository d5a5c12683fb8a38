import { useRevisions } from '../../api/queries';
import type { RawDesign, Revision } from '../../api/types';
import { differences, nameOf } from '../../model/differences';
import type { OnBench } from '../../model/workbench';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';

interface Props {
  variant: OnBench;
  onRestore: (design: RawDesign) => void;
  onClose: () => void;
}

/** Every kept state of a variant; any of them can be had again as a new one. */
export function HistoryDialog({ variant, onRestore, onClose }: Props) {
  const revisions = useRevisions(variant.id);
  const all = revisions.data ?? [];
  return (
    <Dialog
      title={`History of ${variant.design.name}`}
      about="What was saved, the latest first. A state comes back as a new variant; this one stays as it is."
      open
      onClose={onClose}
    >
      <Message error={revisions.error} />
      {revisions.isPending && <p className="text-soft">Looking …</p>}
      <ol className="flex flex-col gap-1.5">
        {all.map((revision, at) => (
          <li
            key={revision.revision}
            className="flex items-start justify-between gap-3 border-grid border-b pb-1.5"
          >
            <div className="min-w-0">
              <p className="text-[13px] text-soft">
                {when(revision.created_at)}
                {at === 0 && ', as it is'}
              </p>
              <Changes revision={revision} before={all[at + 1]} first={at === all.length - 1} />
            </div>
            {at > 0 && (
              <Button
                aria-label={`Restore the state of ${when(revision.created_at)} as a new variant`}
                onClick={() => onRestore(revision.document)}
              >
                As a new variant
              </Button>
            )}
          </li>
        ))}
      </ol>
    </Dialog>
  );
}

/** Most changes that are listed one by one. */
const MOST = 4;

function Changes({
  revision,
  before,
  first,
}: {
  revision: Revision;
  before: Revision | undefined;
  first: boolean;
}) {
  if (!before) return <p>{first ? 'begun' : ''}</p>;
  const changed = differences([before.document, revision.document]);
  return (
    <ul>
      {changed.slice(0, MOST).map(({ place, values: [was, is] }) => (
        <li key={place} className="truncate">
          {nameOf(place)} <span className="font-mono text-[13px]">{`${was} → ${is}`}</span>
        </li>
      ))}
      {changed.length > MOST && <li className="text-soft">and {changed.length - MOST} more</li>}
    </ul>
  );
}

function when(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' });
}

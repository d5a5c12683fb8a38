import { useRevisions } from '../../api/queries/builds';
import { differences, nameOf } from '../../model/differences';
import type { Revision } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Message } from '../../ui/Message';

interface Props {
  /** The document's key. */
  id: string;
  title: string;
  /** What becomes of a state that is chosen. */
  about: string;
  /** The same, on its button. */
  restore: string;
  onRestore: (content: Revision['content']) => void;
  onClose: () => void;
}

/** Every saved state of a document; any of them can be had again. */
export function HistoryDialog({ id, title, about, restore, onRestore, onClose }: Props) {
  const revisions = useRevisions(id);
  const all = revisions.data ?? [];
  return (
    <Dialog title={title} about={`What was saved, the latest first. ${about}`} open onClose={onClose}>
      <Message error={revisions.error} />
      {revisions.isPending && <p className="text-soft">Looking …</p>}
      <ol className="flex flex-col gap-1.5">
        {all.map((revision, at) => (
          <li
            key={revision.revision}
            className="flex items-start justify-between gap-3 border-grid border-b pb-1.5"
          >
            <div className="min-w-0">
              <p className="text-[0.929rem] text-soft">
                {when(revision.created_at)}
                {at === 0 && ', as it is'}
              </p>
              <Changes revision={revision} before={all[at + 1]} first={at === all.length - 1} />
            </div>
            {at > 0 && (
              <Button
                aria-label={`${restore}: the state of ${when(revision.created_at)}`}
                onClick={() => onRestore(revision.content)}
              >
                {restore}
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
  if (before.archived !== revision.archived) return <p>{revision.archived ? 'archived' : 'brought back'}</p>;
  const changed = differences([before.content, revision.content]);
  return (
    <ul>
      {changed.slice(0, MOST).map(({ place, values: [was, is] }) => (
        <li key={place} className="truncate">
          {nameOf(place)} <span className="font-mono text-[0.929rem]">{`${was} → ${is}`}</span>
        </li>
      ))}
      {changed.length > MOST && <li className="text-soft">and {changed.length - MOST} more</li>}
    </ul>
  );
}

function when(time: string): string {
  return new Date(time).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' });
}

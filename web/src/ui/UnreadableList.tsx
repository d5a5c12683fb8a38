import type { Unreadable } from '../schema/types';

/** Stored documents that this program cannot read: named, so that nothing is missing without a word. */
export function UnreadableList({ documents }: { documents: readonly Unreadable[] }) {
  if (documents.length === 0) return null;
  return (
    <div role="alert" className="rounded-[3px] border border-short bg-short-wash px-2.5 py-1.5 text-short">
      {documents.length === 1 ? 'One document' : `${documents.length} documents`} cannot be read and{' '}
      {documents.length === 1 ? 'is' : 'are'} left as stored:
      <ul className="list-disc pl-5">
        {documents.map(({ id, name, reason }) => (
          <li key={id}>
            <b>{name}</b>: {reason}
          </li>
        ))}
      </ul>
    </div>
  );
}

import { Refusal } from '../api/client';

/** What went wrong, in words. */
export function Message({ error }: { error: unknown }) {
  if (!error) return null;
  const text = error instanceof Error ? error.message : 'Something went wrong.';
  const title = error instanceof Refusal ? `${error.document.title}: ` : '';
  return (
    <p role="alert" className="rounded-[3px] border border-short bg-short-wash px-2.5 py-1.5 text-short">
      {title}
      {text}
    </p>
  );
}

import type { ProblemDocument } from '../../schema/types';

/** Why the lanes show an earlier state; what is wrong with a value of the cabinet is said at that value. */
export function NotComputed({ problem }: { problem: ProblemDocument | null }) {
  const elsewhere = problem?.errors?.length
    ? problem.errors.filter(({ field }) => !field.startsWith('enclosure.') && !field.startsWith('signal.'))
    : [];
  const reason =
    problem === null ? 'The server does not answer; trying again.' : (elsewhere[0]?.message ?? '');
  return (
    <p
      role="alert"
      className="absolute top-1 left-36 z-20 max-w-[30rem] rounded-[3px] border border-short bg-short-wash px-2.5 py-0.5 text-short shadow"
    >
      What you see are the curves before the last change. {elsewhere[0] && <b>{elsewhere[0].field} </b>}
      {reason}
    </p>
  );
}

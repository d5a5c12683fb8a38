import { Link } from 'react-router';
import { answered, api } from '../../api/client';
import { runs, useChange, useJobs } from '../../api/queries';
import type { Job } from '../../api/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { Shell } from '../shell/Shell';

/** Everything long that was started: how far it is, what came of it, or why it could not be done. */
export function JobsPage() {
  const jobs = useJobs();
  const cancel = useChange('jobs', (id: string) =>
    answered(api.POST('/api/v1/jobs/{id}/cancel', { params: { path: { id } } })),
  );
  return (
    <Shell title="Jobs">
      <div className="mx-auto max-w-[1180px] px-6 py-5">
        <h1 className="text-2xl">Jobs</h1>
        <p className="mb-4 text-soft">
          Work that takes longer than a moment. It goes on while you do something else, also when this page is
          closed.
        </p>
        <Message error={jobs.error ?? cancel.error} />
        {jobs.data?.length === 0 && (
          <p>Nothing was started yet. Looking for drivers that suit a brief is a job, for one.</p>
        )}
        {jobs.data && jobs.data.length > 0 && (
          <table className="w-full border-collapse">
            <thead>
              <tr className="border-line border-b text-left text-soft">
                <th className="py-1.5 pr-3 font-medium">Job</th>
                <th className="py-1.5 pr-3 font-medium">State</th>
                <th className="py-1.5 pr-3 font-medium">Progress</th>
                <th className="py-1.5 pr-3 font-medium">Started</th>
                <th className="py-1.5">
                  <span className="sr-only">Cancel</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {jobs.data.map((job) => (
                <Row key={job.id} job={job} busy={cancel.isPending} onCancel={() => cancel.mutate(job.id)} />
              ))}
            </tbody>
          </table>
        )}
      </div>
    </Shell>
  );
}

/** Where the outcome of each kind of job is shown. */
const SHOWN_AT: Record<string, (build: string) => string> = {
  driver_match: (build) => `/builds/${build}/find`,
};

function Row({ job, busy, onCancel }: { job: Job; busy: boolean; onCancel: () => void }) {
  const address = job.build ? SHOWN_AT[job.kind]?.(job.build) : undefined;
  const title = job.build_name ? `${job.name}: ${job.build_name}` : job.name;
  return (
    <tr className="border-line border-b align-top">
      <td className="py-2 pr-3">
        {address ? (
          <Link to={address} className="font-medium text-oak hover:underline">
            {title}
          </Link>
        ) : (
          <span className="font-medium">{title}</span>
        )}
        {job.failure && <p className="text-short">{job.failure}</p>}
      </td>
      <td className="py-2 pr-3">{STATES[job.state]}</td>
      <td className="py-2 pr-3">
        <span className="flex items-center gap-2 font-mono">
          <progress
            aria-label={`Progress of ${title}`}
            className="h-2 w-32"
            max={Math.max(1, job.total)}
            value={job.total === 0 ? 1 : job.done}
          />
          {job.done} of {job.total}
        </span>
      </td>
      <td className="py-2 pr-3">
        {new Date(job.created_at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })}
      </td>
      <td className="py-1 text-right">
        {runs(job) && (
          <Button aria-label={`Cancel ${title}`} disabled={busy} onClick={onCancel}>
            Cancel
          </Button>
        )}
      </td>
    </tr>
  );
}

const STATES: Record<Job['state'], string> = {
  waiting: 'Waiting',
  running: 'Running',
  finished: 'Finished',
  cancelled: 'Cancelled',
  failed: 'Failed',
};

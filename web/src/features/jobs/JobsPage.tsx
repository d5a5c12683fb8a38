import { Link } from 'react-router';
import { answered, api } from '../../api/client';
import { runs, useJobs } from '../../api/queries/jobs';
import { useChange } from '../../api/queries/shared';
import type { Job } from '../../schema/types';
import { Button } from '../../ui/Button';
import { Message } from '../../ui/Message';
import { Table } from '../../ui/Table';
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
          <p>Nothing has been started yet. A search for drivers is one such job.</p>
        )}
        {jobs.data && jobs.data.length > 0 && (
          <Table
            className="text-[1rem]"
            rows={jobs.data}
            keyOf={({ id }) => id}
            rowOf={() => ({ className: 'align-top' })}
            columns={[
              { name: 'Job', names: true, className: 'py-2 pr-3', cell: (job) => <What job={job} /> },
              { name: 'State', className: 'py-2 pr-3', cell: ({ state }) => STATES[state] },
              { name: 'Progress', className: 'py-2 pr-3', cell: (job) => <HowFar job={job} /> },
              { name: 'Started', className: 'py-2 pr-3', cell: ({ created_at }) => localTime(created_at) },
              {
                name: 'Cancel',
                kind: 'action',
                cell: (job) =>
                  runs(job) && (
                    <Button
                      aria-label={`Cancel ${titleOf(job)}`}
                      disabled={cancel.isPending}
                      onClick={() => cancel.mutate(job.id)}
                    >
                      Cancel
                    </Button>
                  ),
              },
            ]}
          />
        )}
      </div>
    </Shell>
  );
}

/** Where the outcome of each kind of job is shown. */
const SHOWN_AT: Record<string, (build: string) => string> = {
  driver_match: (build) => `/builds/${build}/find`,
};

const titleOf = ({ build_name, name }: Job) => (build_name ? `${name}: ${build_name}` : name);

const localTime = (at: string) =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

function What({ job }: { job: Job }) {
  const address = job.build ? SHOWN_AT[job.kind]?.(job.build) : undefined;
  return (
    <>
      {address ? (
        <Link to={address} className="font-medium text-oak hover:underline">
          {titleOf(job)}
        </Link>
      ) : (
        <span className="font-medium">{titleOf(job)}</span>
      )}
      {job.failure && <p className="text-short">{job.failure}</p>}
    </>
  );
}

function HowFar({ job }: { job: Job }) {
  return (
    <span className="flex items-center gap-2 font-mono">
      <progress
        aria-label={`Progress of ${titleOf(job)}`}
        className="h-2 w-32"
        max={Math.max(1, job.total)}
        value={job.total === 0 ? 1 : job.done}
      />
      {job.done} of {job.total}
    </span>
  );
}

const STATES: Record<Job['state'], string> = {
  waiting: 'Waiting',
  running: 'Running',
  finished: 'Finished',
  cancelled: 'Cancelled',
  failed: 'Failed',
};

-- Everything long is a job. Its row holds what it was asked, how far it is and what came of it; the queue holds only the few
-- pieces of it that may be worked on now.
CREATE TABLE jobs (
    id uuid PRIMARY KEY,
    kind text NOT NULL,
    build_id uuid REFERENCES builds (id) ON DELETE CASCADE,
    input jsonb NOT NULL,
    -- Units of work in all, put into the queue so far, and done.
    total integer NOT NULL CHECK (total >= 0),
    queued integer NOT NULL DEFAULT 0 CHECK (queued >= 0),
    done integer NOT NULL DEFAULT 0 CHECK (done BETWEEN 0 AND queued),
    -- Where the next piece begins.
    cursor jsonb,
    result jsonb,
    failure text,
    created_at timestamptz NOT NULL DEFAULT now(),
    cancelled_at timestamptz,
    finished_at timestamptz
);
-- One at a time of each kind in a build.
CREATE UNIQUE INDEX jobs_at_work ON jobs (kind, build_id) WHERE finished_at IS NULL AND cancelled_at IS NULL;
CREATE INDEX jobs_of_build ON jobs (build_id, kind);

-- The queue's own table, as its library (fang 0.11) wants it.
CREATE TYPE fang_task_state AS ENUM ('new', 'in_progress', 'failed', 'finished', 'retried');
CREATE TABLE fang_tasks (
    id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    metadata jsonb NOT NULL,
    error_message text,
    state fang_task_state DEFAULT 'new' NOT NULL,
    task_type text DEFAULT 'common' NOT NULL,
    uniq_hash text,
    retries integer DEFAULT 0 NOT NULL,
    scheduled_at timestamptz NOT NULL DEFAULT now(),
    created_at timestamptz NOT NULL DEFAULT now(),
    updated_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX fang_tasks_to_do ON fang_tasks (task_type, scheduled_at) WHERE state IN ('new', 'retried');
CREATE INDEX fang_tasks_of_job ON fang_tasks ((metadata ->> 'job'));

INSERT INTO jobs (id, kind, build_id, input, total, queued, done, result, failure, created_at, cancelled_at, finished_at)
SELECT id, 'driver_match', build_id, jsonb_build_object('brief', brief, 'drivers', drivers), total, done, done,
    jsonb_build_object('found', found, 'complete', complete),
    CASE WHEN finished_at IS NULL AND cancelled_at IS NULL THEN 'The program was updated while it ran. Start it again.' ELSE failure END,
    created_at, cancelled_at, CASE WHEN cancelled_at IS NULL THEN coalesce(finished_at, now()) END
FROM searches;

ALTER TABLE search_rows RENAME TO driver_match_rows;
ALTER TABLE driver_match_rows RENAME COLUMN search_id TO job_id;
ALTER TABLE driver_match_rows DROP CONSTRAINT search_rows_search_id_fkey;
ALTER TABLE driver_match_rows ADD FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE;
ALTER INDEX search_rows_ranked RENAME TO driver_match_rows_ranked;
DROP TABLE searches;

-- What an earlier queue left behind.
DROP SCHEMA IF EXISTS apalis CASCADE;

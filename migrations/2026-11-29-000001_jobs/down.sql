CREATE TABLE searches (
    id uuid PRIMARY KEY,
    build_id uuid NOT NULL UNIQUE REFERENCES builds (id) ON DELETE CASCADE,
    brief jsonb NOT NULL,
    drivers integer NOT NULL CHECK (drivers BETWEEN 1 AND 8),
    total integer NOT NULL CHECK (total >= 0),
    done integer NOT NULL DEFAULT 0 CHECK (done BETWEEN 0 AND total),
    found integer NOT NULL DEFAULT 0,
    complete integer NOT NULL DEFAULT 0,
    failure text,
    cancelled_at timestamptz,
    created_at timestamptz NOT NULL DEFAULT now(),
    finished_at timestamptz
);
INSERT INTO searches
SELECT id, build_id, input -> 'brief', (input ->> 'drivers')::integer, total, least(done, total),
    coalesce((result ->> 'found')::integer, 0), coalesce((result ->> 'complete')::integer, 0),
    failure, cancelled_at, created_at, finished_at
FROM jobs WHERE kind = 'driver_match' AND build_id IS NOT NULL AND (finished_at IS NOT NULL OR cancelled_at IS NOT NULL);
DELETE FROM driver_match_rows WHERE job_id NOT IN (SELECT id FROM searches);
ALTER TABLE driver_match_rows DROP CONSTRAINT driver_match_rows_job_id_fkey;
ALTER TABLE driver_match_rows RENAME COLUMN job_id TO search_id;
ALTER TABLE driver_match_rows RENAME TO search_rows;
ALTER TABLE search_rows ADD FOREIGN KEY (search_id) REFERENCES searches (id) ON DELETE CASCADE;
ALTER INDEX driver_match_rows_ranked RENAME TO search_rows_ranked;
DROP TABLE fang_tasks;
DROP TYPE fang_task_state;
DROP TABLE jobs;

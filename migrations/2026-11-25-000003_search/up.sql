-- A search of the library for a build's brief; the newest one of each build is kept.
CREATE TABLE searches (
    id uuid PRIMARY KEY,
    build_id uuid NOT NULL UNIQUE REFERENCES builds (id) ON DELETE CASCADE,
    brief jsonb NOT NULL,
    drivers integer NOT NULL CHECK (drivers BETWEEN 1 AND 8),
    total integer NOT NULL CHECK (total >= 0),
    done integer NOT NULL DEFAULT 0 CHECK (done BETWEEN 0 AND total),
    -- Counted as rows come, because they are asked for all the time while a search runs.
    found integer NOT NULL DEFAULT 0,
    complete integer NOT NULL DEFAULT 0,
    failure text,
    cancelled_at timestamptz,
    created_at timestamptz NOT NULL DEFAULT now(),
    finished_at timestamptz
);

-- What came of one driver in one family; either a cabinet or why there is none.
CREATE TABLE search_rows (
    search_id uuid NOT NULL REFERENCES searches (id) ON DELETE CASCADE,
    driver_id uuid NOT NULL REFERENCES drivers (id) ON DELETE CASCADE,
    family text NOT NULL,
    score double precision,
    spare double precision,
    volume_m3 double precision,
    f3_hz double precision,
    loudness_db double precision,
    found jsonb,
    refused text,
    PRIMARY KEY (search_id, driver_id, family),
    CHECK ((found IS NULL) <> (refused IS NULL)),
    CHECK ((found IS NULL) = (score IS NULL) AND (score IS NULL) = (spare IS NULL) AND (score IS NULL) = (volume_m3 IS NULL))
);
CREATE INDEX search_rows_ranked ON search_rows (search_id, score DESC, spare DESC, driver_id) WHERE found IS NOT NULL;

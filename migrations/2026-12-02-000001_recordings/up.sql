-- Traces and recordings as they came, named by the hash of what is stored; documents refer to them by that name.
CREATE TABLE recordings (
    hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'),
    build_id uuid NOT NULL REFERENCES builds (id),
    content bytea NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX recordings_of_build ON recordings (build_id);

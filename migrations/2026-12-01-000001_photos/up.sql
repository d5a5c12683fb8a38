-- Pictures of the workshop, named by the hash of what is stored; documents refer to them by that name. What came is decoded and written anew, so
-- that nothing of it but the picture is kept.
CREATE TABLE photos (
    hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'),
    build_id uuid NOT NULL REFERENCES builds (id),
    content bytea NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX photos_of_build ON photos (build_id);

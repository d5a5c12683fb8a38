-- Numbers are SI. `document` is the raw form, as typed.
CREATE TABLE drivers (
    id uuid PRIMARY KEY,
    revision integer NOT NULL DEFAULT 1,
    name text NOT NULL,
    maker text NOT NULL,
    document jsonb NOT NULL,
    nominal_ohm double precision NOT NULL,
    re_ohm double precision NOT NULL,
    fs_hz double precision NOT NULL,
    qts double precision NOT NULL,
    vas_m3 double precision NOT NULL,
    sd_m2 double precision NOT NULL,
    level_db double precision NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    updated_at timestamptz NOT NULL DEFAULT now(),
    archived_at timestamptz
);
CREATE INDEX drivers_by_name ON drivers (lower(name)) WHERE archived_at IS NULL;

CREATE TABLE builds (
    id uuid PRIMARY KEY,
    revision integer NOT NULL DEFAULT 1,
    name text NOT NULL,
    notes text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    updated_at timestamptz NOT NULL DEFAULT now(),
    archived_at timestamptz
);

CREATE TABLE variants (
    id uuid PRIMARY KEY,
    build_id uuid NOT NULL REFERENCES builds (id),
    position integer NOT NULL,
    -- The newest of its revisions.
    revision integer NOT NULL,
    archived_at timestamptz
);
CREATE INDEX variants_of_build ON variants (build_id, position);

-- Append-only: what was once kept is never changed.
CREATE TABLE variant_revisions (
    variant_id uuid NOT NULL REFERENCES variants (id),
    revision integer NOT NULL,
    document jsonb NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (variant_id, revision)
);

-- What was loaded once and must not be loaded again, even after the user deleted it.
CREATE TABLE loaded_scenarios (
    name text PRIMARY KEY,
    loaded_at timestamptz NOT NULL DEFAULT now()
);

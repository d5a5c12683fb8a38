ALTER TABLE builds
    ADD COLUMN revision integer NOT NULL DEFAULT 1,
    ADD COLUMN name text NOT NULL DEFAULT '',
    ADD COLUMN notes text NOT NULL DEFAULT '',
    ADD COLUMN brief jsonb,
    ADD COLUMN updated_at timestamptz NOT NULL DEFAULT now();
ALTER TABLE builds ALTER COLUMN name DROP DEFAULT, ALTER COLUMN notes DROP DEFAULT;

CREATE TEMPORARY VIEW newest AS
SELECT build_id, kind, documents.revision, content, created_at
FROM documents JOIN document_revisions ON document_id = id AND document_revisions.revision = documents.revision
WHERE archived_at IS NULL;
UPDATE builds SET revision = newest.revision, name = content ->> 'name', notes = coalesce(content ->> 'notes', ''),
    updated_at = newest.created_at
FROM newest WHERE kind = 'title' AND build_id = builds.id;
UPDATE builds SET brief = content FROM newest WHERE kind = 'brief' AND build_id = builds.id;
DROP VIEW newest;

CREATE TABLE variants (
    id uuid PRIMARY KEY,
    build_id uuid NOT NULL REFERENCES builds (id),
    position integer NOT NULL,
    revision integer NOT NULL,
    archived_at timestamptz,
    mark integer NOT NULL
);
CREATE INDEX variants_of_build ON variants (build_id, position);
CREATE TABLE variant_revisions (
    variant_id uuid NOT NULL REFERENCES variants (id),
    revision integer NOT NULL,
    document jsonb NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (variant_id, revision)
);
INSERT INTO variants SELECT id, build_id, position, revision, archived_at, number FROM documents WHERE kind = 'variant';
INSERT INTO variant_revisions SELECT document_id, document_revisions.revision, content, created_at
FROM document_revisions JOIN documents ON id = document_id WHERE kind = 'variant';
DROP TABLE document_revisions;
DROP TABLE documents;

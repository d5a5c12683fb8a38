-- What a build is made of, each kind in the same two tables: how a document stands, and every state it was ever saved in.
CREATE TABLE documents (
    id uuid PRIMARY KEY,
    build_id uuid NOT NULL REFERENCES builds (id),
    kind text NOT NULL,
    position integer NOT NULL,
    -- What it is told apart by among its kind in the build, from 0; it stays in whatever order they stand.
    number integer NOT NULL,
    -- The newest of its revisions.
    revision integer NOT NULL,
    archived_at timestamptz
);
CREATE INDEX documents_of_build ON documents (build_id, kind, position);

-- Append-only: what was once saved is never changed.
CREATE TABLE document_revisions (
    document_id uuid NOT NULL REFERENCES documents (id),
    revision integer NOT NULL,
    content jsonb NOT NULL,
    archived boolean NOT NULL DEFAULT false,
    created_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (document_id, revision)
);

INSERT INTO documents (id, build_id, kind, position, number, revision, archived_at)
SELECT id, build_id, 'variant', position, mark, revision, archived_at FROM variants;
INSERT INTO document_revisions (document_id, revision, content, created_at)
SELECT variant_id, revision, document, created_at FROM variant_revisions;
DROP TABLE variant_revisions;
DROP TABLE variants;

INSERT INTO documents (id, build_id, kind, position, number, revision)
SELECT gen_random_uuid(), id, 'title', 1, 0, 1 FROM builds;
INSERT INTO documents (id, build_id, kind, position, number, revision)
SELECT gen_random_uuid(), id, 'brief', 1, 0, 1 FROM builds WHERE brief IS NOT NULL;
INSERT INTO document_revisions (document_id, revision, content, created_at)
SELECT documents.id, 1,
    CASE kind WHEN 'title' THEN jsonb_build_object('name', name, 'notes', notes) ELSE brief END, updated_at
FROM documents JOIN builds ON builds.id = build_id
WHERE kind IN ('title', 'brief');
ALTER TABLE builds DROP COLUMN name, DROP COLUMN notes, DROP COLUMN brief, DROP COLUMN revision, DROP COLUMN updated_at;

-- Pages of a build that a phone opens by a link. Of the link and of the cookie it is swapped for only hashes are kept.
CREATE TABLE companion_links (
    id uuid PRIMARY KEY,
    build_id uuid NOT NULL REFERENCES builds (id),
    variant_id uuid NOT NULL REFERENCES documents (id),
    -- What the page is for.
    purpose text NOT NULL,
    token_hash bytea NOT NULL UNIQUE CHECK (length(token_hash) = 32),
    session_hash bytea UNIQUE CHECK (length(session_hash) = 32),
    created_at timestamptz NOT NULL DEFAULT now(),
    join_before timestamptz NOT NULL,
    joined_at timestamptz,
    expires_at timestamptz NOT NULL,
    revoked_at timestamptz,
    -- How much it has written.
    writes integer NOT NULL DEFAULT 0
);
CREATE INDEX companion_links_of_build ON companion_links (build_id, created_at);

-- What answers phones takes this role: it reads the documents that a page needs, writes what is done of a build and nothing else. Where a plain
-- owner may make no roles, the database's administrator makes it and these grants; the listener says so when it is wanted.
DO $$
BEGIN
    BEGIN
        CREATE ROLE oak_companion NOLOGIN;
    EXCEPTION WHEN duplicate_object OR unique_violation OR insufficient_privilege THEN NULL;
    END;
    IF EXISTS (SELECT FROM pg_roles WHERE rolname = 'oak_companion') THEN
        GRANT SELECT, UPDATE (session_hash, joined_at, writes) ON companion_links TO oak_companion;
        GRANT SELECT ON documents, document_revisions TO oak_companion;
        GRANT UPDATE (revision, archived_at) ON documents TO oak_companion;
        GRANT INSERT (document_id, revision, content, archived) ON document_revisions TO oak_companion;
        ALTER TABLE documents ENABLE ROW LEVEL SECURITY;
        ALTER TABLE document_revisions ENABLE ROW LEVEL SECURITY;
        CREATE POLICY companion_reads ON documents FOR SELECT TO oak_companion
            USING (kind IN ('title', 'brief', 'variant', 'workshop', 'progress'));
        CREATE POLICY companion_ticks ON documents FOR UPDATE TO oak_companion USING (kind = 'progress');
        CREATE POLICY companion_reads ON document_revisions FOR SELECT TO oak_companion
            USING (EXISTS (SELECT FROM documents WHERE documents.id = document_id));
        CREATE POLICY companion_ticks ON document_revisions FOR INSERT TO oak_companion
            WITH CHECK (EXISTS (SELECT FROM documents WHERE documents.id = document_id AND kind = 'progress'));
    END IF;
END $$;

DROP TABLE companion_links;
DROP POLICY IF EXISTS companion_reads ON documents;
DROP POLICY IF EXISTS companion_ticks ON documents;
DROP POLICY IF EXISTS companion_reads ON document_revisions;
DROP POLICY IF EXISTS companion_ticks ON document_revisions;
ALTER TABLE documents DISABLE ROW LEVEL SECURITY;
ALTER TABLE document_revisions DISABLE ROW LEVEL SECURITY;
DO $$
BEGIN
    IF EXISTS (SELECT FROM pg_roles WHERE rolname = 'oak_companion') THEN
        REVOKE ALL ON documents, document_revisions FROM oak_companion;
    END IF;
END $$;

-- What a build must reach, as typed.
ALTER TABLE builds ADD COLUMN brief jsonb;

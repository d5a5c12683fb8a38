-- What the library is searched, filtered and sorted by. Derived from `document`; the server fills it in anew where
-- `values_version` is behind.
ALTER TABLE drivers
    ADD COLUMN values_version integer NOT NULL DEFAULT 0,
    ADD COLUMN found_by text NOT NULL DEFAULT '',
    ADD COLUMN tags text[] NOT NULL DEFAULT '{}',
    ADD COLUMN size_m double precision,
    ADD COLUMN le_h double precision NOT NULL DEFAULT 0,
    ADD COLUMN qes double precision NOT NULL DEFAULT 0,
    ADD COLUMN qms double precision NOT NULL DEFAULT 0,
    ADD COLUMN mms_kg double precision NOT NULL DEFAULT 0,
    ADD COLUMN bl_tm double precision NOT NULL DEFAULT 0,
    ADD COLUMN xmax_m double precision,
    ADD COLUMN pe_w double precision,
    ADD COLUMN price double precision,
    ADD COLUMN on_hand integer;

CREATE INDEX drivers_by_area ON drivers (sd_m2, name, id);
CREATE INDEX drivers_by_fs ON drivers (fs_hz, id);
CREATE INDEX drivers_by_qts ON drivers (qts, id);
CREATE INDEX drivers_by_vas ON drivers (vas_m3, id);
CREATE INDEX drivers_by_xmax ON drivers (xmax_m, id);
CREATE INDEX drivers_by_price ON drivers (price, id);
CREATE INDEX drivers_by_tag ON drivers USING gin (tags);
-- Two drivers with one name, whatever the case.
CREATE INDEX drivers_alike ON drivers (lower(name), lower(maker));

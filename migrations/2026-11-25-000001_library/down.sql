DROP INDEX drivers_alike, drivers_by_tag, drivers_by_price, drivers_by_xmax, drivers_by_vas, drivers_by_qts, drivers_by_fs,
    drivers_by_area;
ALTER TABLE drivers
    DROP COLUMN on_hand, DROP COLUMN price, DROP COLUMN pe_w, DROP COLUMN xmax_m, DROP COLUMN bl_tm, DROP COLUMN mms_kg,
    DROP COLUMN qms, DROP COLUMN qes, DROP COLUMN le_h, DROP COLUMN size_m, DROP COLUMN tags, DROP COLUMN found_by,
    DROP COLUMN values_version;

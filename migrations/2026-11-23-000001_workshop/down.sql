DROP TABLE loaded_scenarios;
DROP TABLE variant_revisions;
DROP TABLE variants;
DROP TABLE builds;
DROP TABLE drivers;

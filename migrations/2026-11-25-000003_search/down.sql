DROP TABLE search_rows;
DROP TABLE searches;

DROP TABLE photos;

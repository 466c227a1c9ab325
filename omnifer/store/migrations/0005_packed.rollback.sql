DROP TABLE packed;

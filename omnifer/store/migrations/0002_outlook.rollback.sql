DROP TABLE outlook;

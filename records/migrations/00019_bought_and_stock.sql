-- +goose Up
ALTER TABLE plantings ADD COLUMN bought_on TEXT;
CREATE TABLE stock (id TEXT PRIMARY KEY, variety TEXT NOT NULL, part TEXT NOT NULL, "on" TEXT NOT NULL, pieces INTEGER NOT NULL CHECK (pieces >= 0)) STRICT;

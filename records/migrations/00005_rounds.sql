-- +goose Up
CREATE TABLE jobs (
  job TEXT PRIMARY KEY, planting TEXT NOT NULL REFERENCES plantings DEFERRABLE INITIALLY DEFERRED, task TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('done', 'moved', 'dropped', 'given')), "on" TEXT, person TEXT
) STRICT;

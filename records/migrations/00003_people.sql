-- +goose Up
CREATE TABLE people (
  id TEXT PRIMARY KEY, name TEXT NOT NULL COLLATE NOCASE UNIQUE, role TEXT NOT NULL CHECK (role IN ('owner', 'crew', 'reader')),
  password TEXT NOT NULL, epoch INTEGER NOT NULL, calendar TEXT UNIQUE, joined_at TEXT NOT NULL
) STRICT;
CREATE TABLE invitations (
  hash TEXT PRIMARY KEY, role TEXT NOT NULL CHECK (role IN ('owner', 'crew', 'reader')),
  person TEXT REFERENCES people ON DELETE CASCADE, until TEXT NOT NULL
) STRICT;

-- Who made what and when. Rows are only ever added.
CREATE TABLE made (kind TEXT NOT NULL, id TEXT NOT NULL, "at" TEXT NOT NULL, "by" TEXT NOT NULL, PRIMARY KEY (kind, id, "at")) STRICT;

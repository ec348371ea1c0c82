-- +goose Up
ALTER TABLE invitations ADD COLUMN made_by TEXT REFERENCES people ON DELETE CASCADE;
ALTER TABLE invitations ADD COLUMN made_at TEXT;

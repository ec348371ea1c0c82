-- +goose Up
ALTER TABLE people ADD COLUMN imperial INTEGER NOT NULL DEFAULT 0 CHECK (imperial IN (0, 1));
ALTER TABLE people ADD COLUMN week_numbers INTEGER NOT NULL DEFAULT 0 CHECK (week_numbers IN (0, 1));

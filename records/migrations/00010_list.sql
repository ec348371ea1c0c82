-- +goose Up
ALTER TABLE people ADD COLUMN list TEXT;
CREATE UNIQUE INDEX people_by_list ON people (list);

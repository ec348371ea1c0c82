-- +goose Up
ALTER TABLE varieties ADD COLUMN days INTEGER CHECK (days > 0);
ALTER TABLE varieties ADD COLUMN traits TEXT;

-- +goose Up
ALTER TABLE orders ADD COLUMN palette TEXT;

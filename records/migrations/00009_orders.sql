-- +goose Up
ALTER TABLE orders ADD COLUMN hour REAL CHECK (hour >= 0 AND hour < 24);
ALTER TABLE orders ADD COLUMN place TEXT;
ALTER TABLE orders ADD COLUMN importance INTEGER CHECK (importance > 0);
ALTER TABLE orders ADD COLUMN cancelled_on TEXT;

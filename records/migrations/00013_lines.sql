-- +goose Up
ALTER TABLE order_lines ADD COLUMN bunch INTEGER CHECK (bunch > 0);
ALTER TABLE order_lines ADD COLUMN rung TEXT;
ALTER TABLE order_lines ADD COLUMN spares INTEGER CHECK (spares >= 0);
ALTER TABLE order_lines ADD COLUMN price REAL CHECK (price >= 0);

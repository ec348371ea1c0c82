-- +goose Up
ALTER TABLE order_lines ADD COLUMN substitutes TEXT;
ALTER TABLE recipes ADD COLUMN substitutes TEXT;

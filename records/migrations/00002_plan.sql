-- +goose Up
ALTER TABLE plantings ADD COLUMN squares TEXT;
ALTER TABLE plantings ADD COLUMN tray TEXT REFERENCES trays DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE plantings ADD COLUMN succession TEXT;

ALTER TABLE varieties ADD COLUMN spacing_cm REAL CHECK (spacing_cm > 0);
ALTER TABLE varieties ADD COLUMN stem_cm REAL CHECK (stem_cm > 0);
ALTER TABLE varieties ADD COLUMN germination REAL CHECK (germination BETWEEN 0 AND 1);
ALTER TABLE varieties ADD COLUMN seeds_in_stock INTEGER CHECK (seeds_in_stock >= 0);
ALTER TABLE varieties ADD COLUMN seeds_a_packet INTEGER CHECK (seeds_a_packet > 0);

CREATE TABLE trays (
  tray TEXT PRIMARY KEY, cells INTEGER NOT NULL CHECK (cells > 0), length_cm REAL CHECK (length_cm > 0), width_cm REAL CHECK (width_cm > 0)
) STRICT;

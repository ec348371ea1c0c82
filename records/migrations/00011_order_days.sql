-- +goose Up
CREATE TABLE order_days (
  "order" TEXT NOT NULL, line INTEGER NOT NULL, "on" TEXT NOT NULL, number INTEGER NOT NULL CHECK (number >= 0),
  PRIMARY KEY ("order", line, "on"),
  FOREIGN KEY ("order", line) REFERENCES order_lines DEFERRABLE INITIALLY DEFERRED
) STRICT;

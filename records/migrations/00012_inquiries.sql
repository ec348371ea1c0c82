-- +goose Up
CREATE TABLE inquiries (
  id TEXT PRIMARY KEY, asked_on TEXT NOT NULL, customer TEXT NOT NULL, what TEXT NOT NULL, stems INTEGER NOT NULL CHECK (stems > 0), due_on TEXT, note TEXT, done_on TEXT
) STRICT;

-- +goose Up
CREATE TABLE lessons (id TEXT PRIMARY KEY, person TEXT NOT NULL, at TEXT NOT NULL, counts TEXT, answers TEXT NOT NULL) STRICT;

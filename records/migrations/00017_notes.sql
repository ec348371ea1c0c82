-- +goose Up
CREATE TABLE notes (id TEXT PRIMARY KEY, "on" TEXT NOT NULL, about TEXT, subject TEXT, words TEXT NOT NULL) STRICT;
CREATE VIRTUAL TABLE finder USING fts5(title, words, also, kind UNINDEXED, id UNINDEXED, "on" UNINDEXED, tokenize = "unicode61 remove_diacritics 2", prefix = '2 3');
CREATE TABLE finder_state (one INTEGER PRIMARY KEY CHECK (one = 1), revision INTEGER NOT NULL) STRICT;

-- +goose Up
CREATE TABLE revision (only_row INTEGER PRIMARY KEY CHECK (only_row = 1), number INTEGER NOT NULL) STRICT;
INSERT INTO revision VALUES (1, 0);

CREATE TABLE farm (key TEXT PRIMARY KEY, value TEXT) STRICT;

CREATE TABLE crops (id TEXT PRIMARY KEY, profile TEXT NOT NULL CHECK (json_valid(profile))) STRICT;

CREATE TABLE weather (
  date TEXT NOT NULL, tmin_c REAL NOT NULL, tmax_c REAL NOT NULL, rain_mm REAL CHECK (rain_mm >= 0), issued_on TEXT NOT NULL,
  PRIMARY KEY (date, issued_on), CHECK (tmin_c <= tmax_c), CHECK (issued_on < date)
) STRICT;

CREATE TABLE beds (
  bed TEXT PRIMARY KEY, length_m REAL CHECK (length_m > 0), width_m REAL CHECK (width_m > 0), bearing_deg REAL, zone TEXT,
  cover TEXT, exposure TEXT, sun_h REAL
) STRICT;

CREATE TABLE varieties (variety TEXT PRIMARY KEY, crop TEXT NOT NULL, colour TEXT, role TEXT, height_cm REAL) STRICT;

CREATE TABLE plantings (
  planting TEXT PRIMARY KEY,
  variety TEXT NOT NULL REFERENCES varieties DEFERRABLE INITIALLY DEFERRED,
  bed TEXT REFERENCES beds DEFERRABLE INITIALLY DEFERRED,
  method TEXT NOT NULL, started_on TEXT NOT NULL, planted_out_on TEXT, pinched_on TEXT,
  pinched_share REAL CHECK (pinched_share BETWEEN 0 AND 1),
  plants INTEGER NOT NULL CHECK (plants > 0), cut_style TEXT, ended_on TEXT CHECK (ended_on >= started_on)
) STRICT;

CREATE TABLE events (
  id TEXT PRIMARY KEY, planting TEXT NOT NULL REFERENCES plantings DEFERRABLE INITIALLY DEFERRED,
  event TEXT NOT NULL, "on" TEXT NOT NULL
) STRICT;

CREATE TABLE counts (
  id TEXT PRIMARY KEY, counted_at TEXT NOT NULL, planting TEXT NOT NULL REFERENCES plantings DEFERRABLE INITIALLY DEFERRED,
  plants_counted INTEGER NOT NULL CHECK (plants_counted > 0), counter TEXT
) STRICT;
CREATE TABLE count_rungs (
  id TEXT NOT NULL REFERENCES counts ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
  rung TEXT NOT NULL CHECK (rung IN ('tight', 'colour', 'lifting', 'third', 'half', 'open', 'over', 'spent')),
  stems INTEGER NOT NULL CHECK (stems >= 0), firm INTEGER CHECK (firm BETWEEN 0 AND stems),
  PRIMARY KEY (id, rung)
) STRICT;

CREATE TABLE cuts (
  id TEXT PRIMARY KEY, cut_at TEXT NOT NULL, planting TEXT NOT NULL REFERENCES plantings DEFERRABLE INITIALLY DEFERRED,
  stems INTEGER NOT NULL CHECK (stems >= 0), culled INTEGER CHECK (culled >= 0), cull_reason TEXT, length_cm REAL,
  "left" INTEGER CHECK ("left" >= 0), seconds INTEGER CHECK (seconds BETWEEN 0 AND stems)
) STRICT;

CREATE TABLE schools (crop TEXT NOT NULL, question TEXT NOT NULL, school TEXT NOT NULL, PRIMARY KEY (crop, question)) STRICT;

CREATE TABLE orders (
  "order" TEXT PRIMARY KEY, kind TEXT NOT NULL CHECK (kind IN ('market', 'event', 'standing')), due_on TEXT NOT NULL,
  repeats TEXT, until TEXT CHECK (until >= due_on), customer TEXT, note TEXT
) STRICT;
CREATE TABLE order_lines (
  "order" TEXT NOT NULL REFERENCES orders DEFERRABLE INITIALLY DEFERRED, line INTEGER NOT NULL CHECK (line > 0),
  recipe TEXT, quantity INTEGER CHECK (quantity >= 0),
  variety TEXT REFERENCES varieties DEFERRABLE INITIALLY DEFERRED, crop TEXT, role TEXT, colour TEXT,
  stems INTEGER CHECK (stems >= 0), "use" TEXT, min_length_cm REAL, priority INTEGER,
  PRIMARY KEY ("order", line)
) STRICT;
CREATE TABLE recipes (
  recipe TEXT NOT NULL, role TEXT NOT NULL, crop TEXT NOT NULL, colour TEXT NOT NULL, stems INTEGER NOT NULL CHECK (stems > 0),
  min_length_cm REAL, rung TEXT NOT NULL, PRIMARY KEY (recipe, role, crop, colour, rung)
) STRICT;
CREATE TABLE extra_picks (date TEXT PRIMARY KEY) STRICT;

-- What stood before it was corrected or withdrawn. Rows are only ever added.
CREATE TABLE history (
  number INTEGER PRIMARY KEY, kind TEXT NOT NULL, id TEXT NOT NULL, content TEXT NOT NULL CHECK (json_valid(content)),
  ended TEXT NOT NULL CHECK (ended IN ('superseded', 'withdrawn')), ended_at TEXT NOT NULL, ended_by TEXT
) STRICT;
CREATE INDEX history_of ON history (kind, id);
-- +goose StatementBegin
CREATE TRIGGER history_stays BEFORE UPDATE ON history BEGIN SELECT raise(ABORT, 'history is never changed'); END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER history_is_kept BEFORE DELETE ON history BEGIN SELECT raise(ABORT, 'history is never deleted'); END;
-- +goose StatementEnd

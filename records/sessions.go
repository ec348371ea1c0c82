package records

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"github.com/alexedwards/scs/sqlite3store"
)

// Sessions keep who is signed in, in a file beside the database, so that a backup holds none of them.
type Sessions struct {
	*sqlite3store.SQLite3Store
	db *sql.DB
}

const makeSessions = `CREATE TABLE IF NOT EXISTS sessions (token TEXT PRIMARY KEY, data BLOB NOT NULL, expiry REAL NOT NULL) STRICT;
CREATE INDEX IF NOT EXISTS sessions_end ON sessions (expiry)`

// OpenSessions opens the sessions that belong to these records.
func (r *Records) OpenSessions(ctx context.Context) (*Sessions, error) {
	if err := ownerOnly(r.path + ".sessions"); err != nil {
		return nil, err
	}
	db, err := connect(r.path+".sessions", "immediate")
	if err != nil {
		return nil, err
	}
	if _, err := db.ExecContext(ctx, makeSessions); err != nil {
		return nil, errors.Join(fmt.Errorf("the sessions %s.sessions: %w", r.path, err), db.Close())
	}
	return &Sessions{sqlite3store.New(db.DB), db.DB}, nil
}

// Close ends the cleaning up and closes the file; who is signed in stays so.
func (s *Sessions) Close() error {
	s.StopCleanup()
	return s.db.Close()
}

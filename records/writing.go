package records

import (
	"context"
	"database/sql"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// A writing is a transaction that prepares each of its statements once: an import has the same one ten thousand times.
type writing struct {
	*sqlx.Tx
	prepared map[string]*sqlx.Stmt
}

func (w *writing) statement(ctx context.Context, query string) (*sqlx.Stmt, error) {
	if known := w.prepared[query]; known != nil {
		return known, nil
	}
	fresh, err := w.PreparexContext(ctx, query) // closed with the transaction
	if err != nil {
		return nil, fmt.Errorf("prepare %q: %w", query, err)
	}
	w.prepared[query] = fresh
	return fresh, nil
}

// ExecContext is that of the transaction.
func (w *writing) ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error) {
	s, err := w.statement(ctx, query)
	if err != nil {
		return nil, err
	}
	return s.ExecContext(ctx, args...)
}

// QueryxContext is that of the transaction.
func (w *writing) QueryxContext(ctx context.Context, query string, args ...any) (*sqlx.Rows, error) {
	s, err := w.statement(ctx, query)
	if err != nil {
		return nil, err
	}
	return s.QueryxContext(ctx, args...)
}

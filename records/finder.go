package records

import (
	"context"
	"fmt"
	"strings"

	"dewcount/farm/find"

	"github.com/jmoiron/sqlx"
)

const (
	readFinderState  = `SELECT coalesce(max(revision), -1) FROM finder_state`
	readFinder       = `SELECT rowid, kind, id, "on", title, words, also FROM finder`
	deleteFound      = `DELETE FROM finder WHERE rowid = ?`
	insertFound      = `INSERT INTO finder (kind, id, "on", title, words, also) VALUES (?, ?, ?, ?, ?, ?)`
	writeFinderState = `INSERT INTO finder_state (one, revision) VALUES (1, ?) ON CONFLICT (one) DO UPDATE SET revision = excluded.revision`
	// Notes come first. A title counts five times as much as a word; of what weighs about the same the latest is first.
	searchWords = `SELECT kind, id, "on", title, words, also FROM finder WHERE finder MATCH ?`
	searchDays  = `SELECT kind, id, "on", title, words, also FROM finder WHERE 1`
	ofDays      = ` AND "on" BETWEEN ? AND ?`
	bestFirst   = ` ORDER BY kind = 'note' DESC, round(bm25(finder, 5.0, 1.0, 1.0)), "on" DESC LIMIT ?`
	latestFirst = ` ORDER BY kind = 'note' DESC, "on" DESC LIMIT ?`
)

// Indexed returns the revision of which the index is; -1 where there is none yet.
func (r *Records) Indexed(ctx context.Context) (int64, error) {
	var revision int64
	if err := r.read.GetContext(ctx, &revision, readFinderState); err != nil {
		return 0, fmt.Errorf("read the index's revision: %w", err)
	}
	return revision, nil
}

// Index brings the full-text index to what a revision holds: what is no longer so is taken out, what is new is put in. It holds nothing of its own, so it is
// no part of any backup's worth.
func (r *Records) Index(ctx context.Context, revision int64, docs []find.Doc) error {
	tx, err := r.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	defer tx.Rollback() // after the commit it does nothing
	w := &writing{Tx: tx, prepared: make(map[string]*sqlx.Stmt)}
	wanted := make(map[find.Doc]bool, len(docs))
	for _, d := range docs {
		wanted[d] = true
	}
	var there []struct {
		Row int64 `db:"rowid"`
		find.Doc
	}
	if err := tx.SelectContext(ctx, &there, readFinder); err != nil {
		return fmt.Errorf("read the index: %w", err)
	}
	for _, t := range there {
		if wanted[t.Doc] {
			delete(wanted, t.Doc)
			continue
		}
		if _, err := w.ExecContext(ctx, deleteFound, t.Row); err != nil {
			return fmt.Errorf("take out of the index: %w", err)
		}
	}
	for _, d := range docs {
		if !wanted[d] {
			continue
		}
		if _, err := w.ExecContext(ctx, insertFound, d.Kind, d.ID, d.On, d.Title, d.Words, d.Also); err != nil {
			return fmt.Errorf("put into the index: %w", err)
		}
	}
	if _, err := w.ExecContext(ctx, writeFinderState, revision); err != nil {
		return fmt.Errorf("write the index's revision: %w", err)
	}
	return tx.Commit()
}

// Search returns what a query finds in the index, the best first, so many at most.
func (r *Records) Search(ctx context.Context, q find.Query, most int) ([]find.Doc, error) {
	var sql strings.Builder
	var args []any
	order := latestFirst
	if len(q.Words) > 0 {
		sql.WriteString(searchWords)
		args, order = append(args, q.Match()), bestFirst
	} else {
		sql.WriteString(searchDays)
	}
	if !q.From.IsZero() {
		sql.WriteString(ofDays)
		args = append(args, q.From.String(), q.To.String())
	}
	sql.WriteString(order)
	var found []find.Doc
	if err := r.read.SelectContext(ctx, &found, sql.String(), append(args, most)...); err != nil {
		return nil, fmt.Errorf("search: %w", err)
	}
	return found, nil
}

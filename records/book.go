package records

import (
	"bytes"
	"context"
	"fmt"
	"slices"
	"strings"

	"dewcount/croptable"
	"dewcount/farm/book"

	"github.com/jmoiron/sqlx"
)

const readCrops = `SELECT profile FROM crops ORDER BY id`

const readHistory = `SELECT kind, id, content, ended, ended_at, coalesce(ended_by, '') FROM history ORDER BY kind, id, number`

// Load returns the book as it stands, and its revision.
func (r *Records) Load(ctx context.Context) (*book.Book, int64, error) {
	tx, err := r.read.BeginTxx(ctx, nil)
	if err != nil {
		return nil, 0, fmt.Errorf("begin: %w", err)
	}
	defer tx.Rollback() // it only reads
	var revision int64
	if err := tx.GetContext(ctx, &revision, readRevision); err != nil {
		return nil, 0, fmt.Errorf("read the revision: %w", err)
	}
	var profiles []string
	if err := tx.SelectContext(ctx, &profiles, readCrops); err != nil {
		return nil, 0, fmt.Errorf("read the crops: %w", err)
	}
	own, err := croptable.Read(strings.NewReader("[" + strings.Join(profiles, ",") + "]"))
	if err != nil {
		return nil, 0, fmt.Errorf("the farm's own crops: %w", err)
	}
	b := book.NewBook(own)
	for _, k := range book.Kinds() {
		all, err := readKind(ctx, tx, k)
		if err != nil {
			return nil, 0, err
		}
		for _, record := range all {
			if err := b.Restore(k, record.Lines); err != nil {
				return nil, 0, fmt.Errorf("%s %s in the database: %w", k.Name, record.ID(), err)
			}
		}
	}
	if b.History, err = readPasts(ctx, tx); err != nil {
		return nil, 0, err
	}
	return b, revision, nil
}

func readKind(ctx context.Context, tx *sqlx.Tx, k *book.Kind) ([]book.Record, error) {
	t := tablesOf(k)[0]
	rows, err := readRows(ctx, tx, t, t.selectAll())
	if err != nil {
		return nil, err
	}
	all := make([]book.Record, len(rows))
	if k.Parts == nil {
		for i, row := range rows {
			all[i] = book.Record{Kind: k, Lines: [][]string{row}}
		}
		return all, nil
	}
	of := tablesOf(k)[1]
	parts, err := readRows(ctx, tx, of, of.selectAll())
	if err != nil {
		return nil, err
	}
	partsByID := make(map[string][][]string)
	for _, part := range parts {
		id := book.Record{Kind: k, Lines: [][]string{part}}.ID()
		partsByID[id] = append(partsByID[id], part)
	}
	for i, row := range rows {
		all[i] = whole(k, row, partsByID[book.Record{Kind: k, Lines: [][]string{row}}.ID()])
	}
	return all, nil
}

func readPasts(ctx context.Context, tx *sqlx.Tx) ([]book.Version, error) {
	rows, err := tx.QueryContext(ctx, readHistory)
	if err != nil {
		return nil, fmt.Errorf("read the history: %w", err)
	}
	defer rows.Close()
	var versions []book.Version
	for rows.Next() {
		var p book.Version
		if err := rows.Scan(&p.Kind, &p.ID, &p.Content, &p.Ended, &p.EndedAt, &p.EndedBy); err != nil {
			return nil, fmt.Errorf("read the history: %w", err)
		}
		versions = append(versions, p)
	}
	if err := rows.Err(); err != nil {
		return nil, fmt.Errorf("read the history: %w", err)
	}
	return versions, nil
}

const insertHistory = `INSERT INTO history (kind, id, content, ended, ended_at, ended_by) VALUES (?, ?, ?, ?, ?, nullif(?, ''))`

const insertCrop = `INSERT INTO crops (id, profile) VALUES (?, ?)`

const readCrop = `SELECT profile FROM crops WHERE id = ?`

// Apply keeps a change, all of it or nothing. A record that is added again with the same content is skipped; with another, or
// one that is to be corrected and is not there, Apply fails with a *farm.Conflict.
func (r *Records) Apply(ctx context.Context, c book.Change) error {
	return r.Change(ctx, func() (book.Change, error) { return c, nil })
}

// Change is Apply of what plan makes while nobody else can write: the transaction has begun to.
func (r *Records) Change(ctx context.Context, plan func() (book.Change, error)) error {
	return r.change(ctx, func(tx *writing) error {
		c, err := plan()
		if err != nil {
			return err
		}
		if c.IsEmpty() {
			return errNothing
		}
		if err := addCrops(ctx, tx, c.OwnCrops); err != nil {
			return err
		}
		if err := setCrops(ctx, tx, c.SetCrops, c.DropCrop); err != nil {
			return err
		}
		for _, record := range c.Add {
			now, there, err := standing(ctx, tx, record)
			if err != nil {
				return err
			}
			switch {
			case !there:
				if err := put(ctx, tx, record); err != nil {
					return err
				}
			case !now.Equal(record):
				return &book.Conflict{Record: record, There: true}
			}
		}
		for _, record := range c.Correct {
			if err := end(ctx, tx, record, "superseded", c); err != nil {
				return err
			}
			if err := put(ctx, tx, record); err != nil {
				return err
			}
		}
		for _, record := range c.Withdraw {
			if err := end(ctx, tx, record, "withdrawn", c); err != nil {
				return err
			}
		}
		for _, record := range slices.Concat(c.Add, c.Correct) {
			if err := sign(ctx, tx, record, c); err != nil {
				return err
			}
		}
		for _, p := range c.History {
			if err := keep(ctx, tx, p); err != nil {
				return err
			}
		}
		return nil
	})
}

// end moves the record that stands under a key into the history.
func end(ctx context.Context, tx *writing, record book.Record, how string, c book.Change) error {
	now, there, err := standing(ctx, tx, record)
	if err != nil {
		return err
	}
	if !there {
		return &book.Conflict{Record: record}
	}
	p := book.Version{Kind: now.Kind.Name, ID: now.ID(), Content: now.Content(), Ended: how, EndedAt: c.Stamp, EndedBy: c.Who}
	if err := keep(ctx, tx, p); err != nil {
		return err
	}
	return drop(ctx, tx, now)
}

const signRecord = `INSERT INTO made (kind, id, "at", "by") VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING`

// sign writes down who made a record; where nobody was signed in there is nothing to write.
func sign(ctx context.Context, tx *writing, record book.Record, c book.Change) error {
	if c.Who == "" || record.Kind == book.Authors {
		return nil
	}
	if _, err := tx.ExecContext(ctx, signRecord, record.Kind.Name, record.ID(), c.Stamp, c.Who); err != nil {
		return fmt.Errorf("write down who made %s %s: %w", record.Kind.Name, record.ID(), err)
	}
	return nil
}

func keep(ctx context.Context, tx *writing, p book.Version) error {
	if _, err := tx.ExecContext(ctx, insertHistory, p.Kind, p.ID, p.Content, p.Ended, p.EndedAt, p.EndedBy); err != nil {
		return fmt.Errorf("write the history of %s %s: %w", p.Kind, p.ID, err)
	}
	return nil
}

const (
	setCrop  = `INSERT INTO crops (id, profile) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET profile = excluded.profile`
	dropCrop = `DELETE FROM crops WHERE id = ?`
)

// setCrops writes own crops down, whatever stood before, and takes one away.
func setCrops(ctx context.Context, tx *writing, entries []croptable.Entry, gone string) error {
	for _, e := range entries {
		profile, err := profileText(e)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, setCrop, e.ID, profile); err != nil {
			return fmt.Errorf("write crop %s: %w", e.ID, err)
		}
	}
	if gone == "" {
		return nil
	}
	if _, err := tx.ExecContext(ctx, dropCrop, gone); err != nil {
		return fmt.Errorf("take away crop %s: %w", gone, err)
	}
	return nil
}

func profileText(e croptable.Entry) (string, error) {
	var text bytes.Buffer
	if err := croptable.Write(&text, []croptable.Entry{e}); err != nil {
		return "", fmt.Errorf("write crop %s: %w", e.ID, err)
	}
	return strings.TrimSuffix(strings.TrimPrefix(strings.TrimSpace(text.String()), "["), "]"), nil
}

func addCrops(ctx context.Context, tx *writing, entries []croptable.Entry) error {
	for _, e := range entries {
		profile, err := profileText(e)
		if err != nil {
			return err
		}
		var there []string
		if err := tx.SelectContext(ctx, &there, readCrop, e.ID); err != nil {
			return fmt.Errorf("read crop %s: %w", e.ID, err)
		}
		if len(there) > 0 {
			if there[0] != profile {
				return fmt.Errorf("crop %q is on record with other values: give the changed one its own id", e.ID)
			}
			continue
		}
		if _, err := tx.ExecContext(ctx, insertCrop, e.ID, profile); err != nil {
			return fmt.Errorf("write crop %s: %w", e.ID, err)
		}
	}
	return nil
}

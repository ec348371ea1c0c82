package records

import (
	"context"
	"fmt"

	"dewcount/people"

	"github.com/jmoiron/sqlx"
)

const readPeople = `SELECT id, name, role, password, epoch, coalesce(calendar, '') AS calendar, coalesce(list, '') AS list, joined_at AS joinedat, imperial, week_numbers AS weeknumbers FROM people ORDER BY joined_at, id`

// People returns everybody who is set up.
func (r *Records) People(ctx context.Context) ([]people.Person, error) {
	var all []people.Person
	if err := r.read.SelectContext(ctx, &all, readPeople); err != nil {
		return nil, fmt.Errorf("read the people: %w", err)
	}
	return all, nil
}

const (
	admitPerson = `INSERT INTO people (id, name, role, password, epoch, calendar, list, joined_at, imperial, week_numbers) VALUES (?, ?, ?, ?, ?, nullif(?, ''), nullif(?, ''), ?, ?, ?)
ON CONFLICT (id) DO UPDATE SET name = excluded.name, role = excluded.role, password = excluded.password, epoch = excluded.epoch, calendar = excluded.calendar, list = excluded.list,
  imperial = excluded.imperial, week_numbers = excluded.week_numbers`
	takeInvitation = `DELETE FROM invitations WHERE hash = ?`
	dismissPerson  = `DELETE FROM people WHERE id = ?`
	readInvitation = `SELECT hash, role, coalesce(person, '') AS person, until, coalesce(made_by, '') AS madeby, coalesce(made_at, '') AS madeat FROM invitations`
	addInvitation  = `INSERT INTO invitations (hash, role, person, until, made_by, made_at) VALUES (?, ?, nullif(?, ''), ?, nullif(?, ''), ?)`
	endedBefore    = `DELETE FROM invitations WHERE until < ?`
)

// Admit adds a person, or takes the place of the one with its id, and uses up an invitation: both or neither.
func (r *Records) Admit(ctx context.Context, p people.Person, invitation string) (bool, error) {
	there := true
	err := r.alone(ctx, func(tx *sqlx.Tx) error {
		if invitation != "" {
			done, err := tx.ExecContext(ctx, takeInvitation, invitation)
			if err != nil {
				return fmt.Errorf("use up the invitation: %w", err)
			}
			if n, err := done.RowsAffected(); err != nil || n == 0 {
				there = false
				return err
			}
		}
		if _, err := tx.ExecContext(ctx, admitPerson, p.ID, p.Name, p.Role, p.Password, p.Epoch, p.Calendar, p.List, p.JoinedAt, p.Imperial, p.WeekNumbers); err != nil {
			return fmt.Errorf("write %s down: %w", p.Name, err)
		}
		return nil
	})
	return there && err == nil, err
}

// Dismiss takes a person away, with the invitations that would renew their password.
func (r *Records) Dismiss(ctx context.Context, id string) error {
	return r.alone(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, dismissPerson, id); err != nil {
			return fmt.Errorf("take a person away: %w", err)
		}
		return nil
	})
}

// Invitations returns those that were not used yet, ended ones too.
func (r *Records) Invitations(ctx context.Context) ([]people.Invitation, error) {
	var all []people.Invitation
	if err := r.read.SelectContext(ctx, &all, readInvitation); err != nil {
		return nil, fmt.Errorf("read the invitations: %w", err)
	}
	return all, nil
}

// Invite keeps an invitation.
func (r *Records) Invite(ctx context.Context, i people.Invitation) error {
	return r.alone(ctx, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, endedBefore, i.MadeAt); err != nil {
			return fmt.Errorf("clear up ended invitations: %w", err)
		}
		if _, err := tx.ExecContext(ctx, addInvitation, i.Hash, i.Role, i.Person, i.Until, i.MadeBy, i.MadeAt); err != nil {
			return fmt.Errorf("keep the invitation: %w", err)
		}
		return nil
	})
}

// EndInvitation takes an invitation away, and reports whether it was there.
func (r *Records) EndInvitation(ctx context.Context, hash string) (there bool, err error) {
	err = r.alone(ctx, func(tx *sqlx.Tx) error {
		done, err := tx.ExecContext(ctx, takeInvitation, hash)
		if err != nil {
			return fmt.Errorf("end an invitation: %w", err)
		}
		n, err := done.RowsAffected()
		there = n > 0
		return err
	})
	return there, err
}

package demo

import (
	"context"
	"fmt"

	"dewcount/people"
)

// Visitor is the name as whom the demo signs its visitor in: Larkenfold's owner.
const Visitor = "Wren"

// Let writes the farm's people down where nobody is. They have no password: the demo signs its visitor in by itself.
func Let(ctx context.Context, store people.Store) error {
	there, err := store.People(ctx)
	if err != nil || len(there) > 0 {
		return err
	}
	for i, p := range []people.Person{{Name: Visitor, Role: people.Owner}, {Name: "Tam", Role: people.Crew}, {Name: "Ilka", Role: people.Crew}, {Name: "Jörn", Role: people.Crew}, {Name: "Zoë", Role: people.Crew}, {Name: "Old Brock", Role: people.Reader}} {
		p.ID, p.JoinedAt = fmt.Sprintf("larkenfold-%d", i+1), fmt.Sprintf("2026-0%d-14T18:00:00Z", i+1)
		if _, err := store.Admit(ctx, p, ""); err != nil {
			return err
		}
	}
	return nil
}

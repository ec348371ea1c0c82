package farm

import (
	"context"
	"slices"

	"dewcount/farm/book"
)

// Saw writes down what was seen or done on a planting. That it was pinched or planted out becomes the planting's own date as well, in
// one step. Sent twice it is kept once.
func (f *Farm) Saw(ctx context.Context, who string, e book.Event) error {
	return f.change(ctx, who, func(b *book.Book) (book.Change, error) {
		c := book.Change{Add: []book.Record{e.Record()}}
		p, ok := b.Planting(e.Planting)
		known := slices.ContainsFunc(b.Events, func(x book.Event) bool { return x.ID == e.ID })
		if !ok || known {
			return c, nil
		}
		old := p
		switch e.Event {
		case book.Pinched:
			p.PinchedOn = e.On
		case book.PlantedOut:
			p.PlantedOutOn = e.On
			if p.BoughtOn.After(e.On) {
				p.BoughtOn = e.On // they came sooner
			}
		}
		if p != old {
			c.Correct = append(c.Correct, p.Record())
		}
		return c, nil
	})
}

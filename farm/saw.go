package farm

import (
	"context"
	"slices"
)

// What was done to a row on a day, which is written down with the planting too: growth goes by it.
const (
	Pinched    = "pinched"
	PlantedOut = "planted_out"
)

// Saw writes down what was seen or done on a planting. That it was pinched or planted out becomes the planting's own date as well, in
// one step. Sent twice it is kept once.
func (f *Farm) Saw(ctx context.Context, who string, e Event) error {
	c := Change{Add: []Record{e.Record()}}
	book, _, err := f.load(ctx)
	if err != nil {
		return err
	}
	p, ok := book.Planting(e.Planting)
	known := slices.ContainsFunc(book.Events, func(x Event) bool { return x.ID == e.ID })
	if ok && !known {
		old := p
		switch e.Event {
		case Pinched:
			p.PinchedOn = e.On
		case PlantedOut:
			p.PlantedOutOn = e.On
		}
		if p != old {
			c.Correct = append(c.Correct, p.Record())
		}
	}
	return f.keep(ctx, who, c)
}

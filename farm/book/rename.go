package book

import "dewcount/fault"

// Renaming returns what gives an order another name, its lines and days with it, and the stems that went to it. A fault is named after the order's column.
func (b *Book) Renaming(o Order, name string) (Change, error) {
	var c Change
	if _, taken := b.Order(name); taken {
		return c, fault.List{{Field: "order", Advice: "there is an order of that name already: choose another"}}
	}
	for _, d := range b.OrderDays {
		if d.Order == o.ID {
			c.Withdraw = append(c.Withdraw, d.Record())
		}
	}
	for _, l := range b.OrderLines {
		if l.Order == o.ID {
			c.Withdraw = append(c.Withdraw, l.Record())
		}
	}
	c.Withdraw = append(c.Withdraw, o.Record())
	old := o.ID
	o.ID = name
	c.Add = append(c.Add, o.Record())
	for _, l := range b.OrderLines {
		if l.Order == old {
			l.Order = name
			c.Add = append(c.Add, l.Record())
		}
	}
	for _, d := range b.OrderDays {
		if d.Order == old {
			d.Order = name
			c.Add = append(c.Add, d.Record())
		}
	}
	for _, r := range b.NotesOn(AboutOrder, old) {
		r.Subject = name
		c.Correct = append(c.Correct, r.Record())
	}
	for _, m := range b.Moves {
		if m.Order == old {
			m.Order = name
			c.Correct = append(c.Correct, m.Record())
		}
	}
	return c, nil
}

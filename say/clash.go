package say

import (
	"fmt"

	"dewcount/core/plan"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

// ClashesOf returns who wants the same squares among some stays.
func ClashesOf(stays []look.BedStay) []plan.Clash { return plan.Clashes(look.PatchesOf(stays)) }

// Clash says who wants the same squares, and when.
func (l Locale) Clash(c plan.Clash) string {
	until := "for good"
	if !c.Until.IsZero() {
		until = "until " + l.Date(c.Until.Add(-1))
	}
	return fmt.Sprintf("%s and %s want the same squares from %s %s: move one of them, or give it other squares.", c.A.Planting, c.B.Planting, l.Date(c.From), until)
}

// Note says what does not go well, and what to do.
func (l Locale) Note(n plan.Note) string {
	until := ""
	if !n.Until.IsZero() {
		until = " to " + l.Date(n.Until.Add(-1))
	}
	switch n.Trouble {
	case plan.Shading:
		return fmt.Sprintf("%s (%s) shades %s (%s) at noon from %s%s: change their places.", n.A.Planting, l.CM(n.A.HighCM), n.B.Planting, l.CM(n.B.HighCM), l.Date(n.From), until)
	case plan.TallAndShort:
		return fmt.Sprintf("%s (%s) and %s (%s) are of one crop, tall and short: plant them apart.", n.A.Planting, l.CM(n.A.HighCM), n.B.Planting, l.CM(n.B.HighCM))
	case plan.WindAndHigh:
		if n.A.Netted {
			return fmt.Sprintf("%s stands in the wind: lay its net or set its stakes while it is low, from %s on.", n.A.Planting, l.Date(n.From))
		}
		return fmt.Sprintf("%s grows %s high in the wind with nothing to hold it: give it support or a sheltered bed.", n.A.Planting, l.CM(n.A.HighCM))
	default:
		return ""
	}
}

// WaterClash says which tubers want it dry while the seed of one planting wants it moist.
func (l Locale) WaterClash(notes []plan.Note, n plan.Note) string {
	var tubers []string
	from, until := n.From, n.Until
	for _, o := range notes {
		if o.Trouble == plan.WaterClash && o.A.Planting == n.A.Planting {
			tubers = append(tubers, o.B.Planting)
			if o.From.Before(from) {
				from = o.From
			}
			if o.Until.After(until) {
				until = o.Until
			}
		}
	}
	return fmt.Sprintf("On one water line, the seed of %s wants it moist every day and the tubers of %s dry, from %s to %s: water the seed by hand until it is up.",
		n.A.Planting, List(tubers), l.Date(from), l.Date(until.Add(-1)))
}

// Crowded says so where squares hold clearly fewer plants than a planting has, empty where they do not.
func (l Locale) Crowded(b plans.BedYear, stay look.BedStay) string {
	holds, crowded := b.Crowded(stay)
	if !crowded {
		return ""
	}
	return fmt.Sprintf("%s has %d plants on squares for %d at %s: they will draw up and fall over.", stay.Planting, stay.Record.Plants, holds, l.CM(stay.SpacingCM))
}

package say

import (
	"fmt"

	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

func ClashesOf(stays []look.BedStay) []plan.Clash { return plan.Clashes(look.PatchesOf(stays)) }

// ClashWords says who wants the same squares, and when.
func ClashWords(c plan.Clash, now day.Day) string {
	until := "for good"
	if !c.Until.IsZero() {
		until = "until " + SpokenYear(c.Until.Add(-1), now)
	}
	return fmt.Sprintf("%s and %s want the same squares from %s %s: move one of them, or give it other squares.", c.A.Planting, c.B.Planting, SpokenYear(c.From, now), until)
}

// NoteWords says what does not go well, and what to do.
func NoteWords(n plan.Note, now day.Day) string {
	until := ""
	if !n.Until.IsZero() {
		until = " to " + SpokenYear(n.Until.Add(-1), now)
	}
	switch n.Trouble {
	case plan.Shading:
		return fmt.Sprintf("%s (%.0f cm) shades %s (%.0f cm) at noon from %s%s: change their places.", n.A.Planting, n.A.HighCM, n.B.Planting, n.B.HighCM, SpokenYear(n.From, now), until)
	case plan.TallAndShort:
		return fmt.Sprintf("%s (%.0f cm) and %s (%.0f cm) are of one crop, tall and short: plant them apart.", n.A.Planting, n.A.HighCM, n.B.Planting, n.B.HighCM)
	case plan.WindAndHigh:
		if n.A.Netted {
			return fmt.Sprintf("%s stands in the wind: lay its net or set its stakes while it is low, from %s on.", n.A.Planting, SpokenYear(n.From, now))
		}
		return fmt.Sprintf("%s grows %.0f cm high in the wind with nothing to hold it: give it support or a sheltered bed.", n.A.Planting, n.A.HighCM)
	default:
		return ""
	}
}

// WaterWords says which tubers want it dry while the seed of one planting wants it moist.
func WaterWords(notes []plan.Note, n plan.Note, now day.Day) string {
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
		n.A.Planting, List(tubers), SpokenYear(from, now), SpokenYear(until.Add(-1), now))
}

// CrowdedWords says so where squares hold clearly fewer plants than a planting has.
func CrowdedWords(b plans.BedYear, stay look.BedStay) string {
	const clearly = 1.15
	holds := b.Grid.Plants(stay.Patch, stay.SpacingCM)
	if float64(stay.Record.Plants) <= clearly*float64(holds) {
		return ""
	}
	return fmt.Sprintf("%s has %d plants on squares for %d at %.0f cm: they will draw up and fall over.", stay.Planting, stay.Record.Plants, holds, stay.SpacingCM)
}

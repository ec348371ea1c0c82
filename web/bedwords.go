package web

import (
	"fmt"

	"dewcount/core/plan"
	"dewcount/farm"
)

func clashesOf(stays []farm.BedStay) []plan.Clash { return plan.Clashes(farm.PatchesOf(stays)) }

// clashWords says who wants the same squares, and when.
func clashWords(c plan.Clash) string {
	until := "for good"
	if !c.Until.IsZero() {
		until = "until " + c.Until.Add(-1).Spoken()
	}
	return fmt.Sprintf("%s and %s want the same squares from %s %s: move one of them, or give it other squares.", c.A.Planting, c.B.Planting, c.From.Spoken(), until)
}

package book

import (
	"dewcount/core/crop"
	"dewcount/core/plan"
)

// Grid returns a bed in the farm's squares, and whether its length and width are on record.
func (b *Book) Grid(bed string) (plan.Grid, bool) {
	x, ok := b.Bed(bed)
	place, err := b.Place()
	if !ok || err != nil || x.LengthM == nil || x.WidthM == nil {
		return plan.Grid{}, false
	}
	return plan.GridOf(*x.LengthM, *x.WidthM, place.SquareCM), true
}

// SpacingCM returns how far apart the plants of a variety stand: as it wants by itself, or as its crop does at the farm's density.
func (b *Book) SpacingCM(variety string, p *crop.Profile) float64 {
	if v, ok := b.Variety(variety); ok && v.SpacingCM != nil {
		return *v.SpacingCM
	}
	return p.SpacingCM * crop.DensityFactor(b.SchoolOf(p.ID, "density"))
}

// HighCM returns how high a variety grows, in cm: as it is written down, or the middle of its crop.
func (b *Book) HighCM(variety string, p *crop.Profile) float64 {
	if v, ok := b.Variety(variety); ok && v.HeightCM != nil {
		return *v.HeightCM
	}
	return (p.HeightCM[0] + p.HeightCM[1]) / 2
}

func OrNothing(n *float64) float64 {
	if n == nil {
		return 0
	}
	return *n
}

func OrZero(n *int) int {
	if n == nil {
		return 0
	}
	return *n
}

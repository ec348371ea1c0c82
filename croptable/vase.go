package croptable

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"dewcount/core/crop"
)

// Kinds that come up by themselves where they were left to seed, and those whose heads are cut for their seed or dry, by genus: growers know them, the
// table has no field for it.
var (
	seedAbout = []string{"Agrostemma", "Alchemilla", "Amaranthus", "Ammi", "Cenchrus", "Centaurea", "Consolida", "Daucus", "Lagurus", "Melinis", "Nigella", "Orlaya", "Phacelia", "Solidago"}
	seedHeads = []string{"Allium", "Echinacea", "Helianthus", "Malope", "Nigella", "Scabiosa"}
)

// afterTheCut puts into a profile what the entry says of stems that are cut.
func (e *Entry) afterTheCut(p *crop.Profile) {
	p.InWater = crop.InWater{Opens: e.InWater.Opens, DaysPerRung: orZero(e.InWater.DaysPerRung)}
	if e.InWater.To != nil {
		p.InWater.To, _ = crop.ParseRung(*e.InWater.To)
	}
	p.Vase = crop.Vase{Days: e.Vase.Days20C, Q10: e.Vase.Q10}
	p.Store = crop.Store{TempC: e.Store.TempC, ChillBelowC: math.Inf(-1), MaxDays: e.Store.MaxDays, DryOK: e.Store.DryOK,
		Ethylene: e.Store.Ethylene == "high", Apart: e.Store.Apart, Upright: e.Store.Upright}
	if e.Store.ChillInjuryBelowC != nil {
		p.Store.ChillBelowC = *e.Store.ChillInjuryBelowC
	}
	for _, c := range e.Condition {
		p.Condition = append(p.Condition, crop.Conditioning{ID: c.ID, WaterC: c.WaterC, DepthCM: c.DepthCM, Hours: c.Hours})
	}
	p.BucketStems = e.BucketStems
	genus, _, _ := strings.Cut(e.Botanical, " ")
	p.SeedsAbout, p.SeedHeads = slices.Contains(seedAbout, genus), slices.Contains(seedHeads, genus)
}

// checkAfterTheCut returns what would make the clocks of a cut stem or its buckets wrong, nil where nothing does.
func (e *Entry) checkAfterTheCut(within func(string, float64, float64, float64) error, given func(string, *float64, bool) error, oneOf func(string, string, ...string) error) []error {
	opens := e.InWater.Opens != "no"
	faults := []error{
		oneOf("in_water.opens", e.InWater.Opens, "no", "some", "yes"),
		given("in_water.days_per_rung", e.InWater.DaysPerRung, opens),
		within("vase.days_20c[0]", e.Vase.Days20C[0], 0.5, e.Vase.Days20C[1]), within("vase.days_20c[1]", e.Vase.Days20C[1], 0.5, 90),
		within("vase.q10", e.Vase.Q10, 1.1, 6),
		within("store.temp_c[0]", e.Store.TempC[0], -2, e.Store.TempC[1]), within("store.temp_c[1]", e.Store.TempC[1], -2, 30),
		within("store.max_days", e.Store.MaxDays, 0, 365),
		oneOf("store.ethylene", e.Store.Ethylene, "low", "high"), oneOf("store.apart", e.Store.Apart, "no", "fouls-water", "sap"),
		within("bucket_stems", float64(e.BucketStems), 1, 500),
	}
	if e.Store.ChillInjuryBelowC != nil {
		faults = append(faults, within("store.chill_injury_below_c", *e.Store.ChillInjuryBelowC, -2, 25))
	}
	if opens {
		if e.InWater.To == nil {
			return append(faults, fmt.Errorf("in_water.to should be a rung here"))
		}
		_, err := crop.ParseRung(*e.InWater.To)
		faults = append(faults, err)
		if e.InWater.DaysPerRung != nil {
			faults = append(faults, within("in_water.days_per_rung", *e.InWater.DaysPerRung, 0.05, 30))
		}
	}
	if len(e.Condition) == 0 {
		faults = append(faults, fmt.Errorf("condition is empty: say how its stems are conditioned"))
	}
	for i, c := range e.Condition {
		at := func(field string) string { return fmt.Sprintf("condition[%d].%s", i, field) }
		faults = append(faults, oneOf(at("id"), c.ID, "cool", "warm", "hot"), within(at("water_c"), c.WaterC[0], 0, c.WaterC[1]), within(at("water_c"), c.WaterC[1], 0, 95),
			within(at("depth_cm"), c.DepthCM, 1, 60), within(at("hours"), c.Hours[0], 0, c.Hours[1]), within(at("hours"), c.Hours[1], 0, 72))
	}
	for id, u := range e.Cut {
		for _, t := range u.Tests {
			var known []string
			for _, k := range crop.Tests {
				known = append(known, string(k))
			}
			faults = append(faults, oneOf("cut."+id+".tests", t, known...))
		}
	}
	return faults
}

package plan

import (
	"fmt"
	"testing"

	"dewcount/core/day"
)

func TestCompany(t *testing.T) {
	on := day.Must
	g := Grid{20, 4, 30}
	guest := func(id, cropID string, p Patch, from, until string, high float64) Guest {
		return Guest{Stay: Stay{id, p, on(from), on(until)}, Crop: cropID, HighCM: high}
	}
	// A bed that runs east: squares 4 across lie to the south. Tall ones there shade the low ones beside them, as long as both stand.
	tall := guest("SU1", "sunflower", Patch{1, 20, 4, 4}, "2026-05-01", "2026-08-01", 180)
	low := guest("NI1", "nigella", Patch{1, 20, 3, 3}, "2026-04-01", "2026-07-10", 55)
	later := guest("CO1", "cornflower", Patch{1, 20, 3, 3}, "2026-08-02", "2026-10-01", 80)
	dwarf := guest("SU2", "sunflower", Patch{1, 20, 1, 1}, "2026-05-10", "2026-08-01", 60)
	var said []string
	for _, n := range g.NotesOn([]Guest{tall, low, later, dwarf}, 90, 46.9, false) {
		said = append(said, fmt.Sprintf("%d %s %s %s", n.Trouble, n.A.Planting, n.B.Planting, n.From))
	}
	if want := fmt.Sprintf("[%d SU1 NI1 2026-05-01 %d SU1 SU2 2026-05-10]", Shading, TallAndShort); fmt.Sprint(said) != want {
		t.Errorf("notes %v, want %v", said, want)
	}
	if notes := g.NotesOn([]Guest{tall, low}, 270, 46.9, false); len(notes) > 0 {
		t.Errorf("tall ones to the north shade: %v", notes)
	}
	if notes := g.NotesOn([]Guest{tall, low}, 90, -41, false); len(notes) > 0 {
		t.Errorf("in the south the sun stands in the north: %v", notes)
	}
	if notes := g.NotesOn([]Guest{low, tall}, 270, 46.9, true); len(notes) != 1 || notes[0].Trouble != WindAndHigh || notes[0].A.Planting != "SU1" {
		t.Errorf("in wind: %v", notes)
	}
}

func TestWaterClashes(t *testing.T) {
	on := day.Must
	seed := Guest{Stay: Stay{Planting: "ZC1", From: on("2026-05-10")}, MoistUntil: on("2026-05-19")}
	tubers := Guest{Stay: Stay{Planting: "DW1", From: on("2026-05-14")}, DryUntil: DryUntil(on("2026-05-14"))}
	before := Guest{Stay: Stay{Planting: "NI1", From: on("2026-04-10")}, MoistUntil: on("2026-05-01")}
	notes := WaterClashes([]Guest{seed, tubers, before})
	if len(notes) != 1 || notes[0].A.Planting != "ZC1" || notes[0].From != on("2026-05-14") || notes[0].Until != on("2026-05-19") {
		t.Errorf("%+v", notes)
	}
}

func TestIdleTimesAreFilled(t *testing.T) {
	for _, c := range []struct {
		days int
		warm bool
		want Fill
	}{{25, true, Mulch}, {40, true, GreenManure}, {90, true, Sow}, {90, false, Mulch}} {
		if got := FillOf(c.days, c.warm); got != c.want {
			t.Errorf("%d days, warm %v: %v, want %v", c.days, c.warm, got, c.want)
		}
	}
}

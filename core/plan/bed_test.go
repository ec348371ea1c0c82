package plan

import (
	"fmt"
	"math"
	"testing"

	"dewcount/core/day"
)

// Worked on squared paper with squares of 30 cm.
func TestSquares(t *testing.T) {
	g := GridOf(24, 1.2, 30)
	if g.Along != 80 || g.Across != 4 {
		t.Fatalf("a bed of 24 by 1.2 m has %d by %d squares, not 80 by 4", g.Along, g.Across)
	}
	for _, c := range []struct {
		spacing    float64
		each, side int
		plants     int // on 6 by 4 squares
	}{
		{10, 9, 1, 216}, {15, 4, 1, 96}, {25, 1, 1, 24}, {30, 1, 1, 24}, {45, 1, 2, 6}, {60, 1, 2, 6}, {90, 1, 3, 2}, {120, 1, 4, 1},
	} {
		each, side := g.Pattern(c.spacing)
		if plants := g.Plants(Patch{1, 6, 1, 4}, c.spacing); each != c.each || side != c.side || plants != c.plants {
			t.Errorf("%v cm: %d on %d by %d, %d on 24 squares; want %d on %d, %d", c.spacing, each, side, side, plants, c.each, c.side, c.plants)
		}
	}
}

func TestPatchReadsBack(t *testing.T) {
	g := Grid{80, 4, 30}
	for s, want := range map[string]Patch{"3-14x1-2": {3, 14, 1, 2}, "3-14": {3, 14, 1, 4}, "1-80x4-4": {1, 80, 4, 4}} {
		p, err := ParsePatch(s, g)
		again, err2 := ParsePatch(p.String(), g)
		if err != nil || err2 != nil || p != want || again != want {
			t.Errorf("%q reads as %v: %v, %v", s, p, err, err2)
		}
	}
	for _, s := range []string{"", "3", "14-3", "3-14x2", "0-3", "3-81", "1-2x1-5", "3-14x1-2 and more", "a-b"} {
		if p, err := ParsePatch(s, g); err == nil {
			t.Errorf("%q reads as %v", s, p)
		}
	}
}

func TestPlacesAndClashes(t *testing.T) {
	g := Grid{20, 4, 30}
	on := func(s string) day.Day { return day.Must(s) }
	stays := []Stay{
		{"A", Patch{1, 8, 1, 4}, on("2026-05-01"), on("2026-07-15")},
		{"B", Patch{12, 20, 1, 4}, on("2026-04-01"), day.Day{}},
	}
	// 24 plants at 30 cm take six by four: not between A and B, three squares, but on A's once it is over.
	if p, ok := g.Place(24, 30, on("2026-06-01"), on("2026-09-01"), stays); ok {
		t.Errorf("placed on %v, where three squares are free", p)
	}
	if p, ok := g.Place(24, 30, on("2026-07-15"), on("2026-10-01"), stays); !ok || p != (Patch{1, 6, 1, 4}) {
		t.Errorf("placed on %v, %v", p, ok)
	}
	if p, ok := g.Place(12, 30, on("2026-06-01"), on("2026-09-01"), stays); !ok || p != (Patch{9, 11, 1, 4}) {
		t.Errorf("placed on %v, %v", p, ok)
	}
	if n := g.Room(30, on("2026-06-01"), on("2026-09-01"), stays); n != 12 {
		t.Errorf("room for %d plants between A and B, not for 12", n)
	}
	if n := g.Used(on("2026-06-01"), stays); n != 32+36 {
		t.Errorf("%d squares used, not 68", n)
	}
	if n := g.Used(on("2026-06-01"), append(stays, Stay{"B twice", stays[1].Patch, stays[1].From, day.Day{}}, Stay{"from when the bed was longer", Patch{g.Along, g.Along + 4, 1, 4}, on("2026-05-01"), day.Day{}})); n != 32+36 {
		t.Errorf("%d squares used beside what wants the same and what lies beyond the bed, not 68", n)
	}
	late := Stay{"C", Patch{7, 9, 2, 3}, on("2026-07-01"), on("2026-09-01")}
	clashes := Clashes(append(stays, late))
	if len(clashes) != 1 || clashes[0].A.Planting != "A" || clashes[0].From != on("2026-07-01") || clashes[0].Until != on("2026-07-15") {
		t.Errorf("clashes: %+v", clashes)
	}
	var said []string
	for _, i := range g.Idles(on("2026-04-01"), on("2026-10-01"), stays) {
		said = append(said, fmt.Sprintf("%d-%d %s to %s", i.Patch.From, i.Patch.To, i.From, i.Until))
	}
	want := "[1-8 2026-04-01 to 2026-05-01 1-8 2026-07-15 to 2026-10-01 9-11 2026-04-01 to 2026-10-01]"
	if fmt.Sprint(said) != want {
		t.Errorf("idle: %v\nwant %v", said, want)
	}
}

func TestShade(t *testing.T) {
	// Longest and shortest day at 46.9 north: 90 - 46.9 + 23.45 and 90 - 46.9 - 23.45.
	for yearDay, want := range map[int]float64{172: 66.55, 355: 19.65} {
		if got := NoonDeg(46.9, yearDay); math.Abs(got-want) > 0.02 {
			t.Errorf("noon of day %d at %.2f°, not %.2f", yearDay, got, want)
		}
	}
	if got := ShadeCM(100, 46.9, 172); math.Abs(got-43.4) > 0.1 { // 100 ÷ tan 66.55°
		t.Errorf("a metre throws %.1f cm of shade, not 43.4", got)
	}
	g := Grid{10, 4, 30}
	left, right := Patch{1, 10, 1, 1}, Patch{1, 10, 2, 2}
	// A bed that runs east, 90°, has its right hand to the south: there the tall ones stand between the sun and the short.
	for _, c := range []struct {
		tall, short Patch
		bearing     float64
		latitude    float64
		want        bool
	}{
		{right, left, 90, 46.9, true}, {left, right, 90, 46.9, false}, {right, left, 90, -41, false}, {left, right, 90, -41, true},
		{right, left, 270, 46.9, false}, {left, right, 270, 46.9, true},
	} {
		if got := g.Shades(c.tall, c.short, 180, 60, c.bearing, c.latitude, 172); got != c.want {
			t.Errorf("tall on %v, short on %v, bed to %v°, at %v: %v", c.tall, c.short, c.bearing, c.latitude, got)
		}
	}
	// In a bed that runs a little north of east the shade falls across it: what stands farther along is not reached.
	if g.Shades(Patch{1, 3, 1, 4}, Patch{7, 10, 1, 4}, 180, 60, 80, 46.9, 172) {
		t.Error("shade falls along the bed onto what stands a metre on")
	}
	// In a bed that runs north it falls along, onto what stands next to the north, and not onto what stands to the south.
	if !g.Shades(Patch{1, 3, 1, 4}, Patch{4, 6, 1, 4}, 180, 60, 0, 46.9, 172) || g.Shades(Patch{7, 9, 1, 4}, Patch{4, 6, 1, 4}, 180, 60, 0, 46.9, 172) {
		t.Error("in a bed that runs north the shade falls to the north")
	}
	if g.Shades(right, left, 80, 60, 90, 46.9, 172) {
		t.Error("20 cm more make no shade to speak of")
	}
}

package croptable

import (
	"bytes"
	"strings"
	"testing"

	"dewcount/core/crop"
)

func TestShippedTableIsWhole(t *testing.T) {
	entries := Shipped()
	if len(entries) != 70 {
		t.Fatalf("the table has %d profiles, want 70", len(entries))
	}
	for _, e := range entries {
		p := e.Profile()
		market, ok := p.Window(crop.Market, "")
		if !ok || market.From > market.To {
			t.Errorf("%s: market window %v, %v", e.ID, market, ok)
		}
		for _, s := range p.Schools {
			if w, _ := p.Window(crop.Market, s.ID); w != s.Window {
				t.Errorf("%s: school %s has no say on the window", e.ID, s.ID)
			}
		}
		if p.Yield.Habit == crop.Again && (p.Yield.RegrowCd == 0 || p.Yield.ShootsPerCut == 0) {
			t.Errorf("%s comes again, but nothing regrows", e.ID)
		}
	}
}

func TestWrittenTableReadsBackTheSame(t *testing.T) {
	var first, second bytes.Buffer
	if err := Write(&first, Shipped()); err != nil {
		t.Fatal(err)
	}
	again, err := Read(bytes.NewReader(first.Bytes()))
	if err != nil {
		t.Fatal(err)
	}
	if err := Write(&second, again); err != nil {
		t.Fatal(err)
	}
	if !bytes.Equal(first.Bytes(), second.Bytes()) {
		t.Error("a table that is read and written again has changed")
	}
}

func TestReadRefuses(t *testing.T) {
	var table bytes.Buffer
	if err := Write(&table, Shipped()[:1]); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct{ old, new, advice string }{
		{`"base_c": 6`, `"base_c": 60`, "base_c"},
		{`"regrow_cd": 190`, `"regrow_cd": null`, "regrow_cd"},
		{`"from": "half"`, `"from": "ajar"`, "no rung"},
		{`"bud_cd"`, `"buds_cd"`, "unknown field"},
		{`"habit": "again"`, `"habit": "twice"`, "habit"},
	} {
		text := strings.Replace(table.String(), c.old, c.new, 1)
		if text == table.String() {
			t.Fatalf("%s does not stand in the table", c.old)
		}
		if _, err := Read(strings.NewReader(text)); err == nil || !strings.Contains(err.Error(), c.advice) {
			t.Errorf("with %s: %v, want it to speak of %q", c.new, err, c.advice)
		}
	}
}

// Perennials of the short days bloom in autumn wherever they stand: while days lengthen, a day of ten hours does no more for them than one of eighteen; of all others it
// is the hours alone that count.
func TestShortDaysOfSpringBringNoAutumnFlowers(t *testing.T) {
	for _, e := range Shipped() {
		p := e.Profile()
		spring, autumn := p.LightRate(10, true), p.LightRate(10, false)
		if autumn != p.Daylength.Rate(10) {
			t.Errorf("%s: %v while days shorten, want %v", e.ID, autumn, p.Daylength.Rate(10))
		}
		want := autumn
		if e.ID == "michaelmas-aster" || e.ID == "goldenrod" {
			want = p.Daylength.Slowest
			if want >= autumn {
				t.Errorf("%s has nothing of short days", e.ID)
			}
		}
		if spring != want {
			t.Errorf("%s: %v while days lengthen, want %v", e.ID, spring, want)
		}
	}
}

// Hand-worked for the schema's ramp: critical 15.5 h, 3 h wide, slowest 0.85.
func TestDaylengthRamp(t *testing.T) {
	short := crop.Daylength{Kind: "short", CriticalH: 15.5, Slowest: 0.85, WidthH: 3}
	long := crop.Daylength{Kind: "long", CriticalH: 13, Slowest: 0.2, WidthH: 2}
	for _, c := range []struct {
		d           crop.Daylength
		hours, want float64
	}{
		{short, 14, 1}, {short, 15.5, 0.925}, {short, 17, 0.85}, {short, 20, 0.85},
		{long, 12, 0.2}, {long, 13, 0.6}, {long, 14, 1}, {crop.Daylength{Kind: "neutral", Slowest: 1}, 3, 1},
	} {
		if got := c.d.Rate(c.hours); got < c.want-1e-12 || got > c.want+1e-12 {
			t.Errorf("%v at %v h: rate %v, want %v", c.d, c.hours, got, c.want)
		}
	}
}

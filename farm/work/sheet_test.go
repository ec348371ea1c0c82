package work

import (
	"math"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// autumn is a farm on 20 September with a count of that morning: zinnias, for which nobody waits, and dahlias, of which somebody wants thirty in two
// days; cornflowers, which bear frost. The night to the 22nd is told at −5 °C.
func autumn(t *testing.T, frosty bool) *look.Snapshot {
	t.Helper()
	b := book.NewBook(nil)
	read := func(k *book.Kind, rows ...[]string) {
		for _, row := range rows {
			for len(row) < len(k.Columns) {
				row = append(row, "")
			}
			if _, err := b.Read(k, [][]string{row}); err != nil {
				t.Fatal(err)
			}
		}
	}
	read(book.Settings, []string{"name", "Three Beds"}, []string{"latitude", "46.9"}, []string{"longitude", "7.2"}, []string{"elevation_m", "520"}, []string{"timezone", "Europe/Zurich"}, []string{"pick_days", "mon fri"},
		[]string{"stems_an_hour", "60"}, []string{"crew_hours", "1 1 1 1 1 1 1"})
	today := day.Must("2026-09-20")
	for d := day.Must("2026-05-01"); d.Before(today); d = d.Add(1) {
		read(book.Weather, []string{d.String(), "12", "23", "0"})
	}
	night := "9"
	if frosty {
		night = "-5"
	}
	for i, low := range []string{"11", "10", night, "9", "9", "9", "9"} {
		read(book.Weather, []string{today.Add(i).String(), low, "19", "0", today.Add(-1).String()})
	}
	read(book.Varieties, []string{"Zinnia coral", "zinnia-tall", "coral"}, []string{"Dahlia wine", "dahlia-ball", "wine"}, []string{"Cornflower blue", "cornflower", "blue"})
	read(book.Plantings, []string{"ZC1", "Zinnia coral", "", "direct", "2026-06-20", "", "", "", "100"}, []string{"DW1", "Dahlia wine", "", "tuber", "2026-05-05", "", "", "", "40"},
		[]string{"CW1", "Cornflower blue", "", "direct", "2026-06-20", "", "", "", "80"})
	for _, c := range [][2]string{{"ZC1", "100"}, {"DW1", "40"}} {
		b.Counts = append(b.Counts, book.Count{ID: "n" + c[0], CountedAt: day.At(today, 6, 0), Planting: c[0], PlantsCount: map[string]int{"ZC1": 100, "DW1": 40}[c[0]],
			Stems: [crop.Rungs]int{20, 10, 10, 20, 30, 25, 9, 6}})
	}
	read(book.Orders, []string{"Wedding", "event", today.Add(3).String()})
	read(book.OrderLines, []string{"Wedding", "1", "", "", "Dahlia wine", "", "", "", "30"})
	s, err := look.NewSnapshot(b, 0, look.Morning(today), nil)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func TestTheEveningBeforeTheFrost(t *testing.T) {
	s := autumn(t, true)
	e, ok := FrostEveningOf(s)
	if !ok || e.Night != day.Must("2026-09-22") || e.Evening != day.Must("2026-09-21") || len(e.Rows) != 2 {
		t.Fatalf("%+v", e)
	}
	first, second := e.Rows[0], e.Rows[1]
	if s.Model.Plantings[first.Planting].ID != "DW1" || first.Wanted != 30 || second.Wanted != 0 {
		t.Errorf("what somebody waits for goes first: %+v", e.Rows)
	}
	for _, r := range e.Rows {
		p := &s.Model.Plantings[r.Planting]
		want := 0.0
		for k := p.Growth.Market.From; k <= crop.Open; k++ {
			want += s.Stand.Standing(r.Planting).Rungs[k]
		}
		if math.Abs(float64(r.Stems)-want) > 0.5 || r.Stems < 20 || r.Minutes != float64(r.Stems) {
			t.Errorf("%s: %d stems in %v minutes, %.1f stand in the window and further", p.ID, r.Stems, r.Minutes, want)
		}
	}
	// At 60 an hour the crew's hour reaches for the dahlias and for no zinnias beside them.
	if first.NoTime || !second.NoTime || e.Hands < 1 || e.Light.To <= e.Light.From {
		t.Errorf("%+v", e)
	}
	want := 0
	for _, r := range e.Rows {
		n := s.Model.Plantings[r.Planting].Growth.Profile.BucketStems
		want += (r.Stems + n - 1) / n
	}
	if e.Buckets != want {
		t.Errorf("%d buckets, want %d", e.Buckets, want)
	}
	if e, ok := FrostEveningOf(autumn(t, false)); ok {
		t.Errorf("without a frost: %+v", e)
	}
	tulip := book.NewBook(nil).Crop("tulip") // opens in water: from first colour on
	if n := usable(tulip, tulip.Cut[crop.Market], [crop.Rungs]float64{100, 10, 0, 0, 0, 5, 50, 50}); n != 15 {
		t.Errorf("%d tulips can be used, want 15", n)
	}
}

// Worked by hand: 70 of a row, 30 asked for by one order in two lines and 25 by another, at 30 a bucket: 30, 25 and 15 that nobody named. 61 of one order
// are three buckets of 21 and 20.
func TestEveryBucketHasItsLabel(t *testing.T) {
	p := &crop.Profile{BucketStems: 30}
	var got []int
	for _, l := range appendLabels(appendLabels(nil, Label{Stems: 61}, p), Label{}, p) {
		got = append(got, l.Stems)
	}
	if len(got) != 3 || got[0] != 21 || got[1]+got[2] != 40 {
		t.Errorf("61 stems are in buckets of %v", got)
	}
	s := autumn(t, false)
	sheet, ok := SheetOf(s, s.Forecast.PickDays[0])
	if !ok {
		t.Fatal("no sheet")
	}
	labels := sheet.Labels(s)
	for _, r := range sheet.Rows {
		sum, forWedding, claimed := 0, 0, 0
		most := s.Model.Plantings[r.Planting].Growth.Profile.BucketStems
		for _, l := range labels {
			if l.Planting == r.Planting {
				sum += l.Stems
				if l.Order == "Wedding" {
					forWedding += l.Stems
				}
				if l.Stems > most || l.Stems == 0 {
					t.Errorf("a bucket of %d, it holds %d", l.Stems, most)
				}
			}
		}
		for _, c := range r.Claims {
			claimed += c.Stems
		}
		if sum != r.Spread.Likely() || forWedding != claimed {
			t.Errorf("%s: labels for %d stems and %d for the wedding, likely %d and %d", s.Model.Plantings[r.Planting].ID, sum, forWedding, r.Spread.Likely(), claimed)
		}
	}
}

func TestWhatAPickLeavesToDo(t *testing.T) {
	s := autumn(t, false)
	sheet, _ := SheetOf(s, s.Forecast.PickDays[0])
	a := sheet.After(s)
	spare, surplus := 0, 0
	for _, r := range sheet.Rows {
		spare += r.Spare
	}
	for _, x := range a.Surplus {
		surplus += x.Stems
		if x.Dries {
			t.Errorf("%s dries", x.Crop.ID)
		}
	}
	if surplus != spare || spare == 0 {
		t.Errorf("%d stems have nobody, on the rows %d", surplus, spare)
	}
	sheet.Rows = nil // nothing is cut: then what has gone over wants a walk of its own
	a = sheet.After(s)
	if len(a.Deadhead) != 2 {
		t.Errorf("to deadhead: %+v", a.Deadhead)
	}
	for _, r := range a.Deadhead {
		if standing := s.Stand.Standing(r.Planting).Rungs; math.Abs(float64(r.Stems)-standing[crop.Over]-standing[crop.Spent]) > 0.5 {
			t.Errorf("%+v of %v", r, standing)
		}
	}
}

// Worked by hand: the wedding is in three days; needed at seven on the day after the pick, what is cut by half past nine has rested 21.5 hours of the nine that overnight counts for; needed at noon
// of the same day it has rested 2.5.
func TestWhatIsNeededBeforeItHasRested(t *testing.T) {
	s := autumn(t, false)
	sheet, _ := SheetOf(s, s.Forecast.PickDays[0])
	for hour, want := range map[float64]int{7: 0, 12: 1} {
		b := s.Book.Own()
		at := hour
		b.Orders[0].Hour = &at
		on := sheet.Pick.Add(1)
		if hour == 12 {
			on = sheet.Pick
		}
		for i := range sheet.Rows {
			for k := range sheet.Rows[i].Claims {
				sheet.Rows[i].Claims[k].On = on
			}
		}
		hasty := sheet.Hasty(s.With(b), 9.5)
		if len(hasty) != want {
			t.Fatalf("needed at %v: %+v", hour, hasty)
		}
		if want == 1 && (hasty[0].Rested != 2.5 || hasty[0].Wanted != 9 || hasty[0].Order != "Wedding") {
			t.Errorf("%+v", hasty[0])
		}
	}
}

package demo

import (
	"math"
	"slices"
	"testing"

	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/farm/look"
	"dewcount/farm/market"
	"dewcount/farm/work"
)

// The sheet of the demo's next pick: in walking order, no stem for two orders, its hours as long as its stems take, and where the crew has too
// little time what nobody asked for is left.
func TestTheSheetOfTheDemo(t *testing.T) {
	b := load(t, filled(t))
	now, err := look.NewSnapshot(b, 0, look.Morning(FirstDay), nil)
	if err != nil {
		t.Fatal(err)
	}
	pick := now.Forecast.PickDays[0]
	sheet, ok := work.SheetOf(now, pick)
	if !ok || len(sheet.Rows) < 10 || len(sheet.Spans) == 0 || sheet.Hands < 1 {
		t.Fatalf("the sheet of %s: %d rows, %v, %d hands", pick, len(sheet.Rows), sheet.Spans, sheet.Hands)
	}
	place, _ := b.Place()
	order, claimed, minutes, asked := work.Walk(b, pick), 0, 0.0, 0
	at := 0
	for _, r := range sheet.Rows {
		p := now.Model.Plantings[r.Planting]
		for at < len(order) && order[at] != p.ID {
			at++
		}
		if at == len(order) {
			t.Fatalf("%s is not in walking order", p.ID)
		}
		own, early := 0, 0
		for _, c := range r.Claims {
			if c.Stems <= 0 || c.On.Before(pick) {
				t.Errorf("%s: %+v", p.ID, c)
			}
			if c.Early || c.Late {
				early += c.Stems
			} else {
				own += c.Stems
			}
		}
		most := r.Spread.Likely()
		if own > most || r.Spare < 0 || r.Spare > r.Spread.Likely() || r.Over > r.Spread.Likely() {
			t.Errorf("%s: %d of %d claimed, %d spare, %d over", p.ID, own, most, r.Spare, r.Over)
		}
		claimed += own + early
		minutes += r.Minutes
	}
	for _, d := range market.Dues(now) {
		for _, w := range d.Lines {
			asked += w.Wanted
		}
	}
	if claimed == 0 || claimed > asked {
		t.Errorf("%d stems are claimed of %d asked for", claimed, asked)
	}
	if math.Abs(minutes-sheet.Minutes) > 1e-9 || sheet.Hands != int(math.Ceil(minutes/60/(sheet.Spans[0].To-sheet.Spans[0].From))) {
		t.Errorf("%v minutes, the sheet says %v and %d hands in %v", minutes, sheet.Minutes, sheet.Hands, sheet.Spans)
	}
	if place.StemsAnHour != 220 {
		t.Errorf("the demo cuts %v stems an hour", place.StemsAnHour)
	}

	hurried := *b
	hurried.Settings = slices.Clone(b.Settings)
	for i := range hurried.Settings {
		if hurried.Settings[i].Key == "crew_hours" {
			hurried.Settings[i].Value = "1 1 1 1 1 1 1"
		}
	}
	if now, err = look.NewSnapshot(&hurried, 0, look.Morning(FirstDay), nil); err != nil {
		t.Fatal(err)
	}
	sheet, _ = work.SheetOf(now, pick)
	kept, share := 0.0, [2]float64{} // of what is kept and left, the share that is asked for
	var stems [2]float64
	for _, r := range sheet.Rows {
		side := 0
		if r.NoTime {
			side = 1
		} else {
			kept += r.Minutes
		}
		stems[side] += float64(r.Spread.Likely())
		share[side] += float64(r.Spread.Likely() - r.Spare)
	}
	if kept > 60 || stems[1] == 0 || !(share[0]/stems[0] > share[1]/stems[1]) {
		t.Errorf("with an hour %v minutes of rows are kept; asked for are %v of %v stems kept and %v of %v left", kept, share[0], stems[0], share[1], stems[1])
	}
	// Where today is a pick day itself, what is cut now is no cut of tomorrow's.
	for i := range hurried.Settings {
		if hurried.Settings[i].Key == "pick_days" {
			hurried.Settings[i].Value = "thu fri"
		}
	}
	both, err := look.NewSnapshot(&hurried, 0, look.Morning(FirstDay), nil)
	if err != nil {
		t.Fatal(err)
	}
	thursday, _ := work.SheetOf(both, FirstDay)
	friday, _ := work.SheetOf(both, FirstDay.Add(1))
	if !sheet.Records || !thursday.Records || friday.Records {
		t.Errorf("cuts are recorded on the evening before %v, on the day %v, on the day before another %v", sheet.Records, thursday.Records, friday.Records)
	}
	if calls := work.CallsOf(now, sheet.Rows[0].Planting); len(calls) < 2 || calls[0].Use != crop.Market || calls[0].ByRung[crop.Spent].Verdict != cutting.Discard {
		t.Errorf("the calls of the first row: %+v", calls)
	}
}

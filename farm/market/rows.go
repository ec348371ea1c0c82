package market

import (
	"cmp"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
)

// mostRows is how many rows are looked at for what could be done to them: those with the most stems.
const mostRows = 3

// onRows returns what could be done today to rows that an order lacks stems of on its day: fleece over one whose stems come too late, shade over one whose
// stems would be over, a pinch to half of one that has no buds yet, side buds wiped off one whose stems are too short, and one left standing that was to go.
func onRows(s *look.Snapshot, d Due) []Option {
	var rows []int
	long := make(map[int]bool) // of which a length is asked
	for _, w := range d.Lines {
		if !w.lacks() {
			continue
		}
		for _, part := range PartsOf(s, w.OrderLine) {
			long[part.Planting] = long[part.Planting] || w.MinLengthCM != nil
			if !slices.Contains(rows, part.Planting) {
				rows = append(rows, part.Planting)
			}
		}
	}
	sooner, later := make(map[int]float64), make(map[int]float64)
	for _, i := range rows {
		for j, pick := range s.Forecast.PickDays {
			if n := s.Forecast.Plantings[i].ByPick[j][crop.Market].Mean(); pick.Before(d.On) {
				sooner[i] += n
			} else {
				later[i] += n
			}
		}
	}
	slices.SortStableFunc(rows, func(a, b int) int { return cmp.Compare(sooner[b]+later[b], sooner[a]+later[a]) })
	var options []Option
	for _, i := range rows[:min(len(rows), mostRows)] {
		p := &s.Model.Plantings[i]
		record, ok := s.Book.Planting(p.ID)
		if !ok {
			continue
		}
		lay := func(kind Kind, event string) {
			e := book.Event{ID: "option-" + event + "-" + p.ID + "-" + s.View.Today.String(), Planting: p.ID, Event: event, On: s.View.Today}
			options = append(options, Option{Kind: kind, Row: p.ID, What: p.Variety, Change: book.Change{Add: []book.Record{e.Record()}}})
		}
		lies := p.Cover.Laid[1]
		inOpen := p.Cover.NightC == 0 && p.Cover.DayC == 0 && (lies.From.IsZero() || !lies.Until.IsZero())
		if inOpen && inBed(record, s.View.Today) {
			if later[i] >= 1 {
				lay(Fleece, book.Fleeced)
			}
			if sooner[i] >= 1 {
				lay(Shade, book.Shaded)
			}
		}
		if p.Growth.KeepBuds && long[i] {
			record := record
			record.CutStyle = "long"
			options = append(options, Option{Kind: Long, Row: p.ID, What: p.Variety, Change: book.Change{Correct: []book.Record{record.Record()}}})
		}
		if end := record.EndedOn; end.After(s.View.Today) && !end.After(d.On) {
			record := record
			record.EndedOn = d.On.Add(1)
			options = append(options, Option{Kind: Leave, Row: p.ID, What: p.Variety, On: record.EndedOn, Change: book.Change{Correct: []book.Record{record.Record()}}})
		}
		const ahead = 7 // days before its first buds from which on it is too late to pinch
		first := s.Stand.Milestones(i).FirstBud.Likely
		if p.Growth.Profile.Pinch.StemsFactor > 0 && record.PinchedOn.IsZero() && first.After(s.View.Today.Add(ahead)) && inBed(record, s.View.Today) {
			half := 0.5
			record.PinchedOn, record.PinchedShare = s.View.Today, &half
			options = append(options, Option{Kind: Pinch, Row: p.ID, What: p.Variety, Change: book.Change{Correct: []book.Record{record.Record()}}})
		}
	}
	return options
}

// inBed tells whether a planting stands in its bed.
func inBed(p book.Planting, today day.Day) bool {
	return p.StartedOn.Before(today) && (p.Method == crop.Direct || !p.PlantedOutOn.IsZero() && !p.PlantedOutOn.After(today) || p.Method == crop.Established)
}

package work

import (
	"cmp"
	"math"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/postharvest"
	"dewcount/farm/look"
	"dewcount/farm/market"
)

// A Sheet is what to cut on a pick day, and when.
type Sheet struct {
	cutting.Daytime

	Pick    day.Day
	Records bool       // cuts made now are this pick's: it is today, or the evening before where today is none itself
	Rows    []SheetRow // in walking order
	Minutes float64    // that one person takes for the likely stems of rows that are still to be cut
	Crew    float64    // minutes that the crew has that day; 0 where the farm has not said
	Hands   int        // pairs of hands that are done within the morning's span
	Waters  []postharvest.Water
	Rest    float64 // hours that the stems rest by the longest of the schools chosen
}

// A SheetRow is a row that is likely to give stems on a pick day.
type SheetRow struct {
	Planting int
	Spread   forecast.Spread // for the market's window
	Claims   []market.Claim
	Spare    int // of the likely stems, those that nobody has asked for
	Over     int // of the likely stems, those that would be past the window by the next pick; meant where Soon
	Gone     int // stems that are past the window and want cutting off; meant where Soon
	Soon     bool
	Where    cutting.Where
	Minutes  float64
	Cut      bool // on record today or on that day
	Taken    int  // sound stems that are on record of it then
	NoTime   bool // the crew's hours do not reach for it
}

// soon is up to how many days ahead today's stems tell of a pick's.
const soon = 1

// SheetOf returns the cutting sheet of a pick day, and whether that is one that the forecast reaches.
func SheetOf(s *look.Snapshot, pick day.Day) (Sheet, bool) {
	at := slices.Index(s.Forecast.PickDays, pick)
	place, err := s.Book.Place()
	if at < 0 || err != nil {
		return Sheet{}, false
	}
	sheet := Sheet{Pick: pick, Daytime: s.Stand.CuttingHours(pick, place.CutUntilC), Crew: 60 * place.CrewHours[(int(pick.Weekday())+6)%7]}
	today := s.View.Today
	sheet.Records = pick == today || pick.Sub(today) == 1 && !s.Book.PickDays(place).Has(today)
	claims := market.Claims(s, pick)
	next := 0.0
	if at+1 < len(s.Forecast.PickDays) {
		next = float64(s.Forecast.PickDays[at+1].Sub(pick))
	}
	for _, id := range Walk(s.Book, pick) {
		i := s.Index(id)
		if i < 0 || s.Over(i) {
			continue
		}
		row := SheetRow{Planting: i, Spread: s.Forecast.Plantings[i].ByPick[at][crop.Market], Claims: claims[i]}
		row.Taken, row.Cut = sheet.taken(s, id)
		none := row.Spread.AtBest() == 0 || row.Spread.Likely() == 0 && s.Rests(i, today)
		if none && len(row.Claims) == 0 && !row.Cut {
			continue
		}
		row.reckon(s, pick, next, s.Book.StemsAnHour(place, s.Model.Plantings[i].Growth.Profile))
		if !row.Cut {
			sheet.Minutes += row.Minutes
		}
		sheet.Rows = append(sheet.Rows, row)
	}
	sheet.share()
	sheet.pour(s, at)
	return sheet, true
}

// reckon works out what there is to say of a row on a pick day after which the next comes in so many days, 0 where none is known.
func (r *SheetRow) reckon(s *look.Snapshot, pick day.Day, next, stemsAnHour float64) {
	p := &s.Model.Plantings[r.Planting]
	profile := p.Growth.Profile
	likely := r.Spread.Likely()
	r.Spare = likely
	for _, c := range r.Claims {
		if !c.Early && !c.Late {
			r.Spare -= c.Stems
		}
	}
	r.Spare = max(0, r.Spare)
	r.Minutes = 60 * float64(likely) / stemsAnHour
	r.Where = cutting.WhereOf(profile, p.Growth.Market, market.TakenOf(s, p.ID) < s.Stand.Standing(r.Planting).FirstFlush/2, s.Stand.CdADay(r.Planting, pick, callDays))
	r.Over, r.Gone, r.Soon = leftUncut(s, r.Planting, pick, next, likely)
}

// leftUncut returns how many of a row's likely stems of a pick are past the window by the next one, so many days after it, and how many have passed it already; not known
// of a pick of which today's stems tell nothing.
func leftUncut(s *look.Snapshot, i int, pick day.Day, next float64, likely int) (past, gone int, known bool) {
	if pick.Sub(s.View.Today) > soon {
		return 0, 0, false
	}
	p := &s.Model.Plantings[i]
	warmth := s.Stand.CdADay(i, pick, callDays)
	ready, over, spent := 0.0, 0.0, 0.0
	for k, stems := range s.Stand.Standing(i).Rungs {
		switch rung := crop.Rung(k); {
		case rung > p.Growth.Market.To:
			spent += stems
		case p.Growth.Market.Holds(rung):
			ready += stems
			if next > 0 && !cutting.Stands(p.Growth.Profile, p.Growth.Market, rung, next+float64(pick.Sub(s.View.Today)), warmth) {
				over += stems
			}
		}
	}
	if ready > 0 {
		past = int(math.Round(float64(likely) * over / ready))
	}
	return past, int(math.Round(spent)), true
}

// share reckons how many hands the morning wants, and which rows are left where the crew's hours are too few: those first of whose stems
// least is asked for, and of these the ones that stand longest.
func (s *Sheet) share() {
	if len(s.Spans) > 0 && s.Minutes > 0 {
		morning := 60 * (s.Spans[0].To - s.Spans[0].From)
		s.Hands = int(math.Ceil(s.Minutes / morning))
	}
	if s.Crew == 0 || s.Minutes <= s.Crew {
		return
	}
	var order []int
	for i := range s.Rows {
		if !s.Rows[i].Cut && s.Rows[i].Minutes > 0 {
			order = append(order, i)
		}
	}
	worth := func(i int) float64 {
		r := &s.Rows[i]
		claimed := r.Spread.Likely() - r.Spare
		const ofOver = 0.25 // what a stem that would be over is worth beside one that is asked for
		return (float64(claimed) + ofOver*float64(min(r.Over, r.Spare))) / float64(max(1, r.Spread.Likely()))
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(worth(a), worth(b)) })
	left := s.Minutes - s.Crew
	for _, i := range order {
		if left <= 0 {
			return
		}
		s.Rows[i].NoTime = true
		left -= s.Rows[i].Minutes
	}
}

// pour reckons the buckets for what was cut of the rows, and for what is likely of those that are still to be cut; pick is the place of the
// sheet's day among the forecast's.
func (s *Sheet) pour(on *look.Snapshot, pick int) {
	stems := make(map[*crop.Profile]int)
	begun := make(map[*crop.Profile]bool)
	var crops []*crop.Profile
	for _, r := range s.Rows {
		p := &on.Model.Plantings[r.Planting]
		profile, n := on.Book.Crop(p.Growth.Profile.ID), r.Spread.Likely() // one for all its varieties
		if r.Cut {
			n, begun[profile] = r.Taken, true
		}
		if n > 0 && stems[profile] == 0 {
			crops = append(crops, profile)
		}
		stems[profile] += n
	}
	var batches []postharvest.Batch
	for _, p := range crops {
		if !begun[p] { // as the morning has it: rows do not all do well on one day
			stems[p] = on.Forecast.Crops[p.ID].ByPick[pick][crop.Market].Likely()
		}
		batches = append(batches, postharvest.Batch{Crop: p, Way: on.Book.Chosen(p, "condition"), Stems: stems[p]})
		s.Rest = max(s.Rest, crop.RestHours(on.Book.Chosen(p, "rest")))
	}
	s.Waters = postharvest.Waters(batches)
}

// taken returns the sound stems that were cut of a planting for the sheet's pick, and whether anything is on record of it.
func (s *Sheet) taken(on *look.Snapshot, planting string) (stems int, cut bool) {
	for _, c := range on.Book.Cuts {
		if d := c.CutAt.Day(); c.Planting == planting && (d == s.Pick || s.Records && d == on.View.Today) {
			stems, cut = stems+c.Stems, true
		}
	}
	return stems, cut
}

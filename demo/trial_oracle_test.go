package demo

import (
	"slices"

	"dewcount/core/day"
	"dewcount/standin"
)

// luck is what an oracle expects who knows the weather and each row's traits, and only not its plants: the sound stems of other
// fields of the same traits.
func (s *season) luck() map[string]map[day.Day][]int {
	const fields = 24
	out := make(map[string]map[day.Day][]int)
	for k := range fields {
		s.elsewhere(func(r *standin.Row) { r.Luck = uint64(k + 1) }, func(planting string, d day.Day, seen standin.Seen, _ *standin.Field) {
			if out[planting] == nil {
				out[planting] = make(map[day.Day][]int)
			}
			out[planting][d] = append(out[planting][d], seen.Ready-seen.Culled)
		})
	}
	return out
}

// fate is when an oracle expects first cuts who knows the weather and how fields grow, and no traits: the middle of other fields.
func (s *season) fate() map[string]day.Day {
	const fields = 15
	dates := make(map[string][]day.Day)
	for k := range fields {
		var firsts firstTwentieths
		s.elsewhere(func(r *standin.Row) { r.Fate = uint64(k+1) << 32 }, func(planting string, d day.Day, seen standin.Seen, field *standin.Field) {
			firsts.note(planting, d, seen.Ready, field.FirstFlush(planting))
		})
		for planting, d := range firsts.days() {
			dates[planting] = append(dates[planting], d)
		}
	}
	middle := make(map[string]day.Day)
	for planting, of := range dates {
		slices.SortFunc(of, func(a, b day.Day) int { return a.Sub(b) })
		middle[planting] = of[len(of)/2]
	}
	return middle
}

// elsewhere grows the season's rows on another field in the same weather, cutting all that is ready, and shows each row on each pick day.
func (s *season) elsewhere(change func(*standin.Row), show func(planting string, d day.Day, seen standin.Seen, field *standin.Field)) {
	picks := s.book.PickDays(s.place)
	others := slices.Clone(s.rows)
	for i := range others {
		change(&others[i])
		if p, ok := s.book.Planting(others[i].Planting); ok {
			others[i].Ended = p.EndedOn
		}
	}
	field := standin.NewField(s.seed, s.weather, s.country.latitude, others, nil, s.first)
	for d := s.first; d.Before(s.last); d = d.Add(1) {
		var taken []standin.Taken
		if picks.Has(d) {
			for _, r := range others {
				seen := field.Look(r.Planting, 0, standin.UsualEyes)
				taken = append(taken, standin.Taken{Planting: r.Planting, On: d, Stems: seen.Ready})
				show(r.Planting, d, seen, field)
			}
		}
		field.Step(taken)
	}
}

// climate is what somebody expects on an evening who knows each row's traits and the weather of eight days, and then only the climate: as near as anybody can come who
// does not know the weather.
func (s *season) climate(asOf day.Day) map[string]map[day.Day][]int {
	const (
		fields = 24
		known  = 8
		ahead  = 36
	)
	picks, first := s.book.PickDays(s.place), asOf
	var rows []standin.Row
	for _, r := range s.rows {
		if p, ok := s.book.Planting(r.Planting); ok {
			r.Ended = p.EndedOn
		}
		if r.Started.Sub(asOf) > ahead || !r.Ended.IsZero() && !r.Ended.After(asOf) {
			continue
		}
		rows = append(rows, r)
		if r.Started.Before(first) {
			first = r.Started
		}
	}
	out := make(map[string]map[day.Day][]int)
	for _, r := range rows {
		out[r.Planting] = make(map[day.Day][]int)
	}
	for k := range uint64(fields) {
		for i := range rows {
			rows[i].Luck = k + 1
		}
		field := standin.NewField(s.seed, s.weather.Otherwise(asOf.Add(known), s.seed+977*(k+1)), s.country.latitude, rows, nil, first)
		for d := first; d.Sub(asOf) <= ahead; d = d.Add(1) {
			var taken []standin.Taken
			for _, r := range rows {
				if !picks.Has(d) {
					break
				}
				seen := field.Look(r.Planting, 0, standin.UsualEyes)
				taken = append(taken, standin.Taken{Planting: r.Planting, On: d, Stems: seen.Ready})
				if d.After(asOf) {
					out[r.Planting][d] = append(out[r.Planting][d], seen.Ready-seen.Culled)
				}
			}
			field.Step(taken)
		}
	}
	return out
}

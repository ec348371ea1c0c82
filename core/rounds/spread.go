package rounds

import (
	"cmp"
	"math"
	"slices"

	"dewcount/core/day"
)

// A Shift is what is done on one day, and what time there is.
type Shift struct {
	Day     day.Day
	Minutes float64 // that the crew has
	Jobs    []Part
}

// Taken returns the minutes that the shift's jobs take.
func (s *Shift) Taken() float64 {
	sum := 0.0
	for _, p := range s.Jobs {
		sum += p.Minutes
	}
	return sum
}

// A Part is a job, or what is done on one day of a job that is planned in several pieces.
type Part struct {
	Job
	Minutes float64 // of the part
	Part    int     // its first piece, from 1
	Pieces  int     // of it
	Of      int     // pieces of the whole job
	Late    int     // days after the job's latest
}

// A Week is jobs spread over days.
type Week struct {
	Shifts []Shift
	PutOff []Part // for which no day has room
}

// longestPart is how many minutes of a job are planned in one piece, and shortPart of one that lapses, since a part of it is better than none.
const (
	longestPart = 120
	shortPart   = 30
)

// Spread spreads jobs over some days from a day on, so that no day has more work than the crew has minutes. Each job comes as near to its
// best day as there is room for; where there is not enough, what does least harm when it is late is done late, or put off; what lapses is never done late.
//
// Jobs are placed in the order of their harm, each by moving others within their own days where that makes room. Among jobs that take
// the same time this leaves undone the least harm possible (a greedy choice in a transversal matroid, Edmonds & Fulkerson 1965).
func Spread(jobs []Job, minutes func(day.Day) float64, from day.Day, days int) Week {
	s := spreading{from: from, days: make([][]int, days), room: make([]float64, days)}
	for i := range days {
		s.room[i] = minutes(from.Add(i))
	}
	for _, j := range jobs {
		if last := from.Add(days - 1); j.Best.After(last) || j.Earliest.After(last) {
			continue
		}
		longest := float64(longestPart)
		if j.Lapses {
			longest = shortPart
		}
		n := max(1, int(math.Ceil(j.Minutes/longest)))
		for i := range n {
			s.parts = append(s.parts, Part{Job: j, Minutes: j.Minutes / float64(n), Part: i + 1, Pieces: 1, Of: n})
		}
	}
	slices.SortStableFunc(s.parts, func(a, b Part) int {
		return cmp.Or(cmp.Compare(b.Harm, a.Harm), a.Latest.Compare(b.Latest), cmp.Compare(a.ID(), b.ID()))
	})
	var late []int
	for i := range s.parts {
		if !s.place(i, make(map[int]bool)) {
			late = append(late, i)
		}
	}
	var week Week
	for _, i := range late {
		if !s.placeLate(i) {
			week.PutOff = append(week.PutOff, s.parts[i])
		}
	}
	for i, here := range s.days {
		shift := Shift{Day: from.Add(i), Minutes: minutes(from.Add(i))}
		for _, k := range here {
			p := s.parts[k]
			p.Late = max(0, shift.Day.Sub(p.Latest))
			shift.Jobs = append(shift.Jobs, p)
		}
		shift.Jobs = joined(shift.Jobs)
		slices.SortStableFunc(shift.Jobs, func(a, b Part) int { return cmp.Compare(taskOrder(a.Task), taskOrder(b.Task)) })
		week.Shifts = append(week.Shifts, shift)
	}
	week.PutOff = joined(week.PutOff)
	return week
}

// joined makes one part of the pieces of a job that are done on one day.
func joined(pieces []Part) []Part {
	var parts []Part
	for _, p := range pieces {
		at := slices.IndexFunc(parts, func(q Part) bool { return q.ID() == p.ID() })
		if at < 0 {
			parts = append(parts, p)
			continue
		}
		parts[at].Minutes += p.Minutes
		parts[at].Pieces++
		parts[at].Part = min(parts[at].Part, p.Part)
	}
	return parts
}

func taskOrder(t Task) int { return slices.Index(Tasks(), t) }

type spreading struct {
	from  day.Day
	parts []Part
	days  [][]int   // parts by day
	room  []float64 // minutes left by day
}

// window returns the days on which a part is in time, the nearest to its best first; what is late already is in time today.
func (s *spreading) window(i int) []int {
	p := s.parts[i]
	first, last := max(0, p.Earliest.Sub(s.from)), min(len(s.days)-1, p.Latest.Sub(s.from))
	if last < 0 {
		first, last = 0, 0
	}
	best := p.Best.Sub(s.from)
	var in []int
	for d := first; d <= last; d++ {
		in = append(in, d)
	}
	slices.SortStableFunc(in, func(a, b int) int { return cmp.Compare(max(a-best, best-a), max(b-best, best-b)) })
	return in
}

const epsilon = 1e-9

// place puts a part on a day in its window, moving another there to a day of its own window where it must.
func (s *spreading) place(i int, tried map[int]bool) bool {
	need := s.parts[i].Minutes
	in := s.window(i)
	for _, d := range in {
		if s.room[d] >= need-epsilon {
			s.put(i, d)
			return true
		}
	}
	for _, d := range in {
		if tried[d] {
			continue
		}
		tried[d] = true
		for at, k := range s.days[d] {
			if s.room[d]+s.parts[k].Minutes < need-epsilon {
				continue
			}
			s.days[d] = slices.Delete(slices.Clone(s.days[d]), at, at+1)
			s.room[d] += s.parts[k].Minutes
			s.put(i, d) // before k looks for another place, so that it does not come back here
			if s.place(k, tried) {
				return true
			}
			s.take(i, d)
			s.days[d] = slices.Insert(s.days[d], at, k)
			s.room[d] -= s.parts[k].Minutes
		}
	}
	return false
}

func (s *spreading) put(i, d int) {
	s.days[d] = append(s.days[d], i)
	s.room[d] -= s.parts[i].Minutes
}

func (s *spreading) take(i, d int) {
	s.days[d] = slices.DeleteFunc(s.days[d], func(k int) bool { return k == i })
	s.room[d] += s.parts[i].Minutes
}

// placeLate puts a part on the first day after its window that has room, if that is of any use.
func (s *spreading) placeLate(i int) bool {
	if s.parts[i].Lapses {
		return false
	}
	for d := max(0, s.parts[i].Latest.Sub(s.from)+1); d < len(s.days); d++ {
		if s.room[d] >= s.parts[i].Minutes-epsilon {
			s.put(i, d)
			return true
		}
	}
	return false
}

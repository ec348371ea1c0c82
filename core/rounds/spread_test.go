package rounds

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"dewcount/core/day"
)

var monday = day.Must("2026-07-06")

// randomJobs are jobs of a length in minutes whose days lie in a week.
func randomJobs(random *rand.Rand, n, days int, minutes func() float64) []Job {
	var jobs []Job
	for i := range n {
		first := random.IntN(days)
		last := min(days-1, first+random.IntN(3))
		jobs = append(jobs, Job{Task: Feed, Planting: fmt.Sprintf("P%d", i), Earliest: monday.Add(first), Best: monday.Add(first + random.IntN(last-first+1)), Latest: monday.Add(last),
			Minutes: minutes(), Harm: float64(1+random.IntN(9)) / 10})
	}
	return jobs
}

func undone(w Week) float64 {
	harm := 0.0
	for _, p := range w.PutOff {
		harm += p.Harm
	}
	for _, s := range w.Shifts {
		for _, p := range s.Jobs {
			if p.Late > 0 {
				harm += p.Harm
			}
		}
	}
	return harm
}

// leastHarm tries every way to give jobs of one hour to days.
func leastHarm(jobs []Job, room []int) float64 {
	if len(jobs) == 0 {
		return 0
	}
	j := jobs[0]
	least := j.Harm + leastHarm(jobs[1:], room)
	for d := j.Earliest.Sub(monday); d <= j.Latest.Sub(monday); d++ {
		if room[d] > 0 {
			room[d]--
			least = math.Min(least, leastHarm(jobs[1:], room))
			room[d]++
		}
	}
	return least
}

func TestSpreadLeavesTheLeastHarm(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for range 400 {
		const days = 4
		jobs := randomJobs(random, 1+random.IntN(7), days, func() float64 { return 60 })
		room := make([]int, days)
		for i := range room {
			room[i] = random.IntN(3)
		}
		week := Spread(jobs, func(d day.Day) float64 { return 60 * float64(room[d.Sub(monday)]) }, monday, days)
		if got, want := undone(week), leastHarm(jobs, room); math.Abs(got-want) > 1e-9 {
			t.Fatalf("Spread of %+v over %v hours leaves harm %v, want %v", jobs, room, got, want)
		}
	}
}

func TestNoDayIsImpossibleAndNothingIsForgotten(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	for range 300 {
		jobs := randomJobs(random, random.IntN(40), 7, func() float64 { return 1 + 300*random.Float64() })
		hours := func(d day.Day) float64 { return float64(60 * ((d.Sub(monday) * 3) % 8)) }
		week := Spread(jobs, hours, monday, 7)
		minutes, want := 0.0, 0.0
		for _, s := range week.Shifts {
			if s.Taken() > s.Minutes+1e-6 {
				t.Fatalf("%s has %.0f minutes of work and %.0f of time", s.Day, s.Taken(), s.Minutes)
			}
			minutes += s.Taken()
			for _, p := range s.Jobs {
				if s.Day.Before(p.Earliest) {
					t.Fatalf("%s is done on %s, before %s", p.ID(), s.Day, p.Earliest)
				}
			}
		}
		for _, p := range week.PutOff {
			minutes += p.Minutes
		}
		for _, j := range jobs {
			want += j.Minutes
		}
		if math.Abs(minutes-want) > 1e-6 {
			t.Fatalf("%.1f minutes are planned or put off, want %.1f", minutes, want)
		}
	}
}

func TestWhatFitsComesOnItsBestDay(t *testing.T) {
	jobs := []Job{{Task: Net, Planting: "A", Earliest: monday, Best: monday.Add(2), Latest: monday.Add(4), Minutes: 60, Harm: 0.5},
		{Task: Feed, Planting: "B", Earliest: monday.Add(-20), Best: monday.Add(-10), Latest: monday.Add(-5), Minutes: 60, Harm: 0.1},
		{Task: Feed, Planting: "C", Earliest: monday.Add(5), Best: monday.Add(9), Latest: monday.Add(12), Minutes: 60, Harm: 0.1}}
	week := Spread(jobs, func(day.Day) float64 { return 120 }, monday, 7)
	if got := week.Shifts[2].Jobs; len(got) != 1 || got[0].Planting != "A" {
		t.Errorf("on its best day A has company or is missing: %+v", got)
	}
	if got := week.Shifts[0].Jobs; len(got) != 1 || got[0].Planting != "B" || got[0].Late != 5 {
		t.Errorf("what is late comes first, and says how late: %+v", got)
	}
	if len(week.PutOff) > 0 {
		t.Errorf("put off: %+v; what has its best day later is not spoken of yet", week.PutOff)
	}
}

// On the evening before a frost there are two hours for three rows: what saves most is cut first, as far as the time goes, and nothing after the night.
func TestWhatLapsesIsDoneInTimeOrNever(t *testing.T) {
	frost := func(row string, minutes, harm float64) Job {
		return Job{Task: Frost, Planting: row, Earliest: monday, Best: monday, Latest: monday, Lapses: true, Minutes: minutes, Harm: harm}
	}
	jobs := []Job{frost("A", 30, 0.93), frost("B", 80, 0.97), frost("C", 60, 0.95), {Task: Feed, Planting: "D", Earliest: monday, Best: monday, Latest: monday, Minutes: 30, Harm: 0.2}}
	week := Spread(jobs, func(day.Day) float64 { return 120 }, monday, 7)
	evening := make(map[string]float64)
	for i, s := range week.Shifts {
		for _, p := range s.Jobs {
			if p.Task == Frost && i > 0 {
				t.Errorf("%s is saved %d days after the frost", p.Planting, i)
			}
			if i == 0 {
				evening[p.Planting] = p.Minutes
			}
		}
	}
	// B in three pieces of 26:40; one of C's two of 30 fits beside them, the other and A do not
	if len(evening) != 2 || math.Abs(evening["B"]-80) > 1e-9 || evening["C"] != 30 {
		t.Errorf("on the evening before there are minutes for %v", evening)
	}
	if len(week.PutOff) != 2 || len(week.Shifts[1].Jobs) != 1 || week.Shifts[1].Jobs[0].Planting != "D" {
		t.Errorf("put off: %+v; on the next day: %+v", week.PutOff, week.Shifts[1].Jobs)
	}
}

func FuzzSpread(f *testing.F) {
	f.Add(uint64(1), 5)
	f.Fuzz(func(t *testing.T, seed uint64, n int) {
		random := rand.New(rand.NewPCG(seed, 5))
		jobs := randomJobs(random, int(uint(n)%60), 7, func() float64 { return 500 * random.Float64() })
		week := Spread(jobs, func(day.Day) float64 { return 480 * random.Float64() }, monday, 7)
		if len(week.Shifts) != 7 {
			t.Errorf("%d shifts, want 7", len(week.Shifts))
		}
	})
}

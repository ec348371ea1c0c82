// Package rounds says what is to be done in the field and when: from the growth of every planting, the weather to come and what is on
// record as done. Every job has the days between which it can be done, the best of them, and a reason; when the weather moves, so do
// they.
package rounds

import (
	"fmt"
	"slices"

	"dewcount/core/climate"
	"dewcount/core/crop"
	"dewcount/core/cutting"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/core/plan"
)

// A Task is a kind of job.
type Task string

// The tasks, in the order of a planting's life.
const (
	Sow      Task = "sow"
	Receive  Task = "receive" // young plants that were bought
	OffHeat  Task = "off-heat"
	Uncover  Task = "uncover" // cuttings that have rooted
	PotOn    Task = "pot-on"
	Harden   Task = "harden"
	PlantOut Task = "plant-out"
	Thin     Task = "thin"
	ThinMore Task = "thin-more"
	Weed     Task = "weed"
	Water    Task = "water"
	Steer    Task = "steer" // by lamps and blackout
	Net      Task = "net"
	RaiseNet Task = "raise-net"
	Pinch    Task = "pinch"
	Strip    Task = "strip"
	Feed     Task = "feed"
	Disbud   Task = "disbud"
	Bag      Task = "bag"
	Scout    Task = "scout"
	Count    Task = "count"
	Cut      Task = "cut"
	Deadhead Task = "deadhead"
	SeedHead Task = "seed-head"
	Frost    Task = "frost"
	PullOut  Task = "pull-out"
	Mulch    Task = "mulch"
	Lift     Task = "lift"
	Cover    Task = "cover"
)

// Tasks returns all tasks in that order.
func Tasks() []Task {
	return []Task{Sow, Receive, OffHeat, Uncover, PotOn, Harden, PlantOut, Thin, ThinMore, Weed, Water, Steer, Net, RaiseNet, Pinch, Strip, Feed, Disbud, Bag, Scout, Count, Cut, Deadhead, SeedHead, Frost, PullOut, Mulch, Lift, Cover}
}

// A Job is something to do on a planting.
type Job struct {
	Task     Task
	Planting string
	After    day.Day // when it was done last, or what it is for; tells one of a row of such jobs from the next
	Earliest day.Day
	Best     day.Day
	Latest   day.Day // after it the job is late, or in vain where it lapses
	Lapses   bool
	Reason   Sentence
	Cost     Sentence // of not doing it in time
	ByHand   bool     // of watering: not with the drip line
	Minutes  float64  // of one person's work
	Harm     float64  // of a day's delay beyond Latest, 0 to 1: what is put off is put off by it
}

// ID tells the job from others: the same as long as it is the same thing, whatever its days.
func (j Job) ID() string {
	id := j.Planting + " " + string(j.Task)
	if !j.After.IsZero() {
		id += " " + j.After.String()
	}
	return id
}

// A Sky is the weather as far as it is known or expected.
type Sky interface {
	Extremes(d day.Day) climate.Extremes
	DegreeDays(of climate.Response, d day.Day) float64 // what a day's weather brings a crop, in °Cd
	Rain(d day.Day) (mm float64, known bool)
	NightBelow(d day.Day, celsius float64) float64 // chance, 0 to 1, that the minimum of d is at or below celsius
	FirstBelow(celsius float64) day.Day            // the likely day of the coming winter's first such minimum, zero if none is likely
	WinterC() float64                              // the expected lowest temperature of the coming winter, °C
	Latitude() float64
}

// A Planting is what the rounds need to know of one.
type Planting struct {
	ID       string
	Profile  *crop.Profile
	Method   crop.Method
	Plants   int
	Started  day.Day
	StartBy  day.Day // the last day on which somebody is asked to begin it; zero for Started
	Bought   day.Day // when its young plants come; zero where it is started here
	Out      day.Day // as planned or done
	IsOut    bool    // it is on record that it was planted out
	Raising  *plan.Raising
	Dates    forecast.Milestones // with what is on record
	SoilWarm day.Day             // from when the soil is warm enough for its seed; zero where it is
	PinchOn  day.Day             // as planned or done; zero where nothing is
	Pinched  bool                // somebody saw it done
	Under    bool                // a cover keeps rain off
	Heavy    bool                // its soil holds water long
	Pot      bool
	Standing [crop.Rungs]float64
	Finished bool // nothing stands and nothing is to come
	Picks    []Pick
	Counted  day.Day // last
	CountFor day.Day // the next pick that somebody waits for and nobody is sure of; zero if there is none
	Cut      day.Day // last
	Done     map[Task]day.Day
	Ticked   bool      // the farm writes down what is done
	Events   []day.Day // on which a prime flower of it is wanted
	NextHere day.Day   // when something else takes its place; zero if nothing is planned
	Feeding  crop.Feeding
	Disbud   bool
	Bags     bool            // beetles are about and bags are the way here
	Leave    bool            // tubers stay in the ground whatever the winter
	LiftAll  bool            // tubers are lifted whatever the winter
	Steered  plan.SteeredDay // today's light of a crop that is steered; zero for others, and once its buds show colour
}

// A Pick is what a pick day will take.
type Pick struct {
	On    day.Day
	Stems float64
	Over  int     // of these, those that are past the window by the next pick if they are left
	Known bool    // whether that can be told
	Hours float64 // of one person
}

// Of returns the jobs of a planting that can be done from today on until the last day, or are late.
func Of(p *Planting, sky Sky, today, last day.Day) []Job {
	r := round{p, sky, today, nil}
	r.starting()
	r.caring()
	r.watering()
	r.harvesting()
	r.ending()
	return slices.DeleteFunc(r.jobs, func(j Job) bool { return j.Earliest.After(last) })
}

// A round gathers the jobs of one planting.
type round struct {
	*Planting
	sky   Sky
	today day.Day
	jobs  []Job
}

// add adds a job whose days are in order: what is best lies between the others.
func (r *round) add(j Job) {
	j.Planting = r.ID
	if j.Latest.IsZero() || j.Latest.Before(j.Earliest) {
		j.Latest = j.Earliest
	}
	if j.Best.Before(j.Earliest) {
		j.Best = j.Earliest
	}
	if j.Best.After(j.Latest) {
		j.Best = j.Latest
	}
	j.Minutes = max(1, j.Minutes)
	r.jobs = append(r.jobs, j)
}

func (r *round) done(t Task) bool { return !r.Done[t].IsZero() }

// longLate is for how many days a job that was left undone is still spoken of.
const longLate = 10

// open tells whether a one-time job whose last day is given is still to be done.
func (r *round) open(t Task, latest day.Day) bool {
	return !r.done(t) && !latest.IsZero() && r.today.Sub(latest) <= longLate
}

// up returns when the planting came up, or will; zero where that is not known. What stood there before counts from its start. Seed that
// waits for its soil comes up so much later.
func (r *round) up() day.Day {
	up := r.Dates.Emerged.Likely
	if r.waitsForSoil() && !up.IsZero() {
		up = maxDay(up, r.after(r.SoilWarm, r.Profile.EmergeCd))
	}
	return up
}

// waitsForSoil tells whether a direct sowing has to come later than it is planned.
func (r *round) waitsForSoil() bool {
	return r.Method == crop.Direct && r.SoilWarm.After(r.Started) && !r.done(Sow)
}

// inBed returns when its plants stand where they flower.
func (r *round) inBed() day.Day {
	if r.Method == crop.Direct || !r.Out.After(r.Started) {
		return r.up()
	}
	return r.Out
}

// On returns the day on which a planting has come a part (0 to 1) of the way from one day to another, by the warmth of the days between:
// growth before the bud goes with it.
func (r *round) on(from, to day.Day, part float64) day.Day {
	if from.IsZero() || to.IsZero() || !from.Before(to) {
		return day.Day{}
	}
	total := 0.0
	for d := from; d.Before(to); d = d.Add(1) {
		total += r.warmth(d)
	}
	sum := 0.0
	for d := from; d.Before(to); d = d.Add(1) {
		if sum += r.warmth(d); sum >= part*total {
			return d
		}
	}
	return to
}

// warmth returns what a day brings the crop, in °Cd.
func (r *round) warmth(d day.Day) float64 { return r.sky.DegreeDays(r.Profile.Response, d) }

// after returns the day by which so much warmth (°Cd) has come since another day.
func (r *round) after(from day.Day, degreeDays float64) day.Day {
	const longest = 400
	sum := 0.0
	for i := range longest {
		if sum >= degreeDays {
			return from.Add(i)
		}
		sum += r.warmth(from.Add(i))
	}
	return from.Add(longest)
}

// budHeight is the part of its final height that a plant has when its first buds show. A guess: stems stretch after that.
const budHeight = 0.7

// tall returns the day on which the plants are so high, in cm, zero where their first buds are not foreseen. What stands through a winter lies
// low as a rosette until the days lengthen.
func (r *round) tall(cm float64) day.Day {
	part := cm / (budHeight * float64(r.Profile.HeightCM[0]))
	from, bud := r.inBed(), r.Dates.FirstBud.Likely
	from = maxDay(from, r.rises())
	return r.on(from, bud, min(1, part))
}

// rises returns when what lay low through a winter lengthens with the days, zero for what does not lie low, or buds before then or nobody knows when.
func (r *round) rises() day.Day {
	bud := r.Dates.FirstBud.Likely
	if !r.Profile.Overwinters || bud.IsZero() {
		return day.Day{}
	}
	year, _, _ := bud.Date()
	rises := day.Of(year, 2, 15)
	if r.sky.Latitude() < 0 {
		rises = day.Of(year, 8, 15)
	}
	if !rises.Before(bud) {
		return day.Day{}
	}
	return rises
}

// pays tells whether a shoot that is made on a day would still be cut. What is done for later stems is not done when none will come.
func (r *round) pays(on day.Day) bool {
	last := r.Dates.LastCut.Likely
	if last.IsZero() {
		last = r.sky.FirstBelow(r.Profile.FrostKillC)
	}
	ready := r.after(on, r.Profile.Yield.RegrowCd)
	return ready.Sub(on) <= cutting.SeasonDays && (last.IsZero() || ready.Before(last))
}

// growing returns the first day from one on on which it is warm enough for the crop to grow, zero where none comes within some months.
func (r *round) growing(from day.Day) day.Day {
	const (
		leastCd = 2   // of a day
		longest = 180 // days
	)
	for d := from; d.Sub(from) < longest; d = d.Add(1) {
		if r.warmth(d) >= leastCd {
			return d
		}
	}
	return day.Day{}
}

func plants(n int) string {
	if n == 1 {
		return "1 plant"
	}
	return fmt.Sprintf("%d plants", n)
}

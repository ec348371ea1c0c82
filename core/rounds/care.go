package rounds

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/day"

	"gonum.org/v1/gonum/floats"
)

// What care takes, in minutes of one person; guesses.
const (
	netMinutes    = 15
	netAPlant     = 0.06
	pinchAPlant   = 0.06
	stripAPlant   = 0.25
	feedMinutes   = 5
	feedAPlant    = 0.03
	disbudAPlant  = 0.3
	bagAPlant     = 0.25
	scoutMinutes  = 1
	scoutAPlant   = 0.01 // somebody looks at some of them
	countMinutes  = 1
	countAPlant   = 0.15 // of those counted
	deadheadAStem = 0.08
)

// The heights in cm at which support goes on: easily while plants are low, hardly once they are high.
const (
	netAtCM    = 15
	netUntilCM = 40
	pinchAtCM  = 15 // where the crop table gives no height
	tallCropCM = 80 // above which the net is raised once more
	raiseAtCM  = 45
)

// feedEvery is how many days lie between two feeds, scoutEvery between two looks for pests, and scoutBloom in bloom.
const (
	feedEvery  = 21
	scoutEvery = 7
	scoutBloom = 4
)

// caring adds what is done until the bud opens.
func (r *round) caring() {
	if r.Finished || r.inBed().IsZero() {
		return
	}
	r.weed()
	r.support()
	r.tieUp()
	r.steer()
	r.pinch()
	r.strip()
	r.feed()
	r.disbud()
	r.bag()
	r.scout()
}

func (r *round) support() {
	if r.Profile.Support == "none" || r.Profile.Support == "" {
		return
	}
	what := map[string]string{"net": "the net lies on easily while plants are low", "stake": "a stake goes in without harm while roots are small"}[r.Profile.Support]
	best, latest := r.tall(netAtCM), r.tall(netUntilCM)
	if r.open(Net, latest) && r.Cut.IsZero() {
		r.add(Job{Task: Net, Earliest: r.inBed(), Best: best, Latest: latest, Harm: 0.8, Minutes: netMinutes + netAPlant*float64(r.Plants),
			Reason: Sentence{what}, Cost: Sentence{"above ", CM(netUntilCM), " it can no longer be done without breaking stems, and the row falls in the first gale"}})
	}
	if raise := r.tall(raiseAtCM); r.Profile.Support == "net" && r.Profile.HeightCM[0] > tallCropCM && r.done(Net) && r.open(RaiseNet, raise.Add(10)) {
		r.add(Job{Task: RaiseNet, Earliest: raise.Add(-3), Best: raise, Latest: raise.Add(10), Harm: 0.3, Minutes: netMinutes + netAPlant*float64(r.Plants), Reason: Sentence{"the crop has grown through its net"}, Cost: Sentence{"tops lean over a low net"}})
	}
}

func (r *round) pinch() {
	p := r.Profile.Pinch
	if r.Pinched || p.Policy == "never" || p.Policy == "" || p.Policy == "optional" && r.PinchOn.IsZero() {
		return
	}
	best, reason := r.pinchDay()
	if best.IsZero() || !r.PinchOn.IsZero() && r.PinchOn.Before(r.today) && !best.After(r.PinchOn) { // a planned day that is past was kept, unless the plants were too low for it
		return
	}
	latest := best.Add(7)
	if bud := r.Dates.FirstBud.Early; !bud.IsZero() && bud.Add(-5).Before(latest) {
		latest = maxDay(best, bud.Add(-5))
	}
	if r.open(Pinch, latest) && r.Cut.IsZero() {
		r.add(Job{Task: Pinch, Earliest: best.Add(-3), Best: best, Latest: latest, Harm: 0.6, Minutes: pinchAPlant * float64(r.Plants), Reason: reason,
			Cost: Sentence{fmt.Sprintf("unpinched plants give about 1 first stem where pinched ones give %.1f, and sooner than planned", p.StemsFactor)}})
	}
}

// pinchShift is by how many days a planned pinch may follow the plants' height.
const pinchShift = 5

// pinchDay returns the day on which the plants are as high as the crop is pinched at, near the planned day if there is one, and the reason.
func (r *round) pinchDay() (day.Day, Sentence) {
	cm := r.Profile.Pinch.AtCM
	if cm == 0 {
		cm = pinchAtCM
	}
	tall, planned := r.tall(cm), r.PinchOn
	high, how := CM(cm), " high: take out the tip above two or three pairs of leaves"
	switch {
	case planned.IsZero():
		return tall, Sentence{"plants are ", high, how}
	case tall.IsZero() || tall == planned:
		return planned, Sentence{"planned for ", planned, ", when plants are about ", high, how}
	default:
		return minDay(maxDay(tall, planned.Add(-pinchShift)), planned.Add(pinchShift)), Sentence{"planned for ", planned, "; about ", tall, " plants are ", high, how}
	}
}

func (r *round) strip() {
	bud := r.Dates.FirstBud.Likely
	if r.Profile.Yield.Habit != crop.Again || r.Profile.HeightCM[0] < 60 || bud.IsZero() || !r.open(Strip, bud.Add(12)) {
		return
	}
	j := Job{Task: Strip, Earliest: bud.Add(-5), Best: bud.Add(2), Latest: bud.Add(12), Harm: 0.2, Minutes: stripAPlant * float64(r.Plants),
		Reason: Sentence{"plants are big: strip the low leaves, so that air dries them and pests are seen"}, Cost: Sentence{"mildew climbs from below"}}
	if r.Profile.Life == crop.TuberLife {
		j.Reason = append(j.Reason, "; keep about five main stems")
	}
	r.add(j)
}

func (r *round) feed() {
	from := r.growing(r.inBed().Add(14))
	end := r.Dates.LastCut.Likely
	if from.IsZero() {
		return
	}
	switch r.Feeding {
	case crop.SpringFeed:
		if r.open(Feed, from.Add(14)) {
			r.add(Job{Task: Feed, Earliest: from.Add(-4), Best: from, Latest: from.Add(14), Harm: 0.2, Minutes: feedMinutes + feedAPlant*float64(r.Plants), Reason: Sentence{"once, when it has rooted"}, Cost: Sentence{"thinner stems"}})
		}
	case crop.WeeksFeed:
		next := from
		if last := r.Done[Feed]; !last.IsZero() {
			next = last.Add(feedEvery)
		}
		if r.today.Sub(next) > longLate { // it is not made up for
			next = r.today
		}
		if next = r.growing(next); next.IsZero() {
			return
		}
		if (end.IsZero() || next.Before(end.Add(-feedEvery))) && r.pays(maxDay(next, r.today)) {
			r.add(Job{Task: Feed, After: r.Done[Feed], Earliest: next.Add(-4), Best: next, Latest: next.Add(7), Harm: 0.15, Minutes: feedMinutes + feedAPlant*float64(r.Plants),
				Reason: Sentence{"every three weeks, low in nitrogen"}, Cost: Sentence{"later stems are thinner; much nitrogen would give leaves for flowers"}})
		}
	}
}

// disbud: side buds are wiped off 10 to 14 days before the day on which one prime flower is wanted.
func (r *round) disbud() {
	if !r.Disbud {
		return
	}
	bud, last := r.Dates.FirstBud.Likely, r.Dates.LastCut.Likely
	for _, due := range r.Events {
		if bud.IsZero() || bud.After(due.Add(-10)) || !last.IsZero() && last.Before(due.Add(-3)) || r.today.After(due.Add(-8)) || r.Done[Disbud] == due {
			continue
		}
		r.add(Job{Task: Disbud, After: due, Earliest: due.Add(-14), Best: due.Add(-12), Latest: due.Add(-10), Harm: 0.5, Minutes: disbudAPlant * float64(min(r.Plants, 40)),
			Reason: Sentence{"wipe off the side buds below the main ones, for large flowers on ", due}, Cost: Sentence{"smaller flowers on the day; the side buds left are a second chance if the first bloom is missed"}})
	}
}

func (r *round) bag() {
	bud := r.Dates.FirstBud.Likely
	if !r.Bags || bud.IsZero() || !r.Cut.IsZero() {
		return
	}
	colour := r.after(bud, r.Profile.RungsCd[crop.Tight])
	if r.open(Bag, colour.Add(2)) {
		r.add(Job{Task: Bag, Earliest: colour.Add(-1), Best: colour, Latest: colour.Add(2), Harm: 0.6, Minutes: bagAPlant * float64(r.Plants),
			Reason: Sentence{"buds just show colour, and beetles are about"}, Cost: Sentence{"a chewed bud is never sold; a bag put on later shuts the beetles in"}})
	}
}

func (r *round) scout() {
	since, every := r.inBed(), scoutEvery
	if last := r.Done[Scout]; !last.IsZero() {
		since = last
	}
	if first := r.Dates.FirstCut.Likely; !first.IsZero() && !first.After(r.today) {
		every = scoutBloom
	}
	next := r.growing(maxDay(since.Add(every), r.today))
	if next.IsZero() {
		return
	}
	what := "flowers"
	if bud := r.Dates.FirstBud.Likely; floats.Sum(r.Standing[:]) < 1 && (bud.IsZero() || bud.After(next)) { // the date may be the next season's
		what = "shoots"
	}
	r.add(Job{Task: Scout, After: r.Done[Scout], Earliest: next.Add(-1), Best: next, Latest: next.Add(3), Harm: 0.2, Minutes: scoutMinutes + scoutAPlant*float64(r.Plants),
		Reason: Sentence{"look at " + what + " and the undersides of leaves, pale varieties first"}, Cost: Sentence{"what is seen a week later has had a week more"}})
}

// harvesting adds counts, cuts, deadheading and seed heads.
func (r *round) harvesting() {
	r.seedHeads()
	if r.Finished {
		return
	}
	r.count()
	for _, pick := range r.Picks {
		if pick.Stems >= 1 && !r.Cut.After(pick.On.Add(-1)) {
			reason := "%.0f stems likely stand right"
			if pick.Stems < 1.5 {
				reason = "%.0f stem likely stands right"
			}
			r.add(Job{Task: Cut, After: pick.On, Earliest: pick.On, Best: pick.On, Latest: pick.On, Harm: 0.9, Minutes: 60 * pick.Hours,
				Reason: Sentence{fmt.Sprintf(reason, pick.Stems)}, Cost: Sentence{uncut(pick)}})
		}
	}
	r.deadhead()
}

// countEvery is how many days a count serves the picks that follow. It is made CountBefore days before its pick at the earliest.
const (
	countEvery  = 4
	CountBefore = 2
)

// What is in doubt: so many stems between sure and at best, and such a part of what is likely.
const (
	doubtStems = 4
	doubtPart  = 0.2
)

// CountDue tells whether a row is worth counting before a pick from which so many stems are sure, likely, and at best: there are some, and
// nobody is sure how many. It was counted last on a day, zero for never.
func CountDue(sure, likely, best int, counted, pick day.Day) bool {
	doubt := float64(best - sure)
	return likely >= 1 && doubt >= doubtStems && doubt >= doubtPart*float64(likely) && (counted.IsZero() || pick.Sub(counted) >= countEvery)
}

// coming returns the stems that are not going over.
func coming(standing [crop.Rungs]float64) float64 {
	sum := 0.0
	for k := crop.Tight; k < crop.Over; k++ {
		sum += standing[k]
	}
	return sum
}

// count: a count is worth its minutes the day before a pick, and when the first buds are due.
func (r *round) count() {
	bud := r.Dates.FirstBud.Likely
	if coming(r.Standing) < 1 {
		if !bud.IsZero() && r.Counted.Before(bud) && r.Cut.IsZero() {
			r.add(Job{Task: Count, After: r.Counted, Earliest: bud.Add(1), Best: bud.Add(3), Latest: bud.Add(10), Harm: 0.2, Minutes: r.countMinutes(), Reason: Sentence{"first buds are due: see whether they are there"},
				Cost: Sentence{"its forecast rests on the calendar alone"}})
		}
		return
	}
	if pick := r.CountFor; !pick.IsZero() {
		r.add(Job{Task: Count, After: r.Counted, Earliest: pick.Add(-CountBefore), Best: maxDay(r.today, pick.Add(-1)), Latest: pick, Harm: 0.3, Minutes: r.countMinutes(),
			Reason: Sentence{"before the pick of ", pick, ", which somebody waits for"}, Cost: Sentence{"the pick is less sure"}})
	}
}

// countMinutes returns what counting a sample of the row takes.
func (r *round) countMinutes() float64 {
	const most = 20 // plants that are usually counted of a long row
	return countMinutes + countAPlant*float64(min(r.Plants, most))
}

// deadhead: what goes over is cut off every few days, or the plant stops.
const (
	deadheadEvery = 3
	fewOver       = 3 // stems going over, below which nobody walks for them
)

func (r *round) deadhead() {
	over := r.Standing[crop.Over] + r.Standing[crop.Spent]
	again := r.Profile.Yield.Habit == crop.Again && r.pays(r.today)
	if over < fewOver || !again && !(r.Profile.SeedsAbout && r.seeding()) {
		return
	}
	last := r.Done[Deadhead]
	next := maxDay(r.today, maxDay(last, r.Cut).Add(deadheadEvery))
	j := Job{Task: Deadhead, After: last, Earliest: next.Add(-1), Best: next, Latest: next.Add(2), Harm: 0.4, Minutes: deadheadAStem * over,
		Reason: Sentence{fmt.Sprintf("about %.0f stems are going over", over)}, Cost: Sentence{"a plant that sets seed makes far fewer shoots"}}
	if r.Profile.SeedsAbout {
		j.Harm = 0.6
		j.Reason = append(j.Reason, ", and it seeds itself about")
		j.Cost = Sentence{"next year's weeds, all round where it stood"}
	}
	r.add(j)
}

// seedingDays is for how long after its last cut a kind still sheds seed: what is brown by then has shed it.
const seedingDays = 30

// seeding tells whether a planting is in bloom or just past it.
func (r *round) seeding() bool {
	first, last := r.Dates.FirstCut.Likely, r.Dates.LastCut.Likely
	if last.IsZero() {
		last = maxDay(first, r.Cut)
	}
	return !first.IsZero() && !r.today.Before(first) && r.today.Sub(last) <= seedingDays
}

// seedHeadDays is for how long heads that have gone to seed stand before birds and rain have them.
const seedHeadDays = 14

// seedHeads: of some kinds what has gone to seed is a crop as well, dried or left standing under a net.
func (r *round) seedHeads() {
	spent := r.Standing[crop.Spent]
	if !r.Profile.SeedHeads || spent < fewOver || !r.seeding() || !r.open(SeedHead, r.today.Add(seedHeadDays)) {
		return
	}
	r.add(Job{Task: SeedHead, Earliest: r.today, Best: r.today.Add(seedHeadDays / 2), Latest: r.today.Add(seedHeadDays), Harm: 0.1, Minutes: deadheadAStem * spent,
		Reason: Sentence{fmt.Sprintf("about %.0f heads have gone to seed: once their backs are dry, hang or lay them to dry, or leave them under a net for seed or the winter's birds", spent)},
		Cost:   Sentence{"birds and rain take them"}})
}

package crop

import "strings"

// A Question is one on which growers disagree: the schools to choose from, the first of which is the default.
type Question struct {
	ID, Words string
	Acts      string // what goes by it
	Choices   []Choice
}

// A Choice is a school's answer, and its reason.
type Choice struct{ ID, Words, Why string }

// Drained is the way to condition hollow stems by standing them on their heads before they go into the crop's first water.
const Drained = "drained"

// Questions returns what a farm can choose for the crop beside the rung to cut on, which has schools of its own.
func (p *Profile) Questions() []Question {
	again := p.Yield.Habit == Again
	var all []Question
	add := func(when bool, id, words string, choices ...Choice) {
		if when && len(choices) > 1 {
			all = append(all, Question{id, words, acts[id], choices})
		}
	}
	add(p.SowEveryDays[0] > 0, "sow", "When to sow again",
		Choice{"warmth", "by warmth, so that the bloom is even", "equal gaps in spring do not give equal gaps in bloom"},
		Choice{"weeks", "every so many days from the last frost", "easy to remember, and fair in a steady summer"},
		Choice{"dates", "back from the dates of orders", "for those who grow for events alone: weeks without an order want nothing"})
	add(p.HasStart(Direct) && p.HasStart(Tray), "start", "Where to start it", p.starts()...)
	var conditions []Choice
	for _, c := range p.Condition {
		choice := Choice{ID: c.ID, Words: conditionWords[c.ID]}
		if c.ID == "hot" {
			choice.Why = strings.Join(p.Scalding(), " ")
		}
		conditions = append(conditions, choice)
	}
	if len(conditions) > 1 { // hollow stems, on whose water growers disagree
		conditions = append(conditions, Choice{Drained, "drained head-down first", "air and old sap run out of a hollow stem before it drinks"})
	}
	add(true, Condition, "Water after the cut", conditions...)
	if p.Store.DryOK && p.Store.Apart != "sap" { // what bleeds sap is not recut
		add(true, Carry, "From the row to the bucket", Choice{"water", "straight into water", "no air in the stem"}, Choice{"dry", "dry, then recut", "one hand more for cutting; air in the stem is cut off with its end"})
	}
	add(true, "rest", "Rest before use", Choice{"overnight", "overnight", "they have drunk all they can"}, Choice{"five", "five to six hours", "cut at dawn, sold at noon"}, Choice{"three", "three to four hours", "the least that most can do with"})
	add(true, "additive", "Water additive", Choice{"plain", "plain clean water", "enough for a market week"}, Choice{"food", "flower food", "opens buds further and lasts longer"})
	add(again, "side-buds", "Where to cut", Choice{"long", "low, for long stems", "long stems now, and long ones again later"}, Choice{"keep-buds", "high, to keep the side buds", "more stems soon, and short ones ever after"})
	add(p.Yield.Habit != Single, "disbud", "Disbudding", Choice{"events", "for events only", "one prime flower where it is promised; otherwise the side buds are the next stems"},
		Choice{"never", "never", "most stems"}, Choice{"always", "always", "large single heads"})
	add(true, "density", "How close", Choice{"table", "as the table has it", "between the two"}, Choice{"close", "close", "small heads and thin stems for bouquets"}, Choice{"wide", "wide", "air and strength"})
	add(true, "pests", "Against pests", Choice{"bags", "bags and hand-picking", "no waiting times, and bees are safe"}, Choice{"hand", "hand-picking alone", "where few come"},
		Choice{"sprays", "sprays, as the label says", "by whoever is licensed where that is asked for"})
	add(true, Strip, "Stripping leaves", p.stripping()...)
	add(true, "feed", "Feeding", Choice{"table", "as its care says", "some want it lean"}, Choice{"none", "none", "for lean crops: leaves cost flowers"}, Choice{"spring", "once in spring", ""},
		Choice{"weeks", "every three weeks, low in nitrogen", "for those that are cut for long"})
	add(p.Life == TuberLife, "winter", "Tubers in winter", Choice{"minimum", "by the winter's expected minimum", "mild ground keeps them, cold ground kills them"}, Choice{"lift", "lift", "safe anywhere"}, Choice{"leave", "leave under cover", "less work where winters are mild"})
	add(p.ID == "tulip", "leaves", "Leaves on the stem", Choice{"top", "keep the top one", "it looks fresh"}, Choice{"all", "strip all", ""})
	return all
}

// acts is what goes by each question.
var acts = map[string]string{
	"sow": "which plan of successions is taken over", "start": "how plans start it first", Condition: "buckets, cautions and the minutes of a pick", Carry: "buckets and the minutes of a pick", "rest": "from when on stems serve an order",
	"additive": "how long stems last and how far they open in water, so whom they serve; buckets", "side-buds": "how many stems come again and how long they are, of rows that say nothing themselves", "disbud": "jobs, and stems that come again",
	"density": "squares of beds and room of plans, of varieties without a spacing of their own", "pests": "jobs", Strip: "buckets and the minutes of a pick", "feed": "jobs", "winter": "jobs of autumn", "leaves": "what a bucket's label says",
}

// DensityFactor returns by how much closer or wider than the table has it plants of a density stand.
func DensityFactor(school string) float64 {
	switch school {
	case "close":
		return 0.75
	case "wide":
		return 1.25
	}
	return 1
}

// stripping is which leaves come off, as growers of the crop usually do first: celosia goes into a store bare, since its leaves rot before its head.
func (p *Profile) stripping() []Choice {
	choices := []Choice{{"water", "below the water only", "leaves above it feed the flower"}, {"all", "all of them", "less water is lost"}, {"show", "a few kept for show", "for bunches sold alone"}}
	if strings.HasPrefix(p.Botanical, "Celosia") {
		choices[1].Why = "its leaves wilt and rot before its head does"
		choices[0], choices[1] = choices[1], choices[0]
	}
	return choices
}

// starts are the ways to start a crop that can be sown where it grows or in trays, the one that the table prefers first.
func (p *Profile) starts() []Choice {
	choices := []Choice{{string(Direct), "sown where it grows", "no check, no trays"}, {string(Tray), "in trays", "earlier, surer, and fewer seeds"}}
	if p.PreferredStart == Tray {
		choices[0], choices[1] = choices[1], choices[0]
	}
	return choices
}

// RestHours returns the least hours that stems rest by a school, 0 for none that is known.
func RestHours(school string) float64 {
	return map[string]float64{"overnight": 9, "five": 5, "three": 3}[school]
}

var conditionWords = map[string]string{"cool": "cool and deep", "warm": "warm from the tap", "hot": "a hot bath of a few centimetres"}

package notebook

import (
	"io"
	"strconv"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/plan"
	"dewcount/farm/plans"
)

// WriteWays writes the ways to have stems on a day as CSV: what own rows give first, where they give any, then a row for each batch of each way.
func WriteWays(w io.Writer, r *plans.DateResult) error {
	own := r.OwnStems
	rows := [][]string{{"way", "batch", "start_on", "method", "planted_out_on", "pinched_on", "pinched_share", "plants", "chance", "p10", "p50", "p90"}}
	if own != nil && own.AtBest() > 0 {
		rows = append(rows, []string{"0", "", "", "", "", "", "", "0", cents(own.AtLeast(r.Stems)), cents(own.Bound(0.1)), cents(own.Bound(0.5)), cents(own.Bound(0.9))})
	}
	for i, way := range r.Answer.Plans {
		if way.Way == plan.Stand { // nothing can be started
			continue
		}
		for k, s := range way.Sowings {
			rows = append(rows, append(append([]string{strconv.Itoa(i + 1), strconv.Itoa(k + 1)}, sowingCells(r.Profile, s)...), strconv.Itoa(s.Plants), cents(way.Chance), cents(way.Low), cents(way.Likely), cents(way.High)))
		}
	}
	return writeTable(w, rows)
}

// sowingCells says when and how a sowing is started, planted out and pinched.
func sowingCells(p *crop.Profile, s plan.Planned) []string {
	var pinched day.Day
	if s.Pinched {
		pinched = plan.PinchOn(p, s.Sowing)
	}
	share := ""
	if s.Pinched {
		share = "1"
	}
	return []string{s.Started.String(), string(s.Method), s.Out.String(), pinched.String(), share}
}

// WriteBloom writes plans for an even bloom as CSV: their sowings, an empty line, and their weeks.
func WriteBloom(w io.Writer, f *plans.Front) error {
	rows := [][]string{{"plan", "sowing", "start_on", "method", "planted_out_on", "plants"}}
	for i, sowings := range f.Sowings {
		for k, s := range sowings {
			rows = append(rows, []string{strconv.Itoa(i + 1), strconv.Itoa(k + 1), s.Started.String(), string(s.Method), s.Out.String(), strconv.Itoa(s.Plants)})
		}
	}
	if err := writeTable(w, rows); err != nil {
		return err
	}
	if _, err := io.WriteString(w, "\n"); err != nil {
		return err
	}
	rows = [][]string{{"plan", "week_from", "wanted", "p10", "p50", "p90", "chance", "held"}}
	for i, weeks := range f.Weeks {
		for _, o := range weeks {
			held := "no"
			if o.Reachable {
				held = "yes"
			}
			rows = append(rows, []string{strconv.Itoa(i + 1), o.Monday.String(), cents(o.Want), cents(o.Low), cents(o.Likely), cents(o.High), cents(o.Chance), held})
		}
	}
	return writeTable(w, rows)
}

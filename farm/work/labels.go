package work

import (
	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/look"
)

// A Label goes on a bucket: what stands in it, and for whom.
type Label struct {
	Planting int
	Stems    int
	Order    string // empty where nobody has asked for them
	On       day.Day
}

// Labels returns a label for each bucket of a sheet in walking order: the stems of a row for each order apart, and then those that nobody has asked for,
// no more in one than a bucket of the crop holds. Of a row that was cut it is what was cut, of others what is likely.
func (s *Sheet) Labels(on *look.Snapshot) []Label {
	var labels []Label
	for _, r := range s.Rows {
		profile := on.Model.Plantings[r.Planting].Growth.Profile
		left := r.Spread.Likely()
		if r.Cut {
			left = r.Taken
		}
		for _, c := range r.Claims {
			n := min(left, c.Stems)
			left -= n
			if last := len(labels) - 1; last >= 0 && labels[last].Planting == r.Planting && labels[last].Order == c.Order && labels[last].On == c.On {
				n += labels[last].Stems // two lines of an order go into one bucket
				labels = labels[:last]
			}
			labels = appendLabels(labels, Label{r.Planting, n, c.Order, c.On}, profile)
		}
		labels = appendLabels(labels, Label{Planting: r.Planting, Stems: left}, profile)
	}
	return labels
}

// appendLabels shares stems out to as few buckets as hold them, as evenly as it goes.
func appendLabels(labels []Label, all Label, p *crop.Profile) []Label {
	for buckets := (all.Stems + p.BucketStems - 1) / p.BucketStems; buckets > 0; buckets-- {
		one := all
		one.Stems = (all.Stems + buckets - 1) / buckets
		all.Stems -= one.Stems
		labels = append(labels, one)
	}
	return labels
}

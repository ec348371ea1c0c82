package postharvest

import (
	"cmp"
	"math"
	"slices"

	"dewcount/core/crop"
)

// A Batch is stems of a crop that are conditioned together.
type Batch struct {
	Crop  *crop.Profile
	Way   string // the id of the way to condition it that was chosen, empty for the crop's first
	Stems int
}

// A Water is buckets that are filled alike, and what goes into them.
type Water struct {
	crop.Conditioning // °C and hours that suit all of them, the depth of the deepest
	Batches           []Batch
	Buckets           int
	Litres            float64 // in each bucket
	Own               bool    // one crop alone, which fouls water or bleeds sap
}

// What a bucket is: ten litres in 25 cm. Stems in a bath of a few centimetres want no less.
const (
	bucketCM     = 25
	bucketLitres = 10
	litresACM    = float64(bucketLitres) / bucketCM
	leastRangeC  = 3.0 // that the waters of crops in one bucket have in common: nobody mixes it to the degree
)

// Waters returns how to condition batches: those whose waters suit each other share their buckets, those that foul water or bleed sap have their own.
// The order is that in which they are made ready: hot first, which has to be carried and cools, then warm, then cool; within it by what rests longest.
func Waters(batches []Batch) []Water {
	var waters []Water
	parts := make(map[int]float64) // of a bucket, by place
	for _, b := range batches {
		if b.Stems <= 0 {
			continue
		}
		way := b.Crop.Conditioned(b.Way)
		own := b.Crop.Store.Apart != "no"
		at := slices.IndexFunc(waters, func(w Water) bool {
			if own || w.Own {
				return own && w.Own && w.Batches[0].Crop == b.Crop && w.ID == way.ID
			}
			return w.ID == way.ID && math.Min(w.WaterC[1], way.WaterC[1])-math.Max(w.WaterC[0], way.WaterC[0]) >= leastRangeC
		})
		if at < 0 {
			at = len(waters)
			waters = append(waters, Water{Conditioning: way, Own: own})
		}
		w := &waters[at]
		w.WaterC = [2]float64{math.Max(w.WaterC[0], way.WaterC[0]), math.Min(w.WaterC[1], way.WaterC[1])}
		w.DepthCM = math.Max(w.DepthCM, way.DepthCM)
		w.Hours = [2]float64{math.Max(w.Hours[0], way.Hours[0]), math.Max(w.Hours[1], way.Hours[1])}
		w.Batches = append(w.Batches, b)
		parts[at] += float64(b.Stems) / float64(b.Crop.BucketStems)
	}
	const hair = 1e-9
	for i := range waters {
		waters[i].Buckets = int(math.Ceil(parts[i] - hair))
		waters[i].Litres = min(bucketLitres, litresACM*waters[i].DepthCM)
	}
	order := map[string]int{"hot": 0, "warm": 1, "cool": 2}
	slices.SortStableFunc(waters, func(a, b Water) int {
		return cmp.Or(cmp.Compare(order[a.ID], order[b.ID]), cmp.Compare(b.Hours[0], a.Hours[0]))
	})
	return waters
}

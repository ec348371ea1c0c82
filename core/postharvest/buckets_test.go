package postharvest

import (
	"testing"
)

// Worked by hand. 45 ball dahlias at 30 a bucket are one and a half buckets, 12 snapdragons and 80 cosmos in cool water are parts of the same cool
// buckets; 70 tall zinnias foul theirs and have their own. Dahlias go into warm water 20 cm deep: 8 litres of ten in 25 cm.
func TestBucketsByHand(t *testing.T) {
	dahlia, snapdragon, cosmos, zinnia := profile(t, "dahlia-ball"), profile(t, "snapdragon"), profile(t, "cosmos-single"), profile(t, "zinnia-tall")
	waters := Waters([]Batch{{snapdragon, "", 12}, {dahlia, "", 45}, {zinnia, "", 70}, {cosmos, "cool", 80}, {cosmos, "", 0}})
	if len(waters) != 3 {
		t.Fatalf("%d waters: %+v", len(waters), waters)
	}
	warm := waters[0]
	if warm.ID != "warm" || warm.Buckets != 2 || warm.Litres != 8 || warm.Hours != [2]float64{2, 8} || len(warm.Batches) != 1 {
		t.Errorf("dahlias: %+v", warm)
	}
	together := float64(12)/float64(snapdragon.BucketStems) + float64(80)/float64(cosmos.BucketStems)
	for _, w := range waters[1:] {
		switch {
		case w.Own:
			want := (70 + zinnia.BucketStems - 1) / zinnia.BucketStems
			if w.Batches[0].Crop != zinnia || w.Buckets != want || len(w.Batches) != 1 {
				t.Errorf("zinnias: %+v, want %d buckets", w, want)
			}
		default:
			if len(w.Batches) != 2 || w.ID != "cool" || float64(w.Buckets) < together || float64(w.Buckets) >= together+1 {
				t.Errorf("cool: %+v for %.2f bucketfuls", w, together)
			}
			if least := max(snapdragon.Conditioned("").Hours[0], cosmos.Conditioned("").Hours[0]); w.Hours[0] != least || w.WaterC[0] > w.WaterC[1] {
				t.Errorf("cool water rests %v h at %v °C, want %v h at least", w.Hours, w.WaterC, least)
			}
		}
	}
	// The hot bath is shallow, short and made ready first.
	waters = Waters([]Batch{{snapdragon, "", 12}, {dahlia, "hot", 30}})
	if hot := waters[0]; hot.ID != "hot" || hot.Buckets != 1 || !near(hot.Litres, 2.4) || hot.WaterC != [2]float64{71, 82} || hot.Hours[0] != 0.75 {
		t.Errorf("the hot bath: %+v", hot)
	}
	// Basil wants 14 to 20 °C, cosmos 8 to 15: one degree in common is no bucket.
	if waters := Waters([]Batch{{profile(t, "basil"), "", 10}, {cosmos, "", 10}}); len(waters) != 2 {
		t.Errorf("basil and cosmos share %+v", waters)
	}
	if waters := Waters(nil); waters != nil {
		t.Errorf("for nothing: %+v", waters)
	}
}

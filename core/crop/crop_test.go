package crop

import "testing"

func TestTooLowForCutting(t *testing.T) {
	zinnia := &Profile{ID: "zinnia-tall", HeightCM: [2]float64{80, 110}, Stem: Stem{LaterCM: 45}}
	dahlia := &Profile{ID: "dahlia-ball", HeightCM: [2]float64{90, 130}, Stem: Stem{LaterCM: 50}}
	muscari := &Profile{ID: "short-bulb", HeightCM: [2]float64{15, 25}, Stem: Stem{LaterCM: 15}}
	for _, c := range []struct {
		p          *Profile
		high, stem float64
		want       bool
	}{
		{zinnia, 15, 0, true}, {zinnia, 80, 0, false}, {zinnia, 0, 30, true}, {zinnia, 0, 45, false}, {zinnia, 0, 0, false},
		{dahlia, 60, 0, true}, {dahlia, 90, 0, false}, {muscari, 20, 15, false}, // what the crop itself does not reach is not asked of a variety
	} {
		if got := c.p.TooLow(c.high, c.stem); got != c.want {
			t.Errorf("%s of %v cm with %v cm of stem: %v", c.p.ID, c.high, c.stem, got)
		}
	}
}

// Twice the table's stems, but of plants that bear one: those bear no second one unless they are pinched.
func TestMostStems(t *testing.T) {
	zinnia := &Profile{Yield: Yield{Habit: Again, FirstStems: 4, SeasonStems: 30}, Pinch: Pinch{StemsFactor: 2}}
	larkspur := &Profile{Yield: Yield{Habit: Branching, FirstStems: 3, SeasonStems: 5}}
	chrysanthemum := &Profile{Yield: Yield{Habit: Single, FirstStems: 1, SeasonStems: 1}, Pinch: Pinch{StemsFactor: 2.5}}
	tulip := &Profile{Yield: Yield{Habit: Single, FirstStems: 1, SeasonStems: 1}}
	for _, c := range []struct {
		p       *Profile
		pinched float64
		want    float64
	}{{zinnia, 0, 80}, {zinnia, 1, 160}, {zinnia, 0.5, 120}, {larkspur, 0, 100}, {chrysanthemum, 0, 10}, {chrysanthemum, 1, 50}, {chrysanthemum, 0.5, 30}, {tulip, 0, 10}, {tulip, 1, 10}} {
		if got := c.p.MostStems(10, c.pinched); got != c.want {
			t.Errorf("ten plants of %+v, %v of them pinched, carry %v stems at the most, want %v", c.p.Yield, c.pinched, got, c.want)
		}
	}
}

// Every question has a default, no school stands twice, and only what can be chosen is asked.
func TestQuestions(t *testing.T) {
	again := &Profile{ID: "zinnia", Starts: []Method{Direct, Tray}, PreferredStart: Tray, SowEveryDays: [2]int{7, 21}, Condition: []Conditioning{{ID: "cool"}, {ID: "hot"}}, Yield: Yield{Habit: Again}}
	single := &Profile{ID: "tulip", Starts: []Method{Bulb}, PreferredStart: Bulb, Condition: []Conditioning{{ID: "cool"}}, Yield: Yield{Habit: Single}}
	asked := func(p *Profile) map[string]string {
		first := make(map[string]string)
		for _, q := range p.Questions() {
			seen := make(map[string]bool)
			for _, c := range q.Choices {
				if seen[c.ID] || c.ID == "" || c.Words == "" {
					t.Errorf("%s asks %s with %q twice or empty", p.ID, q.ID, c.ID)
				}
				seen[c.ID] = true
			}
			first[q.ID] = q.Choices[0].ID
		}
		return first
	}
	if got := asked(again); got["sow"] != "warmth" || got["start"] != "tray" || got["condition"] != "cool" || got["side-buds"] != "long" || got["leaves"] != "" {
		t.Errorf("the defaults are %v", got)
	}
	if got := asked(single); got["sow"] != "" || got["start"] != "" || got["condition"] != "" || got["side-buds"] != "" || got["leaves"] != "top" {
		t.Errorf("of a bulb is asked %v", got)
	}
}

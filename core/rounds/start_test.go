package rounds

import (
	"testing"

	"dewcount/core/climate"
)

// What was to be begun on a day off is asked for until somebody is there, and a bed in which nothing lies yet is not watered.
func TestWhatIsNotBegunYet(t *testing.T) {
	hot := flatSky{every: climate.Extremes{TminC: 18, TmaxC: 34}, latitude: 47, winterC: -4}
	for _, c := range []struct {
		what, today, by, done string
		ticked, sow, water    bool
	}{
		{"on its day", "2026-05-01", "", "", false, true, false},
		{"a day later", "2026-05-02", "", "", true, false, true},
		{"a day later, asked for until then", "2026-05-02", "2026-05-02", "", true, true, false},
		{"the same where nobody writes down what is done", "2026-05-02", "2026-05-02", "", false, true, true},
		{"once it is begun", "2026-05-02", "2026-05-08", "2026-05-01", true, false, true},
		{"once nobody asks any more", "2026-05-09", "2026-05-08", "", true, false, true},
	} {
		p := flower()
		p.Ticked = c.ticked
		if c.by != "" {
			p.StartBy = on(c.by)
		}
		if c.done != "" {
			p.Done[Sow] = on(c.done)
		}
		jobs := jobsOf(p, hot, c.today)
		if _, sow := jobs[Sow]; sow != c.sow {
			t.Errorf("%s: to be sown %v", c.what, sow)
		}
		if j, water := jobs[Water]; water != c.water {
			t.Errorf("%s: to be watered %v: %v", c.what, water, j)
		}
	}
}

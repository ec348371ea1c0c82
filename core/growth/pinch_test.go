package growth

import (
	"math"
	"testing"

	"dewcount/core/climate"
	"dewcount/core/day"

	"gonum.org/v1/gonum/mathext"
)

func TestPinchingDelaysAndMultiplies(t *testing.T) {
	p := profile(t, "zinnia-tall")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 13, TmaxC: 25}, 46.9)
	plain := sown(p, "2026-05-10")
	pinched := plain
	pinched.Pinched, pinched.PinchedShare = day.Must("2026-06-12"), 1
	half := pinched
	half.PinchedShare = 0.5
	at := func(x Planting) float64 { return firstCut(t, p, x, clock, lengths, BoxCd) }
	if !(at(plain) < at(half) && at(half) < at(pinched)) {
		t.Errorf("first cuts: plain %.1f, half pinched %.1f, pinched %.1f", at(plain), at(half), at(pinched))
	}
	course := NewCourse(half, Place{Lengths: lengths}, BoxCd)
	if want := 40 * p.Yield.FirstStems * (1 + 0.5*(p.Pinch.StemsFactor-1)); math.Abs(course.FirstFlush()-want) > 1e-9 {
		t.Errorf("half pinched: %v stems, want %v", course.FirstFlush(), want)
	}
}

// A pinched plant has more stems in its first flush and loses part of the gain again in the second, once: no later flush falls below that of a
// plain one, which goes the same way a little earlier.
func TestPinchingLosesItsGainOnce(t *testing.T) {
	p := profile(t, "zinnia-tall")
	pinched := sown(p, "2026-05-01")
	pinched.Pinched, pinched.PinchedShare = day.Must("2026-05-25"), 1
	plain, more := cutThrough(p, sown(p, "2026-05-01"), nil), cutThrough(p, pinched, nil)
	gain := p.Pinch.StemsFactor
	if kept := more / plain; !(kept > 1.02 && kept < gain) {
		t.Errorf("a pinched row gives %.2f times a plain one's stems; its first flush %.2f times", kept, gain)
	}
	late := func(of *float64) func(day.Day, float64) {
		return func(d day.Day, cut float64) {
			if d.After(day.Must("2026-08-25")) {
				*of += cut
			}
		}
	}
	var plainLate, pinchedLate float64
	cutThrough(p, sown(p, "2026-05-01"), late(&plainLate))
	cutThrough(p, pinched, late(&pinchedLate))
	if pinchedLate < plainLate {
		t.Errorf("in late summer a pinched row gives %.0f stems, a plain one %.0f", pinchedLate, plainLate)
	}
}

// The closed form against plants one by one: each carries its first bud after a warmth of the flush's gamma distribution, and its further stems
// follow after exponential waits; only those that carry one by then go on.
func TestSparedPlantsOneByOne(t *testing.T) {
	for _, id := range []string{"zinnia-tall", "sunflower-branching"} {
		f := newFlush(profile(t, id), 0, Uneven)
		const plants = 4000
		var leads [plants]float64
		for i := range leads {
			leads[i] = mathext.GammaIncRegInv(f.leadCd*f.leadCd/f.leadVar, (float64(i)+0.5)/plants) * f.leadVar / f.leadCd
		}
		for _, by := range []float64{0.85, 1, 1.2} {
			for _, cd := range []float64{0.7, 0.9, 1, 1.1, 1.3, 1.6} {
				byCd, cd := by*f.leadCd, cd*f.leadCd
				stems := 0.0
				for _, lead := range leads {
					if lead <= byCd && lead < cd {
						for _, part := range f.parts {
							stems += part.of * (1 - math.Exp((lead-cd)/part.followCd)) / plants
						}
					}
				}
				if got := f.of(byCd, cd); math.Abs(got-stems) > 2e-3 {
					t.Errorf("%s: %.4f of the stems after %.2f of the way on plants with a bud by %.2f, want %.4f", id, got, cd/f.leadCd, by, stems)
				}
			}
		}
	}
}

// A row that is pinched when the average plant shows its first bud has about half of its plants spared: of a gamma distribution of shape k
// 1/2 + 1/(3 √(2πk)) lie below the mean (Abramowitz & Stegun 1964, 26.4.11), here 0.52 of them. Before any bud none is, after the last all
// are, and flower as if nobody had pinched.
func TestWhoPinchesLatePinchesFew(t *testing.T) {
	p := profile(t, "zinnia-tall")
	clock, lengths := steady(p, day.Must("2026-05-01"), climate.Extremes{TminC: 13, TmaxC: 25}, 46.9)
	pinched := func(on day.Day) *Run {
		planting := sown(p, "2026-05-10")
		planting.Pinched, planting.PinchedShare = on, 1
		return NewCourse(planting, Place{Lengths: lengths}, BoxCd).NewRun(clock, plainTraits)
	}
	plain := NewCourse(sown(p, "2026-05-10"), Place{Lengths: lengths}, BoxCd).NewRun(clock, plainTraits)
	lead, _ := plain.clock.light.When(plain.sinceCd + plain.leadCd())
	last := math.Inf(1)
	for d := day.Must("2026-05-20"); d.Before(day.Must("2026-08-20")); d = d.Add(1) {
		flush := pinched(d).FirstFlush()
		if flush > last {
			t.Fatalf("pinched on %v: %v stems, a day earlier %v", d, flush, last)
		}
		last = flush
	}
	early, late := pinched(day.Must("2026-05-20")), pinched(day.Must("2026-08-20"))
	if want := plain.FirstFlush() * p.Pinch.StemsFactor; early.Spared() != 0 || math.Abs(early.FirstFlush()-want) > 1e-9 {
		t.Errorf("pinched before any bud %v stems, want %v; %v spared", early.FirstFlush(), want, early.Spared())
	}
	middle := pinched(day.On(lead))
	f := plain.plain.of(Usual)
	half := 0.5 + 1/(3*math.Sqrt(2*math.Pi*f.leadCd*f.leadCd/f.leadVar))
	if off := middle.Spared() - half; math.Abs(off) > 0.07 { // a noon may lie half a day beside the mean
		t.Errorf("pinched when the average plant shows its first bud %v are spared, want about %v", middle.Spared(), half)
	}
	for d := day.Must("2026-06-20"); d.Before(day.Must("2026-08-30")); d = d.Add(2) {
		for _, r := range []*Run{plain, late} {
			r.To(d.At(8))
			r.Cut(r.p.Market, 1)
		}
		if a, b := plain.Left(), late.Left(); math.Abs(a-b) > 1e-6 {
			t.Fatalf("on %v %v stems are left on a row pinched after its buds, %v on a plain one", d, b, a)
		}
	}
}

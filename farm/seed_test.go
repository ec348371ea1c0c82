package farm_test

import (
	"testing"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

// By hand: of 100 plants a tenth is lost, so 112 are wanted; a tenth more is sown, of which 85 in 100 come up: 145 seeds of sunflowers, which are laid one by one. Zinnias
// of the same germination are sown twice as thick where they grow (2.1 times: 277), and as thin in trays.
func TestLargeSeedIsNotSownDouble(t *testing.T) {
	b := snapshot(t, winterFarm(t, "foothills-47n", "47", "2027-01-10")).Book
	for _, c := range []struct {
		crop   string
		method crop.Method
		want   int
	}{{"sunflower-single", crop.Direct, 145}, {"zinnia-tall", crop.Direct, 277}, {"zinnia-tall", crop.Tray, 145}} {
		p := b.Crop(c.crop)
		if seeds := plans.SeedNeed(b, "", p, 100, c.method).Seeds(); seeds != c.want {
			t.Errorf("%s by %s: %d seeds for 100 plants, want %d", c.crop, c.method, seeds, c.want)
		}
	}
}

// What bears no frost stands outdoors from the farm's last frost on, on every day of the year and in both hemispheres, with a date written down or without.
func TestTenderPlantsWaitForTheLastFrost(t *testing.T) {
	for climate, latitude := range map[string]string{"foothills-47n": "47", "oceanic-43s": "-43"} {
		for _, today := range []string{"2027-01-10", "2027-06-20", "2027-11-25"} {
			s, err := look.NewSeason(snapshot(t, winterFarm(t, climate, latitude, today)).Book, day.Must(today), 2027, nil)
			if err != nil {
				t.Fatal(err)
			}
			zinnia, larkspur := s.FrostFree(s.Book.Crop("zinnia-tall")), s.FrostFree(s.Book.Crop("larkspur"))
			if last := s.FrostDates().Last; zinnia != last || !larkspur.IsZero() && !larkspur.Before(last) {
				t.Errorf("%s on %s: zinnias wait until %s, larkspur until %s, the last frost is on %s", climate, today, zinnia, larkspur, last)
			}
		}
	}
}

// Somebody writes down what an old hand would not do: it is kept, and the row says so.
func TestADoubtfulStartIsTold(t *testing.T) {
	f := winterFarm(t, "foothills-47n", "47", "2027-02-10")
	for _, v := range []book.Variety{{Name: "Dahlia wine", Crop: "dahlia-ball"}, {Name: "Tulip red", Crop: "tulip"}} {
		if err := f.Add(ctx, "", v.Record()); err != nil {
			t.Fatal(err)
		}
	}
	for _, p := range []book.Planting{
		{ID: "early tubers", Variety: "Dahlia wine", Bed: "A", Method: crop.Tuber, StartedOn: day.Must("2027-02-20"), Plants: 10},
		{ID: "tubers", Variety: "Dahlia wine", Bed: "A", Method: crop.Tuber, StartedOn: day.Must("2027-04-25"), Plants: 10},
		{ID: "early trays", Variety: "Zinnia coral", Bed: "A", Method: crop.Tray, StartedOn: day.Must("2027-02-20"), PlantedOutOn: day.Must("2027-03-28"), Plants: 10},
		{ID: "trays", Variety: "Zinnia coral", Bed: "A", Method: crop.Tray, StartedOn: day.Must("2027-04-25"), PlantedOutOn: day.Must("2027-05-25"), Plants: 10},
		{ID: "late", Variety: "Zinnia coral", Bed: "A", Method: crop.Direct, StartedOn: day.Must("2027-09-05"), Plants: 10},
		{ID: "bulbs", Variety: "Tulip red", Bed: "A", Method: crop.Bulb, StartedOn: day.Must("2027-02-25"), Plants: 10},
	} {
		if err := f.Add(ctx, "", p.Record()); err != nil {
			t.Fatal(err)
		}
	}
	s := snapshot(t, f)
	for id, want := range map[string]string{"early tubers": "early", "tubers": "", "early trays": "early", "trays": "", "late": "late", "bulbs": "early"} {
		d := plans.DoubtOf(s, s.Index(id))
		got := map[[2]bool]string{{true, false}: "early", {false, true}: "late"}[[2]bool{d.Early, d.Late}]
		if got != want {
			t.Errorf("%s: %+v", id, d)
		}
		if id == "late" && (d.LastSafe.Before(day.Must("2027-05-20")) || d.LastSafe.After(day.Must("2027-08-10"))) {
			t.Errorf("the last safe day for zinnias is %s", d.LastSafe)
		}
		if want == "early" && id != "bulbs" && d.Frost != s.FrostDates(day.Must("2027-05-01")).Last {
			t.Errorf("%s is told to wait for %s", id, d.Frost)
		}
	}
}

package play

import (
	"context"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/review"
	"dewcount/demo"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/farm/plans"
)

// A Reckoning is a season beside others that differ from it by one thing each, from what was played to a season that knew everything. What each thing cost is the difference
// between two neighbours, so that all of them add up to the difference between the first and the last.
type Reckoning struct {
	Played  Account
	Given   Account // the same stems and promises, given out as well as can be
	Knowing Account // and of the offers those taken that could be filled
	Cut     Account // and all that was ready cut on each pick day
	Planned Account // and sown as the plan has it that could be made on the first day
	Best    Account // and sown as somebody would who knew the weather and the field
	Offers  []Offer // all that was asked for
}

// A Cost is what one thing cost, or gained where it is below nothing.
type Cost struct {
	Of    string
	Stems int
	Money float64
}

// What a season can lose by.
const (
	OfSelling  = "selling"
	OfCounting = "counting"
	OfCutting  = "cutting"
	OfThePlan  = "plan"
	OfWeather  = "weather"
)

// Costs returns what each thing cost.
func (r *Reckoning) Costs() []Cost {
	between := func(of string, a, b Account) Cost { return Cost{of, b.Stems - a.Stems, b.Money() - a.Money()} }
	return []Cost{between(OfSelling, r.Played, r.Given), between(OfCounting, r.Given, r.Knowing), between(OfCutting, r.Knowing, r.Cut),
		between(OfThePlan, r.Cut, r.Planned), between(OfWeather, r.Planned, r.Best)}
}

// Reckon works a season out that is over. It plans the season anew as on its first day, and grows it several times.
func Reckon(ctx context.Context, b *book.Book, progress func(float64)) (*Reckoning, error) {
	place, err := b.Place()
	if err != nil {
		return nil, err
	}
	k := reckoner{b: b, place: place, offers: Offers(place.DemoSeed)}
	r := &Reckoning{Played: Until(b, place, Last.Add(1)), Offers: k.offers}
	var took []Offer
	for _, o := range k.offers {
		if taken(b, o) {
			took = append(took, o)
		}
	}
	own := k.plantings(b)
	cut := k.cuts(b)
	r.Given = k.account(own, cut, took)
	r.Knowing = k.better(own, cut, took)
	progress(0.05)
	grown := k.grow(b)
	r.Cut = k.better(own, grown, took)
	progress(0.1)
	planned, err := k.planned(ctx, func(share float64) { progress(0.1 + 0.6*share) })
	if err != nil {
		return nil, err
	}
	byPlan := k.grow(planned)
	r.Planned = k.better(k.plantings(planned), byPlan, took)
	progress(0.75)
	trials, err := k.trials()
	if err != nil {
		return nil, err
	}
	r.Best = r.Planned
	for _, a := range []Account{r.Cut, r.Knowing} { // who knew everything could have done the same
		if a.Money() > r.Best.Money() {
			r.Best = a
		}
	}
	for _, base := range []world{{own, grown}, {k.plantings(planned), byPlan}, {}} {
		if a := k.knew(base, trials, took); a.Money() > r.Best.Money() {
			r.Best = a
		}
	}
	progress(1)
	return r, ctx.Err()
}

// A reckoner works a season out.
type reckoner struct {
	b      *book.Book
	place  book.Place
	offers []Offer
}

// stems are what was cut, by crop.
type stems map[string][]review.Stems

// sown is sowings and plants.
type sown struct{ sowings, plants int }

func (k *reckoner) plantings(b *book.Book) sown {
	var s sown
	for _, p := range b.Plantings {
		if !p.StartedOn.After(Last) {
			s.sowings, s.plants = s.sowings+1, s.plants+p.Plants
		}
	}
	return s
}

func (k *reckoner) cuts(b *book.Book) stems {
	all := make(stems)
	for _, c := range b.Cuts {
		if p, ok := b.Planting(c.Planting); ok {
			k.add(all, b.ProfileOf(p), c.CutAt.Day(), c.Stems)
		}
	}
	return all
}

func (k *reckoner) add(to stems, p *crop.Profile, on day.Day, n int) {
	if n > 0 {
		to[p.ID] = append(to[p.ID], review.Stems{Cut: on, Last: on.Add(holds(k.b, p)), Number: n})
	}
}

// grow returns what the plantings of a book give where all that is ready is cut on each pick day.
func (k *reckoner) grow(b *book.Book) stems {
	all := make(stems)
	for _, g := range demo.Grow(b, k.place, Last.Add(1)) {
		p, _ := b.Planting(g.Planting)
		k.add(all, b.ProfileOf(p), g.On, g.Sound)
	}
	return all
}

// account gives stems out as well as can be, to the orders and the offers that were taken.
func (k *reckoner) account(s sown, there stems, took []Offer) Account {
	a := Account{Promises: len(took)}
	a.plant(s.sowings, s.plants)
	all := duesOf(sales)
	for _, o := range took {
		all = append(all, duesOf([]sale{o.sale()})...)
	}
	for _, id := range crops {
		own := ofCrop(all, id)
		for i, filled := range review.Serve(there[id], plain(own)) {
			a.fill(own[i], filled)
		}
	}
	cut := 0
	for _, of := range there { // whatever else was grown cost its cutting too
		for _, c := range of {
			cut += c.Number
		}
	}
	a.cut(cut)
	return a
}

func ofCrop(all []due, id string) []due {
	return slices.DeleteFunc(slices.Clone(all), func(d due) bool { return d.crop != id })
}

func plain(all []due) []review.Due {
	out := make([]review.Due, len(all))
	for i := range all {
		out[i] = all[i].Due
	}
	return out
}

// better is account with the offers that are worth taking for somebody who knows what there will be: one by one the best, or those that were taken where these are better.
func (k *reckoner) better(s sown, there stems, took []Offer) Account {
	best := k.account(s, there, took)
	var chosen []Offer
	now := k.account(s, there, nil)
	for _, o := range k.offers {
		if with := k.account(s, there, append(slices.Clip(chosen), o)); with.Money() > now.Money() {
			now, chosen = with, append(chosen, o)
		}
	}
	if now.Money() > best.Money() {
		return now
	}
	return best
}

// firstDay returns the season's farm on its first morning, and what could be known of it.
func (k *reckoner) firstDay() (*book.Book, *look.Snapshot, error) {
	b, err := begin(k.place.DemoSeed)
	if err != nil {
		return nil, nil, err
	}
	s, err := look.NewSnapshot(b, 0, look.Morning(First), nil)
	return b, s, err
}

// planned returns the farm as somebody would have planned it on its first day, for its orders, crop by crop.
func (k *reckoner) planned(ctx context.Context, progress func(float64)) (*book.Book, error) {
	b, s, err := k.firstDay()
	if err != nil {
		return nil, err
	}
	for i, v := range varieties {
		own := ofCrop(duesOf(sales), v.Crop)
		ask := plans.SuccessionAsk{Crop: v.Crop, Variety: v.Name, From: own[0].On.Add(-4), Chance: k.place.Chance, By: "dates", EveryDays: 14, Stems: 1}
		for _, d := range own {
			if d.On.Before(ask.From.Add(4)) {
				ask.From = d.On.Add(-4)
			}
			if d.On.After(ask.To) {
				ask.To = d.On
			}
		}
		p, err := plans.Successions(ctx, s, ask, nil)
		if err != nil {
			return nil, err
		}
		records, _ := plans.PlantingsOf(s, p, v.Name)
		for _, r := range records {
			if _, err := b.Read(r.Kind, r.Lines); err != nil {
				return nil, err
			}
		}
		progress(float64(i+1) / float64(len(varieties)))
	}
	return b, nil
}

package web

import (
	"context"
	"log/slog"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"dewcount/play"
	"dewcount/web/page"
	played "dewcount/web/play"
)

// newSeason is a site of a season that is played.
func newSeason(t *testing.T, seed uint64) *site {
	t.Helper()
	store := openStore(t, false)
	if err := play.Fill(context.Background(), store, seed); err != nil {
		t.Fatal(err)
	}
	o := page.Options{Log: slog.New(slog.DiscardHandler), Played: true, Step: func(ctx context.Context) error { return play.Pass(ctx, store) }}
	return serve(t, store, o, func(s *page.Site) page.View { return played.View(s, store) })
}

// An offer is open for its days, is an order once it is taken, and is not there twice; what the crew does is kept; a number that is none is told so; and the figures of the page
// are those of the account.
func TestAPlayedSeason(t *testing.T) {
	const seed = 3
	s := newSeason(t, seed)
	offer := play.Offers(seed)[0]
	if _, early := s.get("/play"); strings.Contains(early, "They ask") || !strings.Contains(early, "Nothing is sown yet.") || !strings.Contains(early, "A sowing costs 8.00 CHF, a plant 0.15 CHF") {
		t.Error("on the first day somebody asks, or the costs are not said")
	}
	if status, where, _ := s.post("/play", "/play/offers", url.Values{"offer": {offer.ID}}); status != http.StatusSeeOther || !strings.Contains(where, "why=gone") {
		t.Errorf("an offer that nobody has made yet is taken: %d, %s", status, where)
	}
	sow := url.Values{"planting": {"Z1"}, "variety": {"Zinnia rose"}, "method": {"direct"}, "started_on": {"2027-05-16"}, "plants": {"40"}}
	if status, _, body := s.post("/plantings/new", "/plantings", sow); status != http.StatusSeeOther {
		t.Fatalf("the sowing is answered with %d: %s", status, body)
	}
	for range 40 {
		_, where, _ := s.post("/play", "/play/run", url.Values{})
		if strings.Contains(where, "why=asked") {
			break
		}
	}
	_, now := s.get("/play")
	if !strings.Contains(now, "They ask") || !strings.Contains(now, "for "+offer.Who+" on") || !strings.Contains(now, "1 sowing and 40 plants for 14.00 CHF") { // 8 + 40 × 0.15
		t.Error("nobody asks, or a sowing of 40 plants does not cost 14.00")
	}
	if status, where, _ := s.post("/play", "/play/offers", url.Values{"offer": {offer.ID}}); status != http.StatusSeeOther || !strings.Contains(where, "recorded") {
		t.Fatalf("the offer is answered with %d, to %s", status, where)
	}
	if status, order := s.get("/orders/" + url.PathEscape(offer.ID)); status != http.StatusOK || !strings.Contains(order, offer.Who) {
		t.Errorf("the order of the offer is answered with %d", status)
	}
	if status, where, _ := s.post("/play", "/play/offers", url.Values{"offer": {offer.ID}}); status != http.StatusSeeOther || !strings.Contains(where, "why=gone") {
		t.Errorf("taken a second time: %d, %s", status, where)
	}
	s.post("/play", "/play/crew", url.Values{"does": {play.Sells}})
	if _, page := s.get("/play"); strings.Count(page, `name="does"`) != 3 || strings.Count(page, " checked") != 1 {
		t.Error("what the crew does is not kept")
	}
	if _, where, _ := s.post("/play", "/play/again", url.Values{"seed": {"seven"}}); where != "/play?why=seed" {
		t.Errorf("a season called seven leads to %s", where)
	}
	if _, _, body := s.post("/play", "/play/again", url.Values{"seed": {"4"}}); strings.Contains(body, "Z1") {
		t.Error("a season begun anew has the old sowings")
	}
	if _, fresh := s.get("/play"); !strings.Contains(fresh, "Monday 1 March 2027") || !strings.Contains(fresh, "This is season 4") {
		t.Error("it is not begun anew")
	}
}

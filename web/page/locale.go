package page

import (
	"net/http"

	"dewcount/farm/look"
	"dewcount/people"
	"dewcount/say"

	"github.com/labstack/echo/v5"
)

// LocaleOf returns how whoever asks reads dates and measures: as that person has chosen, or this browser where nobody is set up.
func LocaleOf(c *echo.Context) say.Locale {
	who, ok := c.Get(readsKey).(people.Person)
	if !ok {
		who = Who(c)
	}
	if who.ID != "" {
		return say.Locale{Imperial: who.Imperial, WeekNumbers: who.WeekNumbers}
	}
	reads := ""
	if cookie, err := c.Cookie(readsCookie); err == nil {
		reads = cookie.Value
	}
	return say.Locale{Imperial: reads == "imperial" || reads == "imperial-weeks", WeekNumbers: reads == "metric-weeks" || reads == "imperial-weeks"}
}

// readsKey is where a request keeps as whom it is read, where that is not who is signed in.
const readsKey = "reads"

// ReadAs has a request answered as a person reads it who is not signed in, but known by a secret.
func ReadAs(c *echo.Context, who people.Person) { c.Set(readsKey, who) }

// ReadBy returns the farm's state as whoever asks reads it.
func ReadBy(c *echo.Context, snap *look.Snapshot) *say.Snapshot {
	locale := LocaleOf(c)
	locale.Today = snap.View.Today
	return &say.Snapshot{Snapshot: snap, Locale: locale}
}

// readsCookie keeps how a browser reads where nobody is signed in.
const readsCookie = "dewcount_reads"

// KeepReads keeps in the browser how whoever sits before it reads.
func (s *Site) KeepReads(c *echo.Context, l say.Locale) {
	reads := "metric"
	if l.Imperial {
		reads = "imperial"
	}
	if l.WeekNumbers {
		reads += "-weeks"
	}
	const years = 2 * 365 * 24 * 3600 // seconds
	c.SetCookie(&http.Cookie{Name: readsCookie, Value: reads, Path: "/", MaxAge: years, HttpOnly: true, Secure: s.Secure, SameSite: http.SameSiteLaxMode})
}

package settings

import (
	"math"
	"regexp"
	"strconv"
	"strings"
	"time"

	"dewcount/farm/book"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// weekNames and yearNames name the fields of a setting that has a value for each.
var weekNames = []string{"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"}
var yearNames = []string{"Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"}

// spoken reads a form of settings as people write: boxes for weekdays, a field for each day's hours and each month's means, a place in degrees and minutes or both
// numbers at once, a frost date in words. What is not understood stays as it was typed, so that it is told what is wrong with it.
func spoken(c *echo.Context, from page.Typed) page.Typed {
	form, err := c.FormValues()
	if err != nil {
		return from
	}
	latitude, longitude := from("latitude"), from("longitude")
	if strings.TrimSpace(longitude) == "" {
		if at := places.FindAllString(latitude, -1); len(at) == 2 {
			latitude, longitude = at[0], at[1]
		}
	}
	return func(name string) string {
		switch name {
		case "pick_days":
			return strings.Join(form[name], " ")
		case "latitude":
			return coordinate(latitude)
		case "longitude":
			return coordinate(longitude)
		case "last_frost", "first_frost":
			return dayOfYear(from(name))
		}
		if typed := page.Joined(c, name); typed != "" {
			return typed
		}
		return from(name)
	}
}

// places finds coordinates: degrees, perhaps minutes and seconds, and a letter.
var places = regexp.MustCompile(`(?i)([-−]?\d+(?:[.,]\d+)?)\s*(?:°|deg)?\s*(?:(\d+(?:\.\d+)?)\s*['′’]\s*)?(?:(\d+(?:\.\d+)?)\s*(?:["″”]|'')\s*)?([nsewo]\b)?`)

// coordinate writes a coordinate as a decimal number: 46°54'N as 46.9. What is none stays as it is.
func coordinate(typed string) string {
	typed = strings.TrimSpace(typed)
	m := places.FindStringSubmatch(typed)
	if m == nil || strings.TrimSpace(m[0]) != typed {
		return typed
	}
	number := func(s string) float64 {
		n, _ := strconv.ParseFloat(strings.ReplaceAll(strings.ReplaceAll(s, "−", "-"), ",", "."), 64) // the expression lets numbers alone through
		return n
	}
	degrees := number(m[1])
	more := number("0"+m[2])/60 + number("0"+m[3])/3600
	if strings.HasPrefix(m[1], "-") || strings.HasPrefix(m[1], "−") {
		more = -more
	}
	degrees += more
	if letter := strings.ToLower(m[4]); letter == "s" || letter == "w" {
		degrees = -math.Abs(degrees)
	}
	return book.Decimal(math.Round(degrees*1e4) / 1e4)
}

// dayOfYear writes a day of the year as a setting has it: 12 May as 05-12. What is none stays as it is.
func dayOfYear(typed string) string {
	typed = strings.TrimSpace(typed)
	for _, layout := range []string{"2 January", "January 2", "2 Jan", "Jan 2", "2. January", "2.1.", "02.01."} {
		if d, err := time.Parse(layout, strings.ReplaceAll(titled(typed), "Sept ", "Sep ")); err == nil {
			return d.Format("01-02")
		}
	}
	return typed
}

// titled begins each word with a capital letter and goes on small.
func titled(s string) string {
	words := strings.Fields(strings.ToLower(s))
	for i, w := range words {
		r := []rune(w)
		words[i] = strings.ToUpper(string(r[:1])) + string(r[1:])
	}
	return strings.Join(words, " ")
}

// spokenDay writes a day of the year in words: 05-12 as 12 May.
func spokenDay(setting string) string {
	if d, err := time.Parse("2006-01-02", "2024-"+setting); err == nil {
		return d.Format("2 January")
	}
	return setting
}

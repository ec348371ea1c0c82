package orders

import (
	"fmt"
	"io"
	"net/http"
	"strconv"
	"strings"

	"dewcount/core/day"
	"dewcount/farm/book"
	"dewcount/farm/market"
	"dewcount/say"
	"dewcount/web/page"
	"dewcount/web/parts"

	"github.com/labstack/echo/v5"
)

// A letterView is an order as somebody sent it, read and checked: it counts when the grower takes it.
type letterView struct {
	Text   string
	Fields []page.Field // of the order
	Lines  []letterLine
	Names  []string
	Fault  string
	Read   bool // whether there is anything to take
	Note   string
}

type letterLine struct {
	N                     string // its place, in the names of its fields
	Said                  string
	What, Count, Bunch    string
	Choices               []string // where it may be several
	Verdict               string
	IsShort               bool
	WhatFault, CountFault string
}

// lettersMost is how long a message or a file of an order may be.
const lettersMost = 64 << 10

// mostLines is how many lines of an order are taken at once.
const mostLines = 200

// letter shows where an order is pasted or its file chosen.
func (s view) letter(c *echo.Context, snap *say.Snapshot) error {
	return s.letterPage(c, http.StatusOK, snap, letterView{})
}

func (s view) letterPage(c *echo.Context, code int, snap *say.Snapshot, v letterView) error {
	v.Names = wantNames(snap)
	return s.Show(c, code, "letter", "/orders", "An order that came in", snap, v)
}

// readLetter reads a message or a file and shows what it wants, and how sure that is.
func (s view) readLetter(c *echo.Context, snap *say.Snapshot) error {
	text := c.FormValue("text")
	if file, err := c.FormFile("file"); err == nil && file.Size > 0 {
		if file.Size > lettersMost {
			return s.letterPage(c, http.StatusUnprocessableEntity, snap, letterView{Fault: "That file is far too long for an order: choose another."})
		}
		opened, err := file.Open()
		if err != nil {
			return err
		}
		defer opened.Close() // it is only read
		all, err := io.ReadAll(io.LimitReader(opened, lettersMost))
		if err != nil {
			return err
		}
		text = strings.ToValidUTF8(string(all), "�")
	}
	v := letterView{Text: text}
	if len(text) > lettersMost || strings.TrimSpace(text) == "" {
		v.Fault = "Paste the message, or choose the file that came."
		return s.letterPage(c, http.StatusUnprocessableEntity, snap, v)
	}
	read := market.ReadOrder(snap.Book, text, snap.View.Today)
	from := func(name string) string {
		if typed := c.FormValue(name); typed != "" || name != "due_on" || read.On.IsZero() {
			return typed
		}
		return read.On.String()
	}
	for i, l := range read.Lines {
		line := letterLine{N: strconv.Itoa(i + 1), Said: l.Said, What: l.What, Count: strconv.Itoa(l.Count), Choices: l.May}
		if l.Bunch > 0 {
			line.Bunch = strconv.Itoa(l.Bunch)
		}
		switch {
		case l.May != nil:
			line.WhatFault = "It may be " + say.Or(l.May) + ": say which."
		case l.What == "":
			line.WhatFault = "Nothing that the farm grows is named here: say what is meant, or leave it empty and it is left out."
		}
		v.Lines = append(v.Lines, line)
	}
	if v.Lines == nil {
		v.Fault = "No number of stems of anything is found in it. Write the order down by hand, or add its lines here such as 20 white cosmos."
		return s.letterPage(c, http.StatusOK, snap, v)
	}
	v.check(c, snap, from)
	return s.letterPage(c, http.StatusOK, snap, v)
}

// check fills in the order's fields, and says how sure the lines are that are understood.
func (v *letterView) check(c *echo.Context, snap *say.Snapshot, from page.Typed) {
	v.Read = true
	kinds := page.Field{Name: "kind", Label: "Kind", Kind: "select"}.Choose(page.Option{Value: "event", Label: "event"}, page.Option{Value: "market", Label: "market day"},
		page.Option{Value: "standing", Label: "standing bucket"})
	v.Fields = page.Fill(c, []page.Field{{Name: "order", Label: "Name", Needed: true}, {Name: "due_on", Label: "Due on", Kind: "date", Needed: true}, kinds,
		{Name: "customer", Label: "For whom"}}, from, map[string]string{})
	on, err := day.Parse(from("due_on"))
	if err != nil {
		v.Note = "Say for which day it is, and look again how sure it is."
		return
	}
	var lines []book.OrderLine
	var at []int
	for i := range v.Lines {
		f := book.NewFields(func(string) string { return "" })
		if line := lineOf(snap, f, &v.Lines[i]); f.Faults() == nil && v.Lines[i].What != "" {
			lines, at = append(lines, line), append(at, i)
		}
	}
	due, ok := market.Try(snap.Snapshot, book.Order{Kind: from("kind"), DueOn: on}, lines...)
	switch {
	case on.Before(snap.View.Today):
		v.Note = snap.Date(on) + " is past."
	case !ok:
		v.Note = snap.Date(on) + " lies beyond the forecast: how sure it is shows nearer to the day."
	default:
		v.Note = "As it is said below, and nobody who has an order already loses any."
		for _, w := range due.Lines {
			if k := at[w.Line-1]; w.Part == "" || v.Lines[k].Verdict == "" {
				v.Lines[k].Verdict, v.Lines[k].IsShort = parts.Verdict(w.Wanted, w.Chance, w.Short())
			}
		}
	}
}

// lineOf is a line of an order as it stands in the fields of a letter's line; its faults are named after "what" and "stems".
func lineOf(snap *say.Snapshot, f *book.Fields, l *letterLine) book.OrderLine {
	var line book.OrderLine
	nameLine(snap, f, &line, strings.TrimSpace(l.What))
	n, err := strconv.Atoi(strings.TrimSpace(l.Count))
	if err != nil || n < 1 {
		f.Fault("stems", "%q is no number: write how many", l.Count)
	}
	if each, err := strconv.Atoi(l.Bunch); err == nil && each > 0 && each <= 200 && line.Recipe == "" {
		line.Bunch = &each
	}
	return line.WithNumber(max(0, n))
}

// takeLetter writes down the order that was read, as it was corrected; looking again writes nothing.
func (s view) takeLetter(c *echo.Context, snap *say.Snapshot) error {
	from := page.Posted(c)
	v := letterView{Text: from("text")}
	f := book.NewFields(from).For(snap.Locale)
	o := book.Order{ID: f.Key("order", "the order's name"), Kind: f.Word("kind", "market", "event", "standing"), DueOn: f.Day("due_on"), Customer: f.Text("customer"), Note: f.Note("note")}
	if len(v.Text) > 0 && len(v.Text) <= 1000 {
		o.Note = strings.Join(strings.Fields(v.Text), " ")
	}
	if odd := o.OddDay(snap.View.Today); odd != "" {
		f.Fault("due_on", "%s %s: correct it", snap.Date(o.DueOn), odd)
	}
	err := f.Faults()
	records := []book.Record{o.Record()}
	faulty := false
	for i := 1; i <= mostLines && (from(fmt.Sprintf("count-%d", i)) != "" || from(fmt.Sprintf("what-%d", i)) != ""); i++ {
		n := strconv.Itoa(i)
		l := letterLine{N: n, Said: from("said-" + n), What: from("what-" + n), Count: from("count-" + n), Bunch: from("bunch-" + n)}
		if strings.TrimSpace(l.What) != "" { // what is left empty is left out
			of := book.NewFields(from)
			line := lineOf(snap, of, &l)
			by, _ := page.FaultsBy(of.Faults())
			l.WhatFault, l.CountFault = by["what"], by["stems"]
			faulty = faulty || by != nil
			line.Order, line.Line, line.Use = o.ID, len(records), usesOf[o.Kind].String()
			records = append(records, line.Record())
		}
		v.Lines = append(v.Lines, l)
	}
	again := func(faults map[string]string) error {
		v.check(c, snap, from)
		v.Fields = page.Fill(c, v.Fields, from, faults)
		v.Fault = page.Rest(v.Fields, faults)
		code := http.StatusUnprocessableEntity
		if faults == nil && !faulty {
			code = http.StatusOK
		}
		return s.letterPage(c, code, snap, v)
	}
	if from("look") != "" {
		return again(nil)
	}
	switch {
	case err == nil && (faulty || len(records) == 1):
		if len(records) == 1 {
			v.Fault = "It wants nothing yet: say what at least one of its lines means."
			faulty = true
		}
		return again(nil)
	case err == nil:
		err = s.Farm.Add(c.Request().Context(), page.By(c), records...)
	}
	if by, only := page.FaultsBy(err); only {
		return again(by)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, page.AddressOf("recorded", o.Record(), "orders", o.ID))
}

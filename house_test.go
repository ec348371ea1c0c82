// Package dewcount_test checks the rules of the house: what may import what, and how large a file may be.
package dewcount_test

import (
	"bytes"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// A room is a package, or a folder of packages that are alike, and what it may import of this house and of others: each a package or a folder
// of them. Data goes down the table: a room imports what stands above it. The standard library is free but for what only some may know.
type room struct {
	folder string
	uses   string
	others string
}

const (
	core     = "core/day core/climate core/crop core/postharvest core/cutting core/growth core/evidence core/forecast core/plan core/promise core/rounds core/school core/review"
	views    = "web/backtest web/beds web/crops web/cut web/access web/exports web/field web/find web/fordate web/morning web/orders web/play web/plantings web/review web/rounds web/school web/season web/seeds web/settings web/store web/successions web/why web/years"
	numerics = "gonum.org/v1/gonum"
	echo     = "github.com/labstack/echo/v5"
)

// rooms names every package. Those of the core stand in the order in which each may import those before it.
var rooms = []room{
	{"core", core, numerics},
	{"fault", "", ""},
	{"devices", "core/day", ""},
	{"croptable", "core/climate core/crop", ""},
	{"farm/book", "core fault croptable", "golang.org/x/net/idna"},
	{"farm/look", "core farm/book", ""},
	{"farm/store", "core farm/book", ""},
	{"farm/market", "core farm/book farm/look farm/store", ""},
	{"farm/plans", "core farm/book farm/look farm/market", "github.com/maruel/natural"},
	{"farm/work", "core farm/book farm/look farm/market farm/plans", "github.com/maruel/natural"},
	{"farm/find", "core farm/book", ""},
	{"farm/review", "core croptable farm/book farm/look farm/store", ""},
	{"farm", "core fault croptable farm/book farm/find farm/look", "github.com/hashicorp/golang-lru/v2 golang.org/x/sync"},
	{"people", "fault farm/book", "github.com/hashicorp/golang-lru/v2 github.com/alexedwards/argon2id"},
	{"trust", "", ""},
	{"records", "core/crop croptable fault farm/book farm/find people", "github.com/jmoiron/sqlx github.com/pressly/goose/v3 github.com/alexedwards/scs modernc.org/sqlite"},
	{"notebook", "core croptable fault farm/book farm/look farm/market farm/plans farm/work", "github.com/arran4/golang-ical"},
	{"standin", "core/day core/climate core/crop devices", ""}, // the field must not know how it is forecast
	{"demo", "core croptable devices farm people standin", ""},
	{"play", "core croptable demo farm people standin", ""},
	{"say", "core croptable farm/book farm/look farm/market farm/plans farm/work", "golang.org/x/text"},
	{"web/draw/ladder", "core/crop", ""},
	{"web/assets", "web/draw/ladder", echo},
	{"web/draw", "core farm/book farm/look farm/plans say web/assets web/draw/ladder", ""},
	{"web/page", "core devices fault farm people say web/assets web/draw", echo + " github.com/alexedwards/scs/v2 github.com/hashicorp/golang-lru/v2"},
	{"web/parts", "core farm say web/draw web/page", "github.com/skip2/go-qrcode"},
	{views, "core croptable devices fault farm people play trust notebook say web/assets web/draw web/page web/parts", echo},
	{"web", "farm web", echo},
	{"cmd/dewcount", "core devices fault farm people trust records notebook demo play web", "golang.org/x/net/netutil"},
}

// knows says who alone may import some packages of the standard library.
var knows = map[string][]string{
	"database/sql":  {"records"},
	"html/template": {"web/page", "web/exports"},
	"text/template": {},
	"net/http":      append(strings.Fields(views), "web", "web/page", "web/assets", "cmd/dewcount"),
}

// outward are packages of the standard library that reach outside, which the core must not.
var outward = []string{"os", "net", "encoding/json", "encoding/csv", "log", "log/slog", "embed", "io/fs"}

// longest is how many lines a file may have: a longer one holds two ideas.
const longest = 400

func TestHouseRules(t *testing.T) {
	seen := make(map[string]bool)
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == "vendor" || strings.HasPrefix(d.Name(), ".") && path != ".") {
			return filepath.SkipDir
		}
		if slices.Contains([]string{".go", ".js", ".mjs", ".css", ".html"}, filepath.Ext(path)) {
			text, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			if lines := bytes.Count(text, []byte("\n")); lines > longest {
				t.Errorf("%s has %d lines: part it where its second idea begins", path, lines)
			}
		}
		folder := filepath.ToSlash(filepath.Dir(path))
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		seen[roomOf(folder).folder] = true
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		for _, i := range file.Imports {
			if why := forbidden(folder, strings.Trim(i.Path.Value, `"`)); why != "" {
				t.Errorf("%s imports %s: %s", path, i.Path.Value, why)
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for _, r := range rooms {
		if !seen[r.folder] {
			t.Errorf("there is no package in %s: take it out of the table", r.folder)
		}
	}
	for _, v := range strings.Fields(views) {
		if _, err := os.Stat(v); err != nil {
			t.Errorf("there is no view %s: take it out of the table", v)
		}
	}
}

// roomOf returns the room that a package belongs to, the narrowest that holds it; the zero room where there is none.
func roomOf(folder string) room {
	var narrowest room
	longest := 0
	for _, r := range rooms {
		for _, f := range strings.Fields(r.folder) {
			alone := f == "farm" || f == "web" // their folders have rooms of their own
			if within(folder, f) && len(f) > longest && (!alone || folder == f) {
				narrowest, longest = r, len(f)
			}
		}
	}
	return narrowest
}

// within tells whether a package is one of some, or in a folder of them.
func within(path, folders string) bool {
	return slices.ContainsFunc(strings.Fields(folders), func(f string) bool { return path == f || strings.HasPrefix(path, f+"/") })
}

// forbidden says why a package may not import another, empty if it may.
func forbidden(folder, path string) string {
	r := roomOf(folder)
	if r.folder == "" {
		return "the table of rooms does not name " + folder
	}
	if who, ok := knows[path]; ok && !slices.Contains(who, folder) {
		return "only " + strings.Join(who, ", ") + " know it"
	}
	own, isOurs := strings.CutPrefix(path, "dewcount/")
	switch order := strings.Fields(core); {
	case !isOurs && !strings.Contains(strings.SplitN(path, "/", 2)[0], "."): // the standard library
		if r.folder == "core" && within(path, strings.Join(outward, " ")) {
			return "the core does not reach outside"
		}
	case !isOurs && !within(path, r.others):
		return r.folder + " does not know this library"
	case isOurs && r.folder == views && roomOf(own).folder == views:
		return "a view does not know another"
	case isOurs && !within(own, r.uses):
		return r.folder + " does not know this room"
	case isOurs && r.folder == "core" && slices.Index(order, own) >= slices.Index(order, folder):
		return "the core's packages import only those before them"
	case isOurs && r.folder != "core" && slices.IndexFunc(rooms, func(o room) bool { return o == roomOf(own) }) > slices.IndexFunc(rooms, func(o room) bool { return o == r }):
		return "data goes down the table of rooms"
	}
	return ""
}

func TestHouseRulesCanFail(t *testing.T) {
	for _, c := range [][2]string{{"core/climate", "dewcount/core/crop"}, {"core/growth", "os"}, {"core/crop", "dewcount/farm"}, {"core/day", "golang.org/x/text/runes"},
		{"web", "github.com/jmoiron/sqlx"}, {"farm", "github.com/labstack/echo/v5"}, {"standin", "dewcount/core/growth"}, {"farm/book", "dewcount/farm/look"},
		{"farm/plans", "dewcount/farm/work"}, {"farm/look", "dewcount/farm"}, {"notebook", "database/sql"}, {"records", "html/template"}, {"attic", "fmt"},
		{"web/attic", "fmt"}, {"web/beds", "dewcount/web/season"}, {"web/page", "dewcount/web/beds"}, {"say", "html/template"}, {"web/draw", "net/http"}} {
		if forbidden(c[0], c[1]) == "" {
			t.Errorf("%s may import %s", c[0], c[1])
		}
	}
	for _, c := range [][2]string{{"core/growth", "dewcount/core/day"}, {"farm/work", "dewcount/farm/plans"}, {"web/page", "html/template"}, {"records", "dewcount/people"}} {
		if why := forbidden(c[0], c[1]); why != "" {
			t.Errorf("%s may not import %s: %s", c[0], c[1], why)
		}
	}
}

// widest is how many letters a line of a template may have: templates are read by people.
const widest = 140

func TestTemplatesAreReadByPeople(t *testing.T) {
	seen := 0
	err := filepath.WalkDir("web", func(path string, d fs.DirEntry, err error) error {
		if err != nil || filepath.Ext(path) != ".html" {
			return err
		}
		seen++
		text, err := os.ReadFile(path)
		for n, line := range strings.Split(string(text), "\n") {
			if len([]rune(line)) > widest {
				t.Errorf("%s:%d has %d letters: break it", path, n+1, len([]rune(line)))
			}
		}
		return err
	})
	if err != nil || seen < 20 {
		t.Fatalf("%d templates were looked at: %v", seen, err)
	}
}

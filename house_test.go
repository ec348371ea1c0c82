// Package dewcount_test checks the rules of the house: what may import what.
package dewcount_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strings"
	"testing"
)

// coreOrder is the order of the core's packages: each may import only those before it.
var coreOrder = []string{"day", "climate", "crop", "postharvest", "growth", "evidence", "forecast", "plan", "promise", "rounds", "school", "review"}

// outward are packages of the standard library that reach outside, which the core must not.
var outward = []string{"os", "net", "net/http", "database/sql", "html/template", "text/template", "encoding/json", "encoding/csv", "log", "log/slog", "embed", "io/fs"}

func TestHouseRules(t *testing.T) {
	seen := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || strings.HasPrefix(d.Name(), ".") && path != ".") {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		seen++
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		folder := filepath.ToSlash(filepath.Dir(path))
		for _, i := range file.Imports {
			if why := forbidden(folder, strings.Trim(i.Path.Value, `"`)); why != "" {
				t.Errorf("%s imports %s: %s", path, i.Path.Value, why)
			}
		}
		return nil
	})
	if err != nil || seen < 20 {
		t.Fatalf("%d files were looked at: %v", seen, err)
	}
}

// forbidden says why a folder may not import a package, empty if it may.
func forbidden(folder, path string) string {
	standard := !strings.Contains(strings.SplitN(path, "/", 2)[0], ".") && !strings.HasPrefix(path, "dewcount/")
	if own, ok := strings.CutPrefix(folder, "core/"); ok {
		other, isCore := strings.CutPrefix(path, "dewcount/core/")
		switch {
		case isCore && slices.Index(coreOrder, other) >= slices.Index(coreOrder, own):
			return "the core's packages import only those before them"
		case isCore, strings.HasPrefix(path, "gonum.org/"):
			return ""
		case !standard:
			return "the core imports the standard library, gonum and itself"
		case slices.Contains(outward, path):
			return "the core does not reach outside"
		}
		return ""
	}
	knows := func(who string, whats ...string) string {
		if folder == who {
			return ""
		}
		for _, what := range whats {
			if strings.Contains(path, what) {
				return "only " + who + " knows it"
			}
		}
		return ""
	}
	if why := knows("records", "database/sql", "sqlx", "sqlite", "goose"); why != "" {
		return why
	}
	if why := knows("web", "echo", "html/template"); why != "" {
		return why
	}
	if folder == "farm" && (path == "net/http" || path == "dewcount/records" || path == "dewcount/web") {
		return "the farm knows neither SQL nor HTML"
	}
	if folder == "standin" && slices.Contains([]string{"dewcount/core/forecast", "dewcount/core/evidence", "dewcount/core/growth"}, path) {
		return "the field must not know how it is forecast"
	}
	return ""
}

func TestHouseRulesCanFail(t *testing.T) {
	for _, c := range [][2]string{{"core/climate", "dewcount/core/crop"}, {"core/growth", "os"}, {"core/crop", "dewcount/farm"},
		{"web", "github.com/jmoiron/sqlx"}, {"farm", "github.com/labstack/echo/v5"}, {"standin", "dewcount/core/growth"}} {
		if forbidden(c[0], c[1]) == "" {
			t.Errorf("%s may import %s", c[0], c[1])
		}
	}
}

// Package assets is the files that come with the pages: style sheets, scripts, fonts, libraries and the drawn ladders.
package assets

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"mime"
	"net/http"
	"path"
	"strings"
	"sync"

	"dewcount/web/draw/ladder"

	"github.com/labstack/echo/v5"
)

//go:embed *.css *.js *.svg vendor
var shipped embed.FS

// Address returns the address of a shipped file such as "assets/app.css", with a mark of its content, so that a browser
// can keep it for good.
func Address(name string) string { return "/assets/" + name + "?" + markOf(name) }

// File returns a file that comes with the program: one that it embeds, or a ladder that it draws.
func File(name string) ([]byte, error) {
	if form, ok := strings.CutPrefix(name, "ladder/"); ok {
		if sheet, ok := sheets()[strings.TrimSuffix(form, ".svg")]; ok {
			return sheet, nil
		}
	}
	return shipped.ReadFile(strings.TrimPrefix(name, "assets/"))
}

// sheets are the drawn ladders by flower form.
var sheets = sync.OnceValue(func() map[string][]byte {
	drawn := make(map[string][]byte)
	for _, form := range ladder.Forms() {
		drawn[form] = ladder.Sheet(form)
	}
	return drawn
})

var marks sync.Map

func markOf(name string) string {
	if mark, ok := marks.Load(name); ok {
		return mark.(string)
	}
	text, err := File(name)
	if err != nil {
		panic("assets: no file " + name) // a template names it; tests render them all
	}
	sum := sha256.Sum256(text)
	mark := hex.EncodeToString(sum[:6])
	marks.Store(name, mark)
	return mark
}

// Worker answers with the script that keeps the count page on a phone: at the root, since it looks after no addresses above its own.
func Worker(c *echo.Context) error {
	text, err := File("assets/worker.js")
	if err != nil {
		return err
	}
	return c.Blob(http.StatusOK, "text/javascript; charset=utf-8", text)
}

// Serve answers with a file, under the mark of its content for good.
func Serve(c *echo.Context) error {
	name := path.Clean(strings.TrimPrefix(c.Request().URL.Path, "/assets/"))
	text, err := File(name)
	if err != nil {
		return echo.ErrNotFound
	}
	kind := mime.TypeByExtension(path.Ext(name))
	if path.Ext(name) == ".woff2" {
		kind = "font/woff2"
	}
	header, mark := c.Response().Header(), markOf(name)
	switch {
	case c.Request().URL.RawQuery == mark:
		header.Set("Cache-Control", "public, max-age=31536000, immutable")
	case kind == "font/woff2": // asked for again on every page, the text would jump on every page
		header.Set("Cache-Control", "public, max-age=2592000")
	}
	header.Set("ETag", `"`+mark+`"`)
	if c.Request().Header.Get("If-None-Match") == `"`+mark+`"` {
		return c.NoContent(http.StatusNotModified)
	}
	return c.Blob(http.StatusOK, kind, text)
}

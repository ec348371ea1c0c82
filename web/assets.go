package web

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"mime"
	"net/http"
	"path"
	"strings"
	"sync"

	"dewcount/web/ladder"

	"github.com/labstack/echo/v5"
)

//go:embed assets vendor
var shipped embed.FS

// assetAddress returns the address of a shipped file such as "assets/app.css", with a mark of its content, so that a browser
// can keep it for good.
func assetAddress(name string) string { return "/assets/" + name + "?" + markOf(name) }

// shippedFile returns a file that comes with the program: one that it embeds, or a ladder that it draws.
func shippedFile(name string) ([]byte, error) {
	if form, ok := strings.CutPrefix(name, "ladder/"); ok {
		if sheet, ok := sheets()[strings.TrimSuffix(form, ".svg")]; ok {
			return sheet, nil
		}
	}
	return shipped.ReadFile(name)
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
	text, err := shippedFile(name)
	if err != nil {
		panic("web: no asset " + name) // a template names it; tests render them all
	}
	sum := sha256.Sum256(text)
	mark := hex.EncodeToString(sum[:6])
	marks.Store(name, mark)
	return mark
}

// worker answers with the script that keeps the count page on a phone: at the root, since it looks after no addresses above its own.
func worker(c *echo.Context) error {
	text, err := shippedFile("assets/worker.js")
	if err != nil {
		return err
	}
	return c.Blob(http.StatusOK, "text/javascript; charset=utf-8", text)
}

func assets(c *echo.Context) error {
	name := path.Clean(strings.TrimPrefix(c.Request().URL.Path, "/assets/"))
	text, err := shippedFile(name)
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

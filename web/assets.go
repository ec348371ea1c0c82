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

	"github.com/labstack/echo/v5"
)

//go:embed assets vendor
var shipped embed.FS

// assetAddress returns the address of a shipped file such as "assets/app.css", with a mark of its content, so that a browser
// can keep it for good.
func assetAddress(name string) string { return "/assets/" + name + "?" + markOf(name) }

var marks sync.Map

func markOf(name string) string {
	if mark, ok := marks.Load(name); ok {
		return mark.(string)
	}
	text, err := shipped.ReadFile(name)
	if err != nil {
		panic("web: no asset " + name) // a template names it; tests render them all
	}
	sum := sha256.Sum256(text)
	mark := hex.EncodeToString(sum[:6])
	marks.Store(name, mark)
	return mark
}

func assets(c *echo.Context) error {
	name := path.Clean(strings.TrimPrefix(c.Request().URL.Path, "/assets/"))
	text, err := shipped.ReadFile(name)
	if err != nil {
		return echo.ErrNotFound
	}
	kind := mime.TypeByExtension(path.Ext(name))
	if path.Ext(name) == ".woff2" {
		kind = "font/woff2"
	}
	if c.Request().URL.RawQuery == markOf(name) {
		c.Response().Header().Set("Cache-Control", "public, max-age=31536000, immutable")
	}
	return c.Blob(http.StatusOK, kind, text)
}

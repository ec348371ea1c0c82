package people

import (
	"crypto/rand"
	"fmt"
	"strings"
	"sync"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
)

// cost is what a password costs to try: 19 MiB, two passes and one lane (OWASP's least, 2023), a second's work for a phone-sized machine.
var cost = &argon2id.Params{Memory: 19 * 1024, Iterations: 2, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// How long a password is, in letters: long ones need no rules about signs.
const (
	shortest = 10
	longest  = 200
)

// trying lets two passwords be tried at once, so that a flood of them does not fill the memory.
var trying = make(chan struct{}, 2)

// weak tells what to do about a password that will not do, empty if it will.
func weak(password string) string {
	switch n := utf8.RuneCountInString(password); {
	case n < shortest:
		return fmt.Sprintf("at least %d letters: three words that do not belong together are easy to keep in mind", shortest)
	case n > longest: // also of what is only compared: megabytes cost work
		return fmt.Sprintf("at most %d letters", longest)
	case len(strings.Trim(password, password[:1])) == 0:
		return "one letter over and over is quickly guessed: take some words"
	}
	return ""
}

// hashOf returns what is kept of a password: the algorithm, its cost, the salt and the key.
func hashOf(password string) string {
	trying <- struct{}{}
	defer func() { <-trying }()
	hash, err := argon2id.CreateHash(password, cost)
	if err != nil {
		panic("people: no random numbers: " + err.Error())
	}
	return hash
}

// nobodys is the hash of a password that nobody has.
var nobodys = sync.OnceValue(func() string { return hashOf(rand.Text()) })

// matches tells whether a password is the one of a hash. For an empty hash it works as long and says no.
func matches(password, hash string) bool {
	known := hash != ""
	if !known {
		hash = nobodys()
	}
	trying <- struct{}{}
	defer func() { <-trying }()
	same, err := argon2id.ComparePasswordAndHash(password, hash)
	return same && known && err == nil
}
